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

/** A pull-out rod in the mold that was poured last, whichever is next: it is moved in the first moments. */
function rodSays(pour: Pour, state: PourState, now: number): string | null {
  const last = state.molds.find((mold) => mold.lastPouredAt !== null && mold.lastPouredAt === state.lastShotAt);
  const cue = last && rodCue(pour.setup, state, last, now);
  if (!cue) return null;
  if (cue !== 'late') return 'Twist the rod now, mold face down.';
  return openInS(pour.setup, last, now) > 0
    ? 'The rod is out or stuck: a second pair of hands holds the mold, pliers turn it.'
    : null;
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
  const rod = rodSays(pour, state, now);
  const openIn = turn ? turn.openInS : Math.max(0, ...state.molds.map((mold) => openInS(pour.setup, mold, now)));
  if (openIn > 0)
    return {
      stretch: turn?.blanksToGo ? 'warm-up' : 'pour',
      says: name ? `Open${name.slice(1)} in` : 'Open in',
      value: writeClock(openIn),
      unit: 's',
      then: rod ?? 'Solid, and a moment more: the sprue may be last to set.',
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
    then:
      rod ??
      headsOut(pour, state, turn, rhythm, now) ??
      'Load, close until it clicks, look at the seam, pour in one go.',
    openInS: 0,
    rhythm,
  };
}
