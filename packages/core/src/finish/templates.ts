import type { HookSize } from '../geometry/hook.ts';
import type { StyleId } from '../geometry/styles.ts';
import { cavitySolid } from '../geometry/solid.ts';
import type { PartKindId } from '../job/part-kinds.ts';
import type { RouteStep } from '../job/route.ts';
import { collarOf, hairKg, windingM } from './amounts.ts';
import { WIRE_ENDS_M } from './checks.ts';
import { finishSchool, finishTask, type FinishTaskId } from '../ways/finish.ts';

/** A part that a template wants: its kind and figures; the maker's own takes its place. */
export interface TemplatePart {
  kind: PartKindId;
  name: string;
  details?: Record<string, number>;
  /** Heat it stands, C, where it matters. */
  limitC?: number;
  quantity: number;
  waste: number;
  step: string;
}

/** A product to start from: what the head is, its way and what goes on it. */
export interface ProductTemplate {
  id: string;
  name: string;
  says: string;
  style: StyleId;
  nominalMassKg: number;
  hookSize: HookSize | null;
  eyeAngleDeg: number;
  /** It is cast with these. */
  cast: { pin?: boolean; keeper?: boolean; wireGuards?: number };
  /** From bare heads off the shelf, from worn ones, or poured. */
  from: 'pour' | 'bare head' | 'used jig';
  steps: RouteStep[];
  parts: TemplatePart[];
}

const usual = (station: 'trim' | 'paint' | 'bake' | 'finish', does: string): RouteStep => ({
  key: station,
  station,
  does,
});
const trim = usual('trim', 'Trim');
const paint = usual('paint', 'Paint');
const bake = usual('bake', 'Bake');
const bag = usual('finish', 'Count and bag');

/** A step of the finish that does one task, with the wait that its school wants. */
function doing(task: FinishTaskId, school?: string): RouteStep {
  const { wait, id } = finishSchool(task, school);
  return { key: task, station: 'finish', does: finishTask(task).does, task, school: id, wait: wait ?? null };
}

const piece = (kind: PartKindId, name: string, step: string, more: Partial<TemplatePart> = {}): TemplatePart => ({
  ...{ kind, name, step, quantity: 1, waste: 0.02 },
  ...more,
});

/** Glue or lacquer by what the school takes. */
const ml = (kind: 'glue' | 'lacquer', name: string, task: FinishTaskId, school?: string): TemplatePart => {
  const followed = finishSchool(task, school);
  const { potLifeS, wait } = followed;
  const setS = wait?.seconds ?? 60;
  const details: Record<string, number> = kind === 'glue' ? { potLifeS: potLifeS ?? setS, setS } : { dryS: setS };
  return { kind, name, step: task, details, quantity: followed.ml ?? 0.02, waste: 0.5 };
};

/** Strands of this thickness around the collar of that head. */
const wound = (style: StyleId, massKg: number, of: { turns: number; strandM: number; endsM: number }): number =>
  windingM({ ...of, coreM: collarOf(cavitySolid(style, massKg)).barbM });

const rubber = { limitC: 80 };
const guard = (massKg: number): TemplatePart =>
  piece('guard', 'Fibre guard', 'guard', {
    details: { diameterM: massKg > 0.012 ? 0.003 : 0.0022, lengthM: 0.045 },
    ...rubber,
  });
const banded = piece('banded skirt', 'Banded skirt', 'skirt', { details: { lengthM: 0.11 }, ...rubber });
const eye = (diameterM: number) =>
  piece('eye', 'Stick-on eyes', 'eyes', { details: { diameterM }, quantity: 2, waste: 0.05, limitC: 70 });
const head = (style: StyleId, grams: number, hookSize: HookSize | null, eyeAngleDeg = 60) => ({
  ...{ style, nominalMassKg: grams / 1000, hookSize, eyeAngleDeg, from: 'pour' as const },
});
const clear = 'Clear lacquer';

/**
 * Products that the trade knows, each with its parts, its way and its waits: taken, and changed. Amounts by worked
 * geometry (see amounts.ts); what is put on which head is common practice, no source.
 */
export const PRODUCT_TEMPLATES: readonly ProductTemplate[] = [
  {
    ...head('football', 14.2, '4/0', 60),
    ...{
      id: 'guard jig',
      name: 'Guard jig, banded',
      says: 'weed guard glued in, ready-banded skirt',
      cast: { pin: true },
    },
    steps: [trim, paint, bake, doing('guard'), doing('skirt', 'banded'), bag],
    parts: [guard(0.0142), ml('glue', 'Five-minute epoxy', 'guard'), banded],
  },
  {
    ...head('football', 14.2, '4/0', 60),
    ...{
      id: 'tied guard jig',
      name: 'Guard jig, tied',
      says: 'skirt of tabs bound with wire: it lasts',
      cast: { pin: true },
    },
    steps: [trim, paint, bake, doing('guard', 'epoxy 30'), doing('skirt', 'wire'), bag],
    parts: [
      guard(0.0142),
      ml('glue', 'Thirty-minute epoxy', 'guard', 'epoxy 30'),
      piece('skirt tab', 'Skirt tabs', 'skirt', { details: { lengthM: 0.12 }, quantity: 2, ...rubber }),
      piece('wire', 'Copper wire', 'skirt', {
        details: { diameterM: 0.0005 },
        quantity: wound('football', 0.0142, { turns: 3, strandM: 0.0005, endsM: WIRE_ENDS_M }),
        waste: 0.1,
      }),
    ],
  },
  {
    ...head('ball', 10.6, '3/0'),
    ...{ id: 'plain', name: 'Plain head', says: 'for soft baits: painted, baked, bagged', cast: {} },
    steps: [trim, paint, bake, bag],
    parts: [],
  },
  {
    ...head('mushroom', 5.3, '2/0', 90),
    ...{
      id: 'finesse',
      name: 'Finesse head with keeper',
      says: 'a wire keeper cast in holds the bait',
      cast: { keeper: true },
    },
    steps: [trim, paint, bake, bag],
    parts: [piece('wire keeper', 'Wire keepers', 'pour')],
  },
  {
    ...head('bullet', 7.1, '4/0'),
    ...{
      id: 'weedless',
      name: 'Weedless head',
      says: 'two guard wires cast in, a tube shrunk over them',
      cast: { wireGuards: 2 },
    },
    steps: [trim, paint, bake, doing('tube'), bag],
    parts: [
      piece('wire guard', 'Guard wires', 'pour', { quantity: 2 }),
      piece('shrink tube', 'Shrink tube', 'tube', { details: { diameterM: 0.0016 }, quantity: 0.018, limitC: 125 }),
    ],
  },
  {
    ...head('ball', 14.2, '5/0', 90),
    ...{ id: 'hair jig', name: 'Hair jig', says: 'bundle of hair, thread, epoxy over the thread', cast: {} },
    steps: [trim, paint, bake, doing('tie'), doing('seal'), bag],
    parts: [
      piece('thread', 'Thread, size D', 'tie', {
        details: { diameterM: 0.00026 },
        quantity: wound('ball', 0.0142, { turns: 30, strandM: 0.00026, endsM: 0.25 }),
        waste: 0.1,
      }),
      piece('hair', 'Bucktail', 'tie', { quantity: hairKg({ bundleM: 0.0055, tailM: 0.075 }), waste: 0.3 }),
      ml('glue', 'Epoxy for thread', 'seal'),
    ],
  },
  {
    ...head('ball', 1.8, '8', 90),
    ...{ id: 'micro', name: 'Micro jig', says: 'feather tail, tinsel body, fine thread', cast: {} },
    steps: [trim, paint, bake, doing('tie', 'whip'), doing('seal', 'clear paint'), bag],
    parts: [
      piece('thread', 'Thread, 6/0', 'tie', {
        details: { diameterM: 0.00011 },
        quantity: wound('ball', 0.0018, { turns: 40, strandM: 0.00011, endsM: 0.2 }),
        waste: 0.1,
      }),
      piece('feather', 'Marabou plumes', 'tie', { waste: 0.1 }),
      piece('tinsel', 'Flat tinsel', 'tie', {
        quantity: wound('ball', 0.0018, { turns: 14, strandM: 0.0004, endsM: 0.06 }),
        waste: 0.1,
      }),
      ml('lacquer', 'Clear paint', 'seal', 'clear paint'),
    ],
  },
  {
    ...head('bullet', 227, null),
    ...{
      id: 'trolling',
      name: 'Big trolling head',
      says: 'leader hole by a pull-out rod, liquid paint, nylon hair',
      cast: {},
    },
    steps: [
      trim,
      { ...paint, does: 'Paint, coat by coat', wait: { name: 'paint dries', seconds: 12 * 3600 } },
      doing('eyes', 'superglue'),
      doing('lacquer'),
      doing('tie'),
      bag,
    ],
    parts: [
      eye(0.0075),
      ml('glue', 'Superglue', 'eyes', 'superglue'),
      ml('lacquer', clear, 'lacquer'),
      piece('thread', 'Nylon thread, heavy', 'tie', {
        details: { diameterM: 0.0004 },
        quantity: wound('bullet', 0.227, { turns: 40, strandM: 0.0004, endsM: 0.3 }),
        waste: 0.1,
      }),
      piece('hair', 'Nylon hair', 'tie', { quantity: hairKg({ bundleM: 0.012, tailM: 0.18 }), waste: 0.2 }),
    ],
  },
  {
    ...head('fish', 14.2, '4/0', 60),
    ...{ id: 'swimming', name: 'Swimming head', says: 'eyes on both sides, sealed with lacquer', cast: {} },
    steps: [trim, paint, bake, doing('eyes'), doing('lacquer', 'brushed'), bag],
    parts: [eye(0.004), ml('lacquer', clear, 'lacquer', 'brushed')],
  },
  {
    ...head('bullet', 10.6, null),
    ...{ id: 'spinner', name: 'Tail spinner', says: 'wire form cast in; beads, blade, treble', cast: {} },
    steps: [trim, paint, bake, doing('rig', 'spinner'), bag],
    parts: [
      piece('wire form', 'Wire forms', 'pour', { details: { diameterM: 0.0009, lengthM: 0.032 } }),
      piece('bead', 'Beads', 'rig', { details: { diameterM: 0.003 }, quantity: 5, waste: 0.05 }),
      piece('clevis', 'Clevises', 'rig'),
      piece('blade', 'Willow blades', 'rig', { details: { lengthM: 0.024 } }),
      piece('treble', 'Treble hooks', 'rig', { limitC: 150 }),
    ],
  },
  {
    ...head('ball', 14.2, null),
    ...{ id: 'rigged ball', name: 'Ball with swivel and ring', says: 'ring and hook on before the paint', cast: {} },
    steps: [trim, { ...doing('rig', 'rings'), does: 'Ring and hook on' }, paint, bake, bag],
    parts: [
      piece('swivel', 'Barrel swivels', 'pour'),
      piece('ring', 'Split rings', 'rig', { details: { diameterM: 0.006 }, quantity: 2 }),
      piece('treble', 'Single hooks for rings', 'rig', { limitC: 200 }),
    ],
  },
  {
    ...head('flat', 7.1, '2/0', 90),
    ...{
      id: 'flat',
      name: 'Flat head, two ways',
      says: 'skirted, or bare for a soft bait: leave out the skirt',
      cast: {},
    },
    steps: [trim, paint, bake, doing('skirt', 'collar'), bag],
    parts: [
      piece('skirt tab', 'Skirt tabs', 'skirt', { details: { lengthM: 0.1 }, quantity: 1, ...rubber }),
      piece('collar', 'Rubber collars', 'skirt', rubber),
    ],
  },
  {
    ...head('ball', 7.1, '2/0', 90),
    ...{ id: 'bare eyes', name: 'Bare head, eyes only', says: 'clear water: no paint, two eyes', cast: {} },
    steps: [trim, doing('eyes', 'superglue'), bag],
    parts: [eye(0.003), ml('glue', 'Superglue', 'eyes', 'superglue')],
  },
  {
    ...head('ball', 14.2, '5/0', 90),
    ...{
      id: 'won back',
      name: 'Hair jig won back',
      says: 'cut off, sharpened, tied again',
      cast: {},
      from: 'used jig' as const,
    },
    steps: [
      { key: 'strip', station: 'trim', does: 'Cut off, clean, sharpen', handsS: 90 },
      doing('tie'),
      doing('seal', 'epoxy in hand'),
      bag,
    ],
    parts: [
      piece('thread', 'Thread, size D', 'tie', {
        details: { diameterM: 0.00026 },
        quantity: wound('ball', 0.0142, { turns: 30, strandM: 0.00026, endsM: 0.25 }),
        waste: 0.1,
      }),
      piece('hair', 'Bucktail', 'tie', { quantity: hairKg({ bundleM: 0.0055, tailM: 0.075 }), waste: 0.3 }),
      ml('glue', 'Quick epoxy', 'seal', 'epoxy in hand'),
    ],
  },
];
