import { standing } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { pourState } from './pour.ts';
import { triedIn, triedSays, type ShortsOf, type Tried } from './tried.ts';

/** What was done against shorts in a mold over all its pours, and what it did. */
export interface Handled {
  what: Tried['what'];
  /** Null: by all its cavities; else what it did in this one. */
  position: number | null;
  /** How often it was tried. */
  times: number;
  before: ShortsOf;
  after: ShortsOf;
  says: ReturnType<typeof triedSays>;
}
/** With so many blank shots the first heads of a mold come good. */
export interface SureBlanks {
  blanks: number;
  /** Heads of the first shots after so many or more. */
  first: ShortsOf;
  pours: number;
}
/** How a mold is handled in this house: what worked in it and what did not, from what was tried. */
export interface HouseHandling {
  handled: Handled[];
  blanks: SureBlanks | null;
}

interface PouredIn {
  setup: PourSetup;
  log: PourLog;
}

/** Heads of a mold's first shots say whether it was warm. */
const FIRST_SHOTS = 2;
/** Blank shots are sure where so few of the first heads are short, out of so many. Common practice, no source. */
const SURE_SHARE = 0.1;
const SURE_CASTS = 10;

const both = (a: ShortsOf, b: ShortsOf): ShortsOf => ({ shorts: a.shorts + b.shorts, casts: a.casts + b.casts });
const NONE: ShortsOf = { shorts: 0, casts: 0 };
const ORDER = { fewer: 0, 'may be chance': 1, more: 2 };
const less = ({ before, after }: Handled) => before.shorts / before.casts - after.shorts / after.casts;

/** What was tried, all pours together, where it is counted: the surest first. */
function handledIn(pours: readonly PouredIn[], moldId: string, position: number | null): Handled[] {
  const met = new Map<Tried['what'], { times: number; before: ShortsOf; after: ShortsOf }>();
  for (const { setup, log } of pours) {
    for (const { what, before, after } of triedIn(setup, log, { moldId, position: position ?? undefined })) {
      const so = met.get(what) ?? { times: 0, before: NONE, after: NONE };
      met.set(what, { times: so.times + 1, before: both(so.before, before), after: both(so.after, after) });
    }
  }
  return [...met].map(([what, of]) => ({ what, position, ...of, says: triedSays(of) }));
}

/** Of each pour: blank shots before the first head, and the heads of its first shots. */
function firstHeads({ setup, log }: PouredIn, moldId: string): { blanks: number; first: ShortsOf } | null {
  const shots = pourState(setup, log).shots.filter((shot) => shot.moldId === moldId);
  if (shots.length < FIRST_SHOTS) return null;
  const blanks = standing<PourEntry>(log).filter(
    (entry) => entry.kind === 'blank' && entry.moldId === moldId && entry.at < shots[0]!.at,
  ).length;
  const heads = shots.slice(0, FIRST_SHOTS).flatMap((shot) => shot.heads);
  return {
    blanks,
    first: { shorts: heads.filter(({ verdict }) => verdict === 'short').length, casts: heads.length },
  };
}

/** The fewest blank shots from which on the first heads came good. */
function sureBlanks(pours: readonly PouredIn[], moldId: string): SureBlanks | null {
  const all = pours.flatMap((pour) => firstHeads(pour, moldId) ?? []);
  for (const blanks of [...new Set(all.map((each) => each.blanks))].sort((a, b) => a - b)) {
    const own = all.filter((each) => each.blanks >= blanks);
    const just = all.filter((each) => each.blanks === blanks).reduce((sum, each) => both(sum, each.first), NONE);
    const first = own.reduce((sum, each) => both(sum, each.first), NONE);
    const sure = ({ shorts, casts }: ShortsOf) => shorts <= SURE_SHARE * casts;
    if (first.casts >= SURE_CASTS && sure(first) && sure(just)) return { blanks, first, pours: own.length };
  }
  return null;
}

/**
 * How a mold is handled, from what was tried in its pours and what came of it: by the mold, and by a cavity that is
 * another case than the mold. What a lever did is judged on all pours together.
 * @example handlingOf('mold', [{ setup: pour.setup, log: twoShots }]) // { handled: [], blanks: { blanks: 1, first:
 *   { shorts: 0, casts: 10 }, pours: 1 } }
 */
export function handlingOf(moldId: string, pours: readonly PouredIn[]): HouseHandling {
  const positions = new Set(
    pours.flatMap(({ setup }) => setup.loads.filter((load) => load.moldId === moldId).map((load) => load.position)),
  );
  const ofMold = handledIn(pours, moldId, null);
  const ofCavities = [...positions]
    .sort((a, b) => a - b)
    .flatMap((position) => handledIn(pours, moldId, position))
    .filter(({ what, says }) => says !== 'may be chance' && ofMold.find((each) => each.what === what)?.says !== says);
  const handled = [...ofMold, ...ofCavities].sort((a, b) => ORDER[a.says] - ORDER[b.says] || less(b) - less(a));
  return { handled, blanks: sureBlanks(pours, moldId) };
}

/** What is tried at the pot, as the fill model names what can be changed. */
const LEVER: Record<Tried['what'], string> = {
  injected: 'inject',
  tilted: 'tilt',
  'first cavity low': 'tilt',
  'last cavity low': 'tilt',
  'spout reamed': 'stream',
  'metal hotter': 'metal',
  'hooks warmed': 'hook',
  smoked: 'smoke',
};
/** What was done, as it is said to the maker. */
export const HANDLED_WORDS: Record<Tried['what'], string> = {
  injected: 'Pressed against the spout',
  tilted: 'Mold tipped',
  'first cavity low': 'Mold tipped, first cavity low',
  'last cavity low': 'Mold tipped, last cavity low',
  'spout reamed': 'Spout reamed',
  'metal hotter': 'Metal hotter',
  'hooks warmed': 'Hooks warmed in the mold',
  smoked: 'Mold smoked',
};

/** What of a mold's handling is known for a cavity: by itself, else by the whole mold. */
const knownFor = (handled: readonly Handled[], position: number): Handled[] =>
  handled.filter(
    (each) =>
      each.position === position ||
      (each.position === null && !handled.some((own) => own.position === position && own.what === each.what)),
  );

/**
 * What worked in a cavity, to be tried first: it outranks what is reckoned.
 * @example workedIn([], 1) // []
 */
export const workedIn = (handled: readonly Handled[], position: number): Handled[] =>
  knownFor(handled, position).filter(({ says }) => says === 'fewer');

/**
 * Levers of the fill model that this house knows about in a cavity: those that worked come as they were tried, and what
 * made it worse is not asked for again.
 * @example settledLevers([], 1) // []
 */
export const settledLevers = (handled: readonly Handled[], position: number): string[] =>
  knownFor(handled, position)
    .filter(({ says }) => says !== 'may be chance')
    .map(({ what }) => LEVER[what]);

/**
 * What was done and what it did, in a line.
 * @example handledSays({ what: 'injected', before: { shorts: 9, casts: 40 }, after: { shorts: 1, casts: 38 } })
 * // 'Pressed against the spout: 9 of 40 short, then 1 of 38'
 */
export const handledSays = ({ what, before, after }: Pick<Handled, 'what' | 'before' | 'after'>): string =>
  `${HANDLED_WORDS[what]}: ${before.shorts} of ${before.casts} short, then ${after.shorts} of ${after.casts}`;
