import { inRange, QuantityError } from '../quantity/check.ts';

/** What a part is counted in on the shelf. */
type PartUnit = 'kg' | 'pieces' | 'm' | 'ml';

/** Where a part stands in the cost of a head. */
export const COST_PARTS = ['lead', 'hook', 'powder', 'parts', 'packaging', 'dross', 'energy', 'work', 'wear'] as const;
export type CostPart = (typeof COST_PARTS)[number];

/** A figure that is known of every part of a kind. */
interface PartField {
  name: string;
  label: string;
  unit: string;
  low: number;
  high: number;
}

/** One row of the table of kinds. */
export interface PartKind {
  id: string;
  /** One of them, as it is said. */
  name: string;
  many: string;
  unit: PartUnit;
  /** Whether it is won back, as good as new, when its head is melted down. */
  comesBack: boolean;
  costs: CostPart;
  /** Less than this on the shelf is worth buying. Common practice, no source. */
  lowAt: number;
  fields: readonly PartField[];
  /** How it is drawn on a list where it has no drawing of its own. */
  sign: 'bar' | 'hook' | 'dot' | 'ring' | 'strand' | 'drop' | 'leaf' | 'head';
}

const mm = (name: string, label: string, low: number, high: number): PartField => ({
  name,
  label,
  unit: 'm',
  low,
  high,
});

/**
 * Every kind of thing that is used up, as data: a new kind is a new row and nothing else. Kinds that the models know
 * more of (`lead`, `hook`, `powder`) have further details of their own in the contract.
 *
 * @example partKind('guard').unit // 'pieces'
 */
export const PART_KINDS = [
  {
    id: 'lead',
    name: 'lead',
    many: 'lead',
    unit: 'kg',
    comesBack: true,
    costs: 'lead',
    lowAt: 5,
    fields: [],
    sign: 'bar',
  },
  {
    id: 'hook',
    name: 'hook',
    many: 'hooks',
    unit: 'pieces',
    comesBack: true,
    costs: 'hook',
    lowAt: 60,
    fields: [],
    sign: 'hook',
  },
  {
    id: 'powder',
    name: 'powder',
    many: 'powders',
    unit: 'kg',
    comesBack: false,
    costs: 'powder',
    lowAt: 0.05,
    fields: [],
    sign: 'dot',
  },
  {
    id: 'guard',
    name: 'guard',
    many: 'guards',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 50,
    fields: [mm('diameterM', 'Diameter', 0.0005, 0.01), mm('lengthM', 'Length', 0.005, 0.15)],
    sign: 'strand',
  },
  {
    id: 'banded skirt',
    name: 'banded skirt',
    many: 'banded skirts',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 40,
    fields: [mm('lengthM', 'Length', 0.02, 0.3)],
    sign: 'strand',
  },
  {
    id: 'skirt tab',
    name: 'skirt tab',
    many: 'skirt tabs',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 60,
    fields: [mm('lengthM', 'Length', 0.02, 0.3)],
    sign: 'strand',
  },
  {
    id: 'collar',
    name: 'rubber collar',
    many: 'rubber collars',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'ring',
  },
  {
    id: 'wire',
    name: 'wire',
    many: 'wire',
    unit: 'm',
    comesBack: false,
    costs: 'parts',
    lowAt: 10,
    fields: [mm('diameterM', 'Diameter', 0.0001, 0.003)],
    sign: 'strand',
  },
  {
    id: 'thread',
    name: 'thread',
    many: 'thread',
    unit: 'm',
    comesBack: false,
    costs: 'parts',
    lowAt: 20,
    fields: [mm('diameterM', 'Diameter', 0.00002, 0.001)],
    sign: 'strand',
  },
  {
    id: 'hair',
    name: 'hair',
    many: 'hair',
    unit: 'kg',
    comesBack: false,
    costs: 'parts',
    lowAt: 0.02,
    fields: [],
    sign: 'leaf',
  },
  {
    id: 'feather',
    name: 'feather',
    many: 'feathers',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'leaf',
  },
  {
    id: 'tinsel',
    name: 'tinsel',
    many: 'tinsel',
    unit: 'm',
    comesBack: false,
    costs: 'parts',
    lowAt: 5,
    fields: [],
    sign: 'strand',
  },
  {
    id: 'eye',
    name: 'stick-on eye',
    many: 'stick-on eyes',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 80,
    fields: [mm('diameterM', 'Diameter', 0.001, 0.02)],
    sign: 'dot',
  },
  {
    id: 'bead',
    name: 'bead',
    many: 'beads',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 80,
    fields: [mm('diameterM', 'Diameter', 0.001, 0.02)],
    sign: 'dot',
  },
  {
    id: 'blade',
    name: 'blade',
    many: 'blades',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [mm('lengthM', 'Length', 0.005, 0.15)],
    sign: 'leaf',
  },
  {
    id: 'clevis',
    name: 'clevis',
    many: 'clevises',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'ring',
  },
  {
    id: 'ring',
    name: 'split ring',
    many: 'split rings',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 60,
    fields: [mm('diameterM', 'Diameter', 0.002, 0.02)],
    sign: 'ring',
  },
  {
    id: 'swivel',
    name: 'swivel',
    many: 'swivels',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 60,
    fields: [],
    sign: 'ring',
  },
  {
    id: 'treble',
    name: 'treble hook',
    many: 'treble hooks',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'hook',
  },
  {
    id: 'wire form',
    name: 'wire form',
    many: 'wire forms',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [mm('diameterM', 'Diameter', 0.0003, 0.003), mm('lengthM', 'Free length behind the head', 0.005, 0.15)],
    sign: 'strand',
  },
  {
    id: 'eyelet',
    name: 'eyelet',
    many: 'eyelets',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'ring',
  },
  {
    id: 'wire keeper',
    name: 'wire keeper',
    many: 'wire keepers',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'strand',
  },
  {
    id: 'wire guard',
    name: 'wire guard',
    many: 'wire guards',
    unit: 'pieces',
    comesBack: true,
    costs: 'parts',
    lowAt: 40,
    fields: [],
    sign: 'strand',
  },
  {
    id: 'shrink tube',
    name: 'shrink tube',
    many: 'shrink tube',
    unit: 'm',
    comesBack: false,
    costs: 'parts',
    lowAt: 1,
    fields: [mm('diameterM', 'Diameter', 0.0005, 0.02)],
    sign: 'strand',
  },
  {
    id: 'glue',
    name: 'glue',
    many: 'glue',
    unit: 'ml',
    comesBack: false,
    costs: 'parts',
    lowAt: 10,
    fields: [
      { name: 'potLifeS', label: 'Can be worked for', unit: 's', low: 5, high: 86_400 },
      { name: 'setS', label: 'Sets in', unit: 's', low: 5, high: 604_800 },
    ],
    sign: 'drop',
  },
  {
    id: 'lacquer',
    name: 'lacquer',
    many: 'lacquer',
    unit: 'ml',
    comesBack: false,
    costs: 'parts',
    lowAt: 20,
    fields: [{ name: 'dryS', label: 'Dries in', unit: 's', low: 5, high: 604_800 }],
    sign: 'drop',
  },
  {
    id: 'bag',
    name: 'bag',
    many: 'bags',
    unit: 'pieces',
    comesBack: false,
    costs: 'packaging',
    lowAt: 50,
    fields: [],
    sign: 'leaf',
  },
  {
    id: 'label',
    name: 'label',
    many: 'labels',
    unit: 'pieces',
    comesBack: false,
    costs: 'packaging',
    lowAt: 50,
    fields: [],
    sign: 'leaf',
  },
  {
    id: 'bare head',
    name: 'bare head',
    many: 'bare heads',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 0,
    fields: [{ name: 'massKg', label: 'Weighs', unit: 'kg', low: 0.0002, high: 2 }],
    sign: 'head',
  },
  {
    id: 'used jig',
    name: 'used jig',
    many: 'used jigs',
    unit: 'pieces',
    comesBack: false,
    costs: 'parts',
    lowAt: 0,
    fields: [{ name: 'massKg', label: 'Weighs', unit: 'kg', low: 0.0002, high: 2 }],
    sign: 'head',
  },
] as const satisfies readonly PartKind[];
export type PartKindId = (typeof PART_KINDS)[number]['id'];

/** Kinds that a ticket can start from, instead of a pour. */
export const SOURCE_KINDS: readonly string[] = ['bare head', 'used jig'];

/**
 * The row of a kind.
 * @throws RangeError for a kind that is not in the table
 * @example partKind('wire').unit // 'm'
 */
export function partKind(id: string): PartKind {
  const found = (PART_KINDS as readonly PartKind[]).find((kind) => kind.id === id);
  if (!found) throw new RangeError(`kind is ${id}; allowed: ${PART_KINDS.map((kind) => kind.id).join(', ')}`);
  return found;
}

/**
 * Judges what is said of a part beyond its name, by the fields of its kind.
 * @throws QuantityError for a field that the kind does not have, or a value out of its range
 * @example checkDetails('guard', { diameterM: 0.003 }) // undefined
 */
export function checkDetails(kind: string, details: Readonly<Record<string, number>> | null | undefined): void {
  const { fields, name: kindName } = partKind(kind);
  for (const [name, value] of Object.entries(details ?? {})) {
    const field = fields.find((each) => each.name === name);
    const allowed = fields.map((each) => each.name).join(', ') || 'none';
    if (!field) throw new QuantityError(`detail of a ${kindName}`, name, '', allowed);
    inRange(name, value, field.unit, field.low, field.high);
  }
}
