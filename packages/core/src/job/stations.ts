import type { DispositionId } from './dispositions.ts';

/** How a head looks at a place on the line; drawn from the same geometry everywhere. */
export type HeadLook = 'hook' | 'cast' | 'blank' | 'powder' | 'baked';

/** Why a head is thrown back at a station. */
interface Cause {
  id: string;
  /** What is done with such a head unless something else is said. */
  goes: DispositionId;
  /** The letter for it, where digits are taken. */
  key?: string;
  /** The kind of part that may be to blame: lots of it are compared by heads with this cause. */
  of?: string;
}

/** One row of the table of stations. A station may stand in a route any number of times, or not at all. */
export interface Station {
  id: string;
  name: string;
  /** What is done there: to trim. */
  verb: string;
  /** The work, as a heading: trimming. */
  doing: string;
  /** Heads are counted there step by step of a route; Lead and Molds only make ready. */
  counts: boolean;
  causes: readonly Cause[];
  /** Said before the work, where it can hurt someone. */
  cautions: readonly string[];
  before: HeadLook;
  after: HeadLook;
  says: { left: string; good: string; all: string; begin: string };
}

const cause = (id: string, goes: DispositionId = 'melt', key?: string, of?: string): Cause => ({
  id,
  goes,
  ...(key ? { key } : {}),
  ...(of ? { of } : {}),
});
/** One that a hook, or a powder, may be to blame for. Common practice, no source. */
const ofHook = (id: string, goes?: DispositionId, key?: string) => cause(id, goes, key, 'hook');
const ofPowder = (id: string, goes?: DispositionId) => cause(id, goes, undefined, 'powder');
const NOTHING = { left: '', good: '', all: '', begin: '' };

/**
 * The line, in working order, as data. Causes are words of the trade; what a head with one is worth is common practice,
 * no source.
 */
export const STATIONS: readonly Station[] = [
  {
    id: 'lead',
    name: 'Lead',
    verb: 'to melt',
    doing: 'melting',
    counts: false,
    causes: [],
    cautions: ['Dry metal only: a drop of water under the melt explodes into steam.'],
    before: 'hook',
    after: 'hook',
    says: NOTHING,
  },
  {
    id: 'molds',
    name: 'Molds',
    verb: 'to ready',
    doing: 'readying molds',
    counts: false,
    causes: [],
    cautions: [],
    before: 'hook',
    after: 'hook',
    says: NOTHING,
  },
  {
    id: 'pour',
    name: 'Pour',
    verb: 'to pour',
    doing: 'pouring',
    counts: false,
    causes: [
      cause('short', 'melt', 'S'),
      cause('flash', 'melt', 'F'),
      cause('void', 'melt', 'V'),
      ofHook('loose hook', 'melt', 'L'),
      ofHook('eye full', 'melt', 'E'),
      cause('no pin', 'melt', 'N'),
      cause('leaked', 'melt', 'Y'),
      ofHook('wrong hook', 'melt', 'Q'),
      cause('other', 'melt', 'O'),
    ],
    cautions: ['Tools, mold and ingots dry; eyes and face covered; long sleeves; nobody else near.'],
    before: 'hook',
    after: 'cast',
    says: { left: 'Heads to pour', good: 'Poured', all: 'All are poured', begin: 'Prepare the pour' },
  },
  {
    id: 'trim',
    name: 'Trim',
    verb: 'to trim',
    doing: 'trimming',
    counts: true,
    causes: [
      cause('divot'),
      cause('void'),
      ofHook('loose hook'),
      ofHook('bent hook', 'hook lost'),
      cause('flash'),
      cause('other'),
    ],
    cautions: ['Lead is on your hands: wash them before you eat.'],
    before: 'cast',
    after: 'blank',
    says: { left: 'Left to trim', good: 'Trimmed', all: 'All the rest are trimmed', begin: 'Start trimming' },
  },
  {
    id: 'paint',
    name: 'Paint',
    verb: 'to paint',
    doing: 'painting',
    counts: true,
    causes: [
      ofPowder('runs'),
      ofPowder('bubbles'),
      ofPowder('thin', 'back to step'),
      ofPowder('dull', 'back to step'),
      cause('eye closed'),
      cause('hole filled'),
      ofPowder('colour bled'),
      cause('other'),
    ],
    cautions: ['No open flame near a cloud of powder. Fan on; smoke from the powder means it is too hot.'],
    before: 'blank',
    after: 'powder',
    says: { left: 'Left to paint', good: 'Painted', all: 'All the rest are painted', begin: 'Start painting' },
  },
  {
    id: 'bake',
    name: 'Bake',
    verb: 'to bake',
    doing: 'baking',
    counts: true,
    causes: [
      ofPowder('runs'),
      ofPowder('soft', 'back to step'),
      ofHook('browned hook', 'hook lost'),
      cause('drip'),
      cause('chipped'),
      cause('other'),
    ],
    cautions: ['An oven that bakes powder never bakes food again. Ventilate.'],
    before: 'powder',
    after: 'baked',
    says: { left: 'Left to bake', good: 'Baked well', all: 'All the rest are good', begin: 'Load the oven' },
  },
  {
    id: 'finish',
    name: 'Finish',
    verb: 'to finish',
    doing: 'finishing',
    counts: true,
    causes: [
      cause('chipped'),
      cause('eye closed'),
      ofHook('loose hook'),
      ofHook('rusty hook', 'hook lost'),
      cause('comes apart', 'back to step'),
      cause('crooked', 'back to step'),
      cause('other'),
    ],
    cautions: ['Mark the bag if lead tackle is restricted where it is sold: check your local rules.'],
    before: 'baked',
    after: 'baked',
    says: { left: 'Left to finish', good: 'Good, on it goes', all: 'All the rest are good', begin: 'Start finishing' },
  },
];

/**
 * Ids of the stations as they stand in the table.
 * @example stationIds().length // 7
 */
const stationIds = (): string[] => STATIONS.map((station) => station.id);
/**
 * Stations that a step of a route can be done at.
 * @example stepStations().map(({ id }) => id) // ['trim', 'paint', 'bake', 'finish']
 */
export const stepStations = (): Station[] => STATIONS.filter((station) => station.counts);

/**
 * The row of a station.
 * @throws RangeError for a station that is not on the line
 * @example stationOf('bake').after // 'baked'
 */
export function stationOf(id: string): Station {
  const found = STATIONS.find((station) => station.id === id);
  if (!found) throw new RangeError(`station is ${id}; allowed: ${stationIds().join(', ')}`);
  return found;
}

/**
 * Whether a cause, at a station, is one that a kind of part may be to blame for.
 * @example blames('pour', 'eye full', 'hook') // true
 */
export const blames = (stationId: string, causeId: string, kind: string): boolean =>
  stationOf(stationId).causes.find((each) => each.id === causeId)?.of === kind;

/**
 * What is done with a head that has this cause, unless something else is said. Melted down where nobody knows better.
 * @example usualDisposition('bake', 'soft') // 'back to step'
 */
export const usualDisposition = (stationId: string, causeId: string): DispositionId =>
  stationOf(stationId).causes.find((each) => each.id === causeId)?.goes ?? 'melt';
