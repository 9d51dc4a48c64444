import type { Cavity, Mold, MoldInput } from '@schmelz/contract';
import { AS_CUT, type CavityVariant, type VariantCavity } from '@schmelz/core';
import { SubNav } from '../../design/SubNav.tsx';

export const MoldRooms = ({ id }: { id: string }) => (
  <SubNav
    label="Rooms of this mold"
    rooms={[
      { to: `/molds/${id}`, name: 'Cavities' },
      { to: `/molds/${id}/hooks`, name: 'Which hook fits' },
      { to: `/molds/${id}/warm`, name: 'Warming' },
      { to: `/molds/${id}/fill`, name: 'Will it fill' },
      { to: `/molds/${id}/care`, name: 'Care' },
    ]}
  />
);

/** A mold as it is written back: without what the server works out. */
export function moldInputOf(mold: Mold): MoldInput {
  const { name, archived, bodyKg, barKg, ownOpenS, metal, sootSchool, warmSchool, keptFor, learned, cavities } = mold;
  return {
    name,
    archived,
    bodyKg,
    barKg,
    ownOpenS,
    metal,
    sootSchool,
    warmSchool,
    keptFor,
    learned,
    cavities: cavities.map(
      ({
        good: _good,
        casts: _casts,
        rejects: _rejects,
        shotsSinceSmoked: _since,
        everSmoked: _ever,
        tried: _tried,
        ...cavity
      }) => cavity,
    ),
  };
}

export const variantCavity = ({ position, style, nominalMassKg, pin }: Cavity): VariantCavity => ({
  position,
  style,
  nominalMassKg,
  pin: pin ?? null,
});
export const variantsOf = (cavity: Cavity): CavityVariant[] => [
  AS_CUT,
  ...((cavity.variants ?? []) as CavityVariant[]),
];

/** good, blocked, or modified where something else can be cast in it too. */
export const conditionOf = (cavity: Cavity): 'good' | 'blocked' | 'modified' =>
  cavity.condition === 'blocked' ? 'blocked' : (cavity.variants ?? []).length > 0 ? 'modified' : 'good';
