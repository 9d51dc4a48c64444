import type { Cavity, Mold, MoldInput, Part } from '@schmelz/contract';
import {
  AS_CUT,
  castMassKg,
  cavitySolid,
  sprueOf,
  typicalHook,
  type Basis,
  type CavityVariant,
  type FillCavity,
  type HookSize,
  type MoldBlock,
  type MoldMetal,
  type VariantCavity,
  type Wire,
} from '@schmelz/core';
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
  const { name, bodyKg, metal, sootSchool, warmSchool, learned, cavities } = mold;
  return {
    name,
    bodyKg,
    metal,
    sootSchool,
    warmSchool,
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

export const metalOfMold = (mold: Mold): MoldMetal => mold.metal ?? 'aluminium';

/** The block as heat sees it, learned from its readings where it was. */
export function blockOf(mold: Mold): { block: MoldBlock; basis: Basis } {
  const { learned } = mold;
  const block = { bodyKg: mold.bodyKg, metal: metalOfMold(mold) };
  if (!learned) return { block, basis: 'given' };
  return { block: { ...block, lossWPerK: learned.lossWPerK, capacityShare: learned.capacityShare }, basis: 'fitted' };
}

/** One shot with every open cavity filled, heads and sprues, kg of soft lead. */
export const fullShotKg = (mold: Mold): number =>
  mold.cavities
    .filter((cavity) => cavity.condition === 'good')
    .reduce(
      (sum, { style, nominalMassKg }) =>
        sum + castMassKg({ nominalMassKg }) + sprueOf(cavitySolid(style, nominalMassKg)).massKg,
      0,
    );

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

/** A cavity as the flow sees it, with the wire it was cut for. */
export function fillCavityOf(cavity: Cavity): FillCavity {
  const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
  const { wireM } = typicalHook(cavity.hookSize as HookSize, (cavity.wire ?? 'standard') as Wire);
  return { solid, sprueHeightM: sprueOf(solid).heightM, wireM };
}

/** good, blocked, or modified where something else can be cast in it too. */
export const conditionOf = (cavity: Cavity): 'good' | 'blocked' | 'modified' =>
  cavity.condition === 'blocked' ? 'blocked' : (cavity.variants ?? []).length > 0 ? 'modified' : 'good';

/** Pieces in the drawer: owned less those that are somewhere. */
export const inDrawer = (part: Part): number => part.owned - part.places.reduce((sum, place) => sum + place.count, 0);
