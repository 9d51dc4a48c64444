import type { Pour } from '@schmelz/contract';
import {
  countAll,
  hookHeldInS,
  isMolten,
  loadRhythm,
  openInS,
  potIsOff,
  rodCue,
  writeClock,
  type PourState,
  type Rhythm,
  type Turn,
} from '@schmelz/core';

/** The four stretches of a session, each with one next thing. */
export type Stretch = 'melt' | 'warm-up' | 'pour' | 'wind-down';

export interface Now {
  stretch: Stretch;
  says: string;
  value: string;
  unit?: string;
  then: string;
  /** Seconds until the mold whose turn it is may be opened. */
  openInS: number;
  rhythm: Rhythm | null;
}

/** Said where every hook that was counted out is used. */
export const NO_HOOK = 'No hook left';

const nothingElse = { openInS: 0, rhythm: null };

function meltOrWarm(pour: Pour, state: PourState, log: Pour['log'], turn: Turn, name: string, now: number): Now | null {
  if (state.phase !== 'warming') return null;
  const meltLeft = (state.startedAt! + pour.plannedMeltS * 1000 - now) / 1000;
  if (meltLeft > 0 && state.blanks === 0 && !isMolten(log)) {
    return {
      stretch: 'melt',
      says: 'Melt ready in',
      value: writeClock(meltLeft),
      then: 'Lay the mold on the pot meanwhile, hooks out. Skim when it is liquid.',
      ...nothingElse,
    };
  }
  return turn.blanksToGo > 0
    ? {
        stretch: 'warm-up',
        says: name ? `Blank shots${name}` : 'Blank shots to go',
        value: String(turn.blanksToGo),
        then: 'No hooks in. Knock them out and feed them back.',
        ...nothingElse,
      }
    : null;
}

function windDown(pour: Pour, state: PourState, log: Pour['log']): Now {
  if (state.molds.some((mold) => mold.away && mold.shotsToGo > 0)) {
    return {
      stretch: 'wind-down',
      says: 'Every mold is put away',
      value: '0',
      then: 'Some tickets still want heads: change the mold, or close the pour.',
      ...nothingElse,
    };
  }
  const lacking = state.molds.reduce((sum, mold) => sum + mold.lacking, 0);
  if (lacking > 0) {
    return {
      stretch: 'wind-down',
      says: NO_HOOK,
      value: String(lacking),
      unit: lacking === 1 ? 'head owed' : 'heads owed',
      then: 'Fetch more and say how many there are, with U, or close the pour: its tickets keep what they owe.',
      ...nothingElse,
    };
  }
  if (Object.values(state.stillNeeded).some((count) => count > 0)) {
    return {
      stretch: 'wind-down',
      says: 'No cavity is left',
      value: '0',
      then: 'The cavities that these tickets want are out. Close the pour, or undo.',
      ...nothingElse,
    };
  }
  const off = potIsOff(log);
  const heads = countAll(state.goodByTicket);
  return {
    stretch: 'wind-down',
    says: 'All heads are there',
    value: String(heads),
    unit: 'good',
    then: off
      ? 'Skim, leave a full heel, weigh what comes back.'
      : `Pot off at the wall. ${pour.setup.molds.length > 1 ? 'The molds' : 'The mold'} and the last heads stay hot: lay them where nobody reaches.`,
    ...nothingElse,
  };
}

/** What is done while a mold is shut: a rod is moved in the first moments. */
function whileShut(pour: Pour, state: PourState, turn: Turn | null, now: number): string {
  const mold = turn && state.molds.find(({ moldId }) => moldId === turn.moldId);
  switch (mold ? rodCue(pour.setup, state, mold, now) : null) {
    case 'soon':
    case 'now':
      return 'Twist the rod now, mold face down.';
    case 'late':
      return 'The rod is out or stuck: a second pair of hands holds the mold, pliers turn it.';
    default:
      return 'Solid, and a moment more: the sprue may be last to set.';
  }
}
/** Heads out: by the bend while that is cool, with pliers once the heat has come through. */
function headsOut(pour: Pour, state: PourState, turn: Turn, rhythm: Rhythm | null, now: number): string | undefined {
  if (rhythm?.beat !== 0) return rhythm?.says;
  const mold = state.molds.find(({ moldId }) => moldId === turn.moldId)!;
  const held = hookHeldInS(pour.setup, state, mold, now);
  if (held === null) return rhythm.says;
  return held >= 1
    ? `${rhythm.says}. Bends stay cool ${Math.floor(held)} s more`
    : `${rhythm.says}. Bends are hot: pliers`;
}

/** The sentence, the number and the next thing, from where the pour stands. */
export function whatNow(
  pour: Pour,
  state: PourState,
  log: Pour['log'],
  turn: Turn | null,
  name: string,
  now: number,
): Now {
  if (state.phase === 'paused')
    return {
      stretch: 'pour',
      says: 'Paused',
      value: '–',
      then: 'The mold cools: a blank shot before you load again.',
      ...nothingElse,
    };
  const openIn = turn ? turn.openInS : Math.max(0, ...state.molds.map((mold) => openInS(pour.setup, mold, now)));
  if (openIn > 0)
    return {
      stretch: turn?.blanksToGo ? 'warm-up' : 'pour',
      says: name ? `Open${name.slice(1)} in` : 'Open in',
      value: writeClock(openIn),
      unit: 's',
      then: whileShut(pour, state, turn, now),
      openInS: openIn,
      rhythm: null,
    };
  if (!turn || state.phase === 'enough') return windDown(pour, state, log);
  const early = meltOrWarm(pour, state, log, turn, name, now);
  if (early) return early;
  if (turn.blanksToGo > 0)
    return {
      stretch: 'warm-up',
      says: name ? `Blank shots${name}` : 'Blank shots to go',
      value: String(turn.blanksToGo),
      then: 'It comes to the pot cold: no hooks in yet.',
      ...nothingElse,
    };
  const rhythm = loadRhythm(pour.setup, state, turn, now);
  return {
    stretch: 'pour',
    says: 'Shots to go',
    value: String(state.shotsToGo),
    then: headsOut(pour, state, turn, rhythm, now) ?? 'Load, close until it clicks, look at the seam, pour in one go.',
    openInS: 0,
    rhythm,
  };
}
