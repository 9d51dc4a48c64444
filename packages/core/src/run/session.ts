import type { DispositionId } from '../job/dispositions.ts';
import { headsOf, headsRefusal, placeInRun, type Around, type HeadsInRun, type SharedEntry } from './heads-in-run.ts';
import { inTurn } from '../log/in-turn.ts';
import { undoRefusal, standing, workSeconds, type Entry, type UndoEntry } from '../log/log.ts';

/**
 * What is said of a session that serves several tickets head by head: dips in one colour, or one mix of glue. What it
 * counts is counted in the tickets.
 */
export type SessionEntry =
  | (Entry & {
      kind: 'begin';
      /** The powder that is dipped into, or the glue that was mixed. */
      partId: string;
      name: string;
      heads: HeadsInRun[];
      /** Glue: it can be worked for so long, and sets in so long. */
      potLifeS?: number;
      setS?: number;
      /** Glue: so much was mixed, ml; left out: what its heads take by their bill. */
      mixedMl?: number;
    })
  | (Entry & { kind: 'good'; ticketId: string; step: string; count: number })
  | (Entry & {
      kind: 'reject';
      ticketId: string;
      step: string;
      cause: string;
      count: number;
      goes: DispositionId;
      spared?: string[];
    })
  | (Entry & { kind: 'stirred' })
  | (Entry & { kind: 'pause' })
  | (Entry & { kind: 'resume' })
  | (Entry & { kind: 'end' });

export type SessionLog = readonly (SessionEntry | UndoEntry)[];

export interface SessionState {
  phase: 'empty' | 'going' | 'paused' | 'over';
  partId: string | null;
  name: string;
  heads: HeadsInRun[];
  /** Heads done so far, good or not; and how many good and bad ones of each step of a ticket, by `placeInRun`. */
  done: number;
  byPlace: Readonly<Record<string, { good: number; bad: number }>>;
  beganAt: number;
  endedAt: number | null;
  /** When a mix can no longer be worked, and when what was glued with it is set; null where nothing sets. */
  workableUntil: number | null;
  setAt: number | null;
  /** Heads since it was stirred last. */
  sinceStirred: number;
  workS: number;
}

const EMPTY: SessionState = {
  phase: 'empty',
  partId: null,
  name: '',
  heads: [],
  done: 0,
  byPlace: {},
  beganAt: 0,
  endedAt: null,
  workableUntil: null,
  setAt: null,
  sinceStirred: 0,
  workS: 0,
};

/**
 * A session from its log.
 * @example sessionState([]).phase // 'empty'
 */
export function sessionState(log: SessionLog): SessionState {
  const entries = inTurn<SessionEntry>(log);
  let state = EMPTY;
  let setS = 0;
  for (const entry of entries) {
    if (entry.kind === 'begin') {
      const { partId, name, heads, potLifeS, at: beganAt } = entry;
      setS = entry.setS ?? 0;
      const workableUntil = potLifeS ? beganAt + 1000 * potLifeS : null;
      state = { ...EMPTY, phase: 'going', partId, name, heads, beganAt, workableUntil };
    }
    if (state.phase === 'empty') continue;
    if (entry.kind === 'good' || entry.kind === 'reject') {
      const { count, at } = entry;
      const place = placeInRun(entry);
      const before = state.byPlace[place] ?? { good: 0, bad: 0 };
      const [good, bad] = entry.kind === 'good' ? [count, 0] : [0, count];
      const now = { good: before.good + good, bad: before.bad + bad };
      const setAt = setS > 0 ? at + 1000 * setS : null;
      const byPlace = { ...state.byPlace, [place]: now };
      state = { ...state, done: state.done + count, byPlace, sinceStirred: state.sinceStirred + count, setAt };
    }
    if (entry.kind === 'stirred') state = { ...state, sinceStirred: 0 };
    if (entry.kind === 'pause') state = { ...state, phase: 'paused' };
    if (entry.kind === 'resume') state = { ...state, phase: 'going' };
    if (entry.kind === 'end') state = { ...state, phase: 'over', endedAt: entry.at };
  }
  return { ...state, workS: workSeconds(entries) };
}

/**
 * What a new entry of a session at a station may not do, in words; null when it may.
 * @example sessionRefusal([], { id: 'g', at: 0, kind: 'stirred' }, 'paint', { waiting: () => 0,
 *   stationOf: () => null, busy: null }) // 'This session has not begun yet.'
 */
export function sessionRefusal(
  log: SessionLog,
  entry: SessionEntry | UndoEntry,
  station: string,
  around: Around,
): string | null {
  const state = sessionState(log);
  if (entry.kind === 'undo') {
    const kept = standing<SessionEntry>(log);
    const target = kept.find((each) => each.id === entry.target);
    if (target && target.kind !== 'end' && state.phase === 'over') return 'This session is over. Undo its end first.';
    if (target?.kind === 'begin' && kept.length > 1) return 'Take back first what was said after the beginning.';
    return undoRefusal(log, entry);
  }
  if (entry.kind === 'begin') {
    return state.phase === 'empty' ? headsRefusal(entry.heads, station, around) : 'This session has begun already.';
  }
  if (state.phase === 'empty') return 'This session has not begun yet.';
  if (state.phase === 'over') return 'This session is over. Undo its end first.';
  if (entry.kind === 'pause' && state.phase === 'paused') return 'This session rests already.';
  if (entry.kind === 'resume' && state.phase !== 'paused') return 'This session goes on already.';
  if (entry.kind !== 'good' && entry.kind !== 'reject') return null;
  const { ticketId, step, count } = entry;
  if (!state.heads.some((each) => each.ticketId === ticketId && each.step === step)) {
    return `step is ${JSON.stringify(step)}; allowed: the tickets and steps that the session began with`;
  }
  return headsRefusal([{ ticketId, step, count }], station, around)?.replace('heads[0].', '') ?? null;
}

/**
 * What a session says to each of its tickets: the heads it has done for them, and when it began for the first of them.
 * @example sessionShares([]) // []
 */
export function sessionShares(log: SessionLog): SharedEntry[] {
  const { heads, byPlace, done } = sessionState(log);
  return inTurn<SessionEntry>(log).flatMap((entry): SharedEntry[] => {
    if (entry.kind === 'begin' && entry.mixedMl !== undefined) {
      // The mix is theirs who were glued with it; before the first is, theirs whom it was mixed for.
      const { id, at, partId, mixedMl } = entry;
      const doneAt = (each: HeadsInRun) =>
        (byPlace[placeInRun(each)]?.good ?? 0) + (byPlace[placeInRun(each)]?.bad ?? 0);
      const all = done || headsOf(heads);
      return heads.map((each) => {
        const ml = (mixedMl * (done ? doneAt(each) : each.count)) / all;
        const said = { id: `${id} ${placeInRun(each)}`, at, kind: 'mixed' as const, step: each.step };
        return { ticketId: each.ticketId, entry: { ...said, partId, ml, heads: doneAt(each) } };
      });
    }
    const { id, at } = entry;
    const who = {
      ...(entry.who === undefined ? {} : { who: entry.who }),
      ...(entry.sinceS === undefined ? {} : { sinceS: entry.sinceS }),
    };
    if (entry.kind === 'good') {
      const { ticketId, step, count } = entry;
      return [{ ticketId, entry: { id, at, ...who, kind: 'good', step, count } }];
    }
    if (entry.kind === 'reject') {
      const { ticketId, step, count, cause, goes, spared } = entry;
      const kept = spared ? { spared } : {};
      return [{ ticketId, entry: { id, at, ...who, kind: 'reject', step, count, cause, goes, ...kept } }];
    }
    return [];
  });
}
