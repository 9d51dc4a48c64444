import { OPENING_MARGIN } from '../freeze/opening.ts';
import { HANDLE_S_PER_SHOT } from '../mold/shot-seconds.ts';
import type { MoldSetup, PourSetup } from './pour-log.ts';
import type { MoldState, PourState } from './pour.ts';

/** Which mold is poured next, and why. */
export interface Turn {
  moldId: string;
  /** Blank shots that it still wants before the first hook. */
  blanksToGo: number;
  /** Seconds until it may be opened; 0 when it is. */
  openInS: number;
  why: string;
  /** The mold it takes turns with; null when it is alone. */
  otherId: string | null;
}

const setupOf = (setup: PourSetup, moldId: string): MoldSetup => setup.molds.find((mold) => mold.moldId === moldId)!;

/**
 * Seconds until a mold may be opened.
 * @example openInS(pour.setup, pourState(pour.setup, twoShots).molds[0], 1_020_000) // 1.868
 */
export function openInS(setup: PourSetup, mold: MoldState, now: number): number {
  if (mold.lastPouredAt === null) return 0;
  return Math.max(0, (mold.lastPouredAt - now) / 1000 + setupOf(setup, mold.moldId).openS);
}

/**
 * Molds that are at the pot: the first of the row that still want heads and are not put away.
 * @example moldsAtPot(pour.setup, pourState(pour.setup, twoShots)).length // 1
 */
export function moldsAtPot(setup: PourSetup, state: PourState): MoldState[] {
  const wanting = state.molds.filter((mold) => !mold.away && mold.shotsToGo > 0);
  return wanting.slice(0, Math.max(1, setup.atOnce));
}

/**
 * The mold whose turn it is: of those at the pot the one that was poured longest ago, since it is open first and cools
 * while the other one sets. `preferId` takes another one first, once. Null when no mold wants heads.
 * @example nextTurn(pour.setup, pourState(pour.setup, twoShots), 1_020_000).moldId // 'mold'
 */
export function nextTurn(setup: PourSetup, state: PourState, now: number, preferId: string | null = null): Turn | null {
  const atPot = moldsAtPot(setup, state);
  const waited = (mold: MoldState) => mold.lastPouredAt ?? Number.MIN_SAFE_INTEGER;
  const inTurn = [...atPot].sort((a, b) => waited(a) - waited(b));
  const mold = atPot.find((each) => each.moldId === preferId) ?? inTurn[0];
  if (!mold) return null;
  const other = inTurn.find((each) => each !== mold) ?? null;
  const otherOpensInS = other ? openInS(setup, other, now) : 0;
  const blanksToGo = mold.shots > 0 ? 0 : Math.max(0, setupOf(setup, mold.moldId).plannedBlanks - mold.blanks);
  const because = (): string => {
    if (setup.molds.length === 1) return '';
    if (!other) return 'the only one that still wants heads';
    if (mold.moldId === preferId && inTurn[0] !== mold) return 'because you said so';
    if (mold.lastPouredAt === null) return blanksToGo > 0 ? 'it is still cold' : 'it was not poured yet';
    if (openInS(setup, mold, now) > 0) return 'it was poured first, and is open first';
    if (otherOpensInS > 0) return 'it is open while the other one sets';
    return 'it has stood longer, and cools';
  };
  return {
    moldId: mold.moldId,
    blanksToGo,
    openInS: openInS(setup, mold, now),
    why: because(),
    otherId: other?.moldId ?? null,
  };
}

/** So long without a shot is a pause, said or not. Common practice, no source. */
const PAUSE_S = 300;

/**
 * A turn after a pause: a mold that has gone cold gets the blank shots that the coach asks for. A maker who goes on
 * with hooks in a cool mold is not argued with.
 * @example turnAfterPause(nextTurn(pour.setup, pourState(pour.setup, twoShots), 1_020_000), pourState(pour.setup,
 *   twoShots), 2, 1_020_000).kind // undefined
 */
export function turnAfterPause(turn: Turn, state: PourState, blanks: number | undefined, now: number): Turn {
  const last = state.shots.findLast((shot) => shot.moldId === turn.moldId);
  const paused = last !== undefined && (now - last.at) / 1000 > PAUSE_S;
  return blanks && paused ? { ...turn, blanksToGo: blanks } : turn;
}

/**
 * How far the metal in a mold has set, 1 when it is solid: the time to open has its margin on top of that.
 * @example setShare(pour.setup, pourState(pour.setup, twoShots).molds[0], 1_020_000) // 0
 */
export function setShare(setup: PourSetup, mold: MoldState, now: number): number {
  if (mold.lastPouredAt === null) return 1;
  const { openS, solidS = openS / OPENING_MARGIN } = setupOf(setup, mold.moldId);
  return Math.min(1, Math.max(0, (now - mold.lastPouredAt) / 1000 / solidS));
}

/** What a shut mold asks for before it is opened. */
export type RodCue = 'soon' | 'now' | 'late' | null;
/**
 * When a pull-out rod is moved: in the first moments, well before the core is solid; null where none is in it, or the
 * last thing poured was a blank shot.
 * @example rodCue(pour.setup, pourState(pour.setup, twoShots), pourState(pour.setup, twoShots).molds[0], 1_000_500)
 * // null
 */
export function rodCue(setup: PourSetup, state: PourState, mold: MoldState, now: number): RodCue {
  const { rodS } = setupOf(setup, mold.moldId);
  if (!rodS || !lastWasShot(state, mold)) return null;
  const seconds = (now - mold.lastPouredAt!) / 1000;
  if (seconds < rodS.fromS) return 'soon';
  return seconds <= rodS.toS ? 'now' : 'late';
}
const lastWasShot = (state: PourState, mold: MoldState): boolean =>
  mold.lastPouredAt !== null &&
  state.shots.some(({ moldId, at }) => moldId === mold.moldId && at === mold.lastPouredAt);

/**
 * For how many seconds more the bends of a mold's hooks may be held after it was opened; null where they never get too
 * hot, or nothing with a hook was poured last.
 * @example hookHeldInS(pour.setup, pourState(pour.setup, twoShots), pourState(pour.setup, twoShots).molds[0],
 *   1_060_000) // 0
 */
export function hookHeldInS(setup: PourSetup, state: PourState, mold: MoldState, now: number): number | null {
  const { hookHeldS, openS } = setupOf(setup, mold.moldId);
  if (hookHeldS === undefined || !lastWasShot(state, mold)) return null;
  return Math.max(0, openS + hookHeldS - (now - mold.lastPouredAt!) / 1000);
}

/** Where the hands should be between opening a mold and its next pour. */
export interface Rhythm {
  /** 0 is taking out, then one a cavity, then closing; `beats` once all of it should be done. */
  beat: number;
  beats: number;
  says: string;
}

/**
 * The rhythm of loading: heads out and looked at, a hook into each cavity, closing, at the maker's own seconds. It runs
 * from when the mold may be opened, or from the last pour of the other one, when the hands were free.
 * @example loadRhythm(pour.setup, pourState(pour.setup, twoShots), nextTurn(pour.setup, pourState(pour.setup,
 *   twoShots), 1_060_000), 1_060_000) // { beat: 0, beats: 7, says: 'Heads out, look at barb, shank, nose' }
 */
export function loadRhythm(setup: PourSetup, state: PourState, turn: Turn, now: number): Rhythm | null {
  const mold = state.molds.find((each) => each.moldId === turn.moldId)!;
  if (mold.lastPouredAt === null || turn.openInS > 0 || state.lastShotAt === null) return null;
  const { inspectS, loadS, openS } = setupOf(setup, turn.moldId);
  const cavities = mold.wantedPositions.length;
  const from = Math.max(mold.lastPouredAt + openS * 1000, state.lastShotAt);
  const seconds = (now - from) / 1000;
  const outS = inspectS * cavities;
  const beats = cavities + 2;
  if (seconds < outS) return { beat: 0, beats, says: 'Heads out, look at barb, shank, nose' };
  const loaded = Math.floor((seconds - outS) / Math.max(0.5, loadS));
  if (loaded < cavities) return { beat: 1 + loaded, beats, says: `Load ${loaded + 1} of ${cavities}` };
  const closing = seconds < outS + cavities * loadS + HANDLE_S_PER_SHOT;
  return { beat: closing ? beats - 1 : beats, beats, says: closing ? 'Close: click, seam flush' : 'Pour in one go' };
}
