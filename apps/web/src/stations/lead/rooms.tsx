import type { Material } from '@schmelz/contract';
import { alloyOf, SOFT_LEAD, type Alloy } from '@schmelz/core';
import { SubNav } from '../../design/SubNav.tsx';

export const LeadRooms = () => (
  <SubNav
    label="Rooms of the lead station"
    rooms={[
      { to: '/lead', name: 'Lots' },
      { to: '/lead/melt', name: 'Melting' },
      { to: '/lead/dial', name: 'Dial' },
      { to: '/lead/cast', name: 'What it casts' },
      { to: '/lead/probes', name: 'Probes' },
    ]}
  />
);

/** The alloy of a lead on the shelf. */
export const alloyOfMaterial = (material: Material | undefined): Alloy =>
  material?.metalId ? { ...alloyOf(material.metalId, material.composition ?? undefined), name: material.name } : SOFT_LEAD; // prettier-ignore
