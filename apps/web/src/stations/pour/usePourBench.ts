import type { Pour } from '@schmelz/contract';
import {
  nextUndo,
  pourState,
  standing,
  type PourCause,
  type PourEntry,
  type PourState,
  type RoutineWork,
  type UndoEntry,
} from '@schmelz/core';
import { useMemo } from 'react';
import { useRunLog } from '../../api/outbox.ts';
import { sound, SOUNDS } from '../../shell/clock.ts';

/** Letters of the causes at the pot. */
export const CAUSE_KEYS: Record<string, PourCause> = { S: 'short', F: 'flash', V: 'void', L: 'loose hook', E: 'eye full', O: 'other' }; // prettier-ignore

export interface PourBench {
  state: PourState;
  entries: (PourEntry | UndoEntry)[];
  unsaved: number;
  /** The newest thing said, which undo takes back. */
  last: PourEntry | undefined;
  charge(massKg: number): void;
  feed(massKg: number): void;
  /** The safety list, as it was ticked. */
  checked(items: string[]): void;
  /** A small job at the pot that the coach asked for. */
  done(what: RoutineWork): void;
  blank(): void;
  shot(): void;
  smoked(): void;
  togglePause(): void;
  /** Marks a cavity of the last shot as bad, or good again. */
  toggleReject(position: number): void;
  /** Gives the cause of the reject that was marked last. */
  cause(cause: PourCause): void;
  /** The whole strip of the last shot is bad. */
  rejectAll(cause: PourCause): void;
  /** Gives a cavity up for this session: the one whose head was marked bad last. */
  block(position: number): void;
  /** The hook of the head that was marked last cannot be used again; said twice, it can. */
  hookLost(): void;
  undo(): void;
  close(back: { sprueBackKg: number; rejectsBackKg: number; drossKg: number; heelKg: number }): void;
}

/** A pour as the bench works it: its state from the log, and everything that can be said. */
export function usePourBench(pour: Pour): PourBench {
  const { entries, unsaved, say, next } = useRunLog<PourEntry>(`/pours/${pour.id}`, pour.log);
  const state = useMemo(() => pourState(pour.setup, entries), [pour.setup, entries]);
  return useMemo(() => {
    const stateOf = (log: (PourEntry | UndoEntry)[]) => pourState(pour.setup, log);
    return {
      state,
      entries,
      unsaved,
      last: nextUndo<PourEntry>(entries),
      charge: (massKg) => say({ kind: 'charge', massKg, potC: 20 }),
      feed: (massKg) => say({ kind: 'feed', massKg }),
      checked: (items) => say({ kind: 'checked', items }),
      done: (what) => say({ kind: 'done', what }),
      blank: () => say({ kind: 'blank' }),
      shot: () =>
        next((log) => {
          sound(SOUNDS.tap);
          say({ kind: 'shot', positions: stateOf(log).wantedPositions });
        }),
      smoked: () => say({ kind: 'smoked' }),
      togglePause: () => next((log) => say({ kind: stateOf(log).phase === 'paused' ? 'resume' : 'pause' })),
      toggleReject: (position) =>
        next((log) => {
          const lastShot = stateOf(log).shots.at(-1);
          if (!lastShot?.heads.some((head) => head.position === position)) return;
          const marked = standing<PourEntry>(log).findLast(
            (entry) => entry.kind === 'reject' && entry.shotId === lastShot.id && entry.position === position,
          );
          sound(SOUNDS.reject);
          if (marked) say({ kind: 'undo', target: marked.id });
          else say({ kind: 'reject', shotId: lastShot.id, position, cause: 'short' });
        }),
      cause: (cause) =>
        next((log) => {
          const marked = standing<PourEntry>(log).findLast((entry) => entry.kind === 'reject');
          const lastShot = stateOf(log).shots.at(-1);
          if (marked?.kind !== 'reject' || marked.shotId !== lastShot?.id || marked.cause === cause) return;
          say({ kind: 'undo', target: marked.id });
          say({ kind: 'reject', shotId: marked.shotId, position: marked.position, cause });
        }),
      rejectAll: (cause) =>
        next((log) => {
          const lastShot = stateOf(log).shots.at(-1);
          if (!lastShot) return;
          sound(SOUNDS.reject);
          for (const { position, verdict } of lastShot.heads) {
            if (verdict === 'good') say({ kind: 'reject', shotId: lastShot.id, position, cause });
          }
        }),
      hookLost: () =>
        next((log) => {
          const marked = standing<PourEntry>(log).findLast((entry) => entry.kind === 'reject');
          if (marked?.kind !== 'reject') return;
          const { shotId, position, cause } = marked;
          say({ kind: 'undo', target: marked.id });
          say({ kind: 'reject', shotId, position, cause, hookLost: !marked.hookLost });
        }),
      block: (position) => say({ kind: 'blocked', position }),
      undo: () =>
        next((log) => {
          const last = nextUndo<PourEntry>(log);
          if (last) say({ kind: 'undo', target: last.id });
        }),
      close: (back) => say({ kind: 'close', ...back }),
    };
  }, [entries, next, pour.setup, say, state, unsaved]);
}
