import { wilson } from '../count/wilson.ts';
import { standing } from '../log/log.ts';
import { TRIED_AT_POT, type PourEntry, type PourLog, type PourSetup, type TriedAtPot } from './pour-log.ts';
import { pourState } from './pour.ts';
import type { Shot } from './shot.ts';

/** Heads that came short of all that were cast in some shots. */
export interface ShortsOf {
  shorts: number;
  casts: number;
}
/** Something that was tried against shorts, and how many came before and after it. */
export interface Tried {
  what: TriedAtPot | 'smoked';
  at: number;
  before: ShortsOf;
  after: ShortsOf;
}

/** Where shorts are counted: in all cavities of all molds, of one, or in one cavity. */
interface CountedIn {
  moldId?: string;
  position?: number;
}

/** So many shots before and after are held against each other: fewer say little, in more the mold has changed too. */
const SHOTS_AROUND = 6;

/**
 * Whether what was tried made fewer short, more, or may have done nothing: only ranges of nine in ten that do not meet
 * say more than chance.
 * @example triedSays({ before: { shorts: 6, casts: 12 }, after: { shorts: 0, casts: 12 } }) // 'fewer'
 */
export function triedSays({ before, after }: Pick<Tried, 'before' | 'after'>): 'fewer' | 'more' | 'may be chance' {
  const [was, is] = [before, after].map(({ shorts, casts }) => wilson(shorts / casts, casts)) as [Range, Range];
  if (is.high < was.low) return 'fewer';
  return is.low > was.high ? 'more' : 'may be chance';
}
type Range = ReturnType<typeof wilson>;

interface Said {
  what: Tried['what'];
  at: number;
  /** Null: whatever is poured. */
  moldId: string | null;
}

const shortsIn = (shots: readonly Shot[], at?: number): ShortsOf => {
  const heads = shots.flatMap((shot) => shot.heads).filter(({ position }) => at === undefined || position === at);
  return { shorts: heads.filter(({ verdict }) => verdict === 'short').length, casts: heads.length };
};

/**
 * What was tried at the pot against shorts, each with the shorts of the shots before it and after it, as far as the
 * next thing that was tried. A mold that was smoked is held against its own shots.
 * @param counted in one mold, or one cavity of it; left out: in all
 * @example triedIn(setup, []) // []
 */
export function triedIn(setup: PourSetup, log: PourLog, counted: CountedIn = {}): Tried[] {
  const { shots } = pourState(setup, log);
  const said = standing<PourEntry>(log).flatMap((entry): Said[] => {
    if (entry.kind === 'smoked') return [{ what: 'smoked', at: entry.at, moldId: entry.moldId }];
    const tried = entry.kind === 'done' && TRIED_AT_POT.find((each) => each === entry.what);
    return tried ? [{ what: tried, at: entry.at, moldId: null }] : [];
  });
  return said.flatMap(({ what, at, moldId }, index): Tried[] => {
    const own = shots.filter(
      (shot) => [null, shot.moldId].includes(moldId) && [undefined, shot.moldId].includes(counted.moldId),
    );
    const from = said[index - 1]?.at ?? -Infinity;
    const to = said[index + 1]?.at ?? Infinity;
    const before = own.filter((shot) => shot.at <= at && shot.at > from).slice(-SHOTS_AROUND);
    const after = own.filter((shot) => shot.at > at && shot.at <= to).slice(0, SHOTS_AROUND);
    const [was, is] = [shortsIn(before, counted.position), shortsIn(after, counted.position)];
    return was.casts && is.casts ? [{ what, at, before: was, after: is }] : [];
  });
}
