import type { Pour } from '@schmelz/contract';
import { nextUndo, pourState, type PourCause, type PourEntry, type PourState } from '@schmelz/core';
import { useMemo } from 'react';
import { useRunLog } from '../../api/outbox.ts';
import { sound, SOUNDS } from '../../shell/clock.ts';

/** Letters of the causes at the pot. */
export const CAUSE_KEYS: Record<string, PourCause> = { S: 'short', F: 'flash', V: 'void', L: 'loose hook', E: 'eye full', O: 'other' }; // prettier-ignore

export interface PourBench {
  state: PourState;
  unsaved: number;
  /** The newest thing said, which undo takes back. */
  last: PourEntry | undefined;
  charge(massKg: number): void;
  feed(massKg: number): void;
  blank(): void;
  shot(): void;
  smoked(): void;
  togglePause(): void;
  /** Marks a cavity of the last shot as bad, or good again. */
  toggleReject(position: number): void;
  /** Gives the cause of the reject that was marked last. */
  cause(cause: PourCause): void;
  undo(): void;
  close(back: { sprueBackKg: number; rejectsBackKg: number; drossKg: number; heelKg: number }): void;
}

/** A pour as the bench works it: its state from the log, and everything that can be said. */
export function usePourBench(pour: Pour): PourBench {
  const { entries, unsaved, say } = useRunLog<PourEntry>(`/pours/${pour.id}`, pour.log);
  const state = useMemo(() => pourState(pour.setup, entries), [pour.setup, entries]);
  return useMemo(() => {
    const undone = new Set(entries.flatMap((entry) => (entry.kind === 'undo' ? [entry.target] : [])));
    const standing = entries.filter((entry): entry is PourEntry => entry.kind !== 'undo' && !undone.has(entry.id));
    const lastShot = state.shots.at(-1);
    const rejectAt = (position: number) =>
      standing.findLast(
        (entry) => entry.kind === 'reject' && entry.shotId === lastShot?.id && entry.position === position,
      );
    const last = nextUndo<PourEntry>(entries);
    return {
      state,
      unsaved,
      last,
      charge: (massKg) => void say({ kind: 'charge', massKg, potC: 20 }),
      feed: (massKg) => void say({ kind: 'feed', massKg }),
      blank: () => void say({ kind: 'blank' }),
      shot: () => {
        sound(SOUNDS.tap);
        say({ kind: 'shot', positions: state.wantedPositions });
      },
      smoked: () => void say({ kind: 'smoked' }),
      togglePause: () => void say({ kind: state.phase === 'paused' ? 'resume' : 'pause' }),
      toggleReject(position) {
        if (!lastShot?.heads.some((head) => head.position === position)) return;
        const marked = rejectAt(position);
        sound(SOUNDS.reject);
        if (marked) say({ kind: 'undo', target: marked.id });
        else say({ kind: 'reject', shotId: lastShot.id, position, cause: 'short' });
      },
      cause(cause) {
        const marked = standing.findLast((entry) => entry.kind === 'reject');
        if (!marked || marked.kind !== 'reject' || marked.shotId !== lastShot?.id || marked.cause === cause) return;
        say({ kind: 'undo', target: marked.id });
        say({ kind: 'reject', shotId: marked.shotId, position: marked.position, cause });
      },
      undo: () => {
        if (last) say({ kind: 'undo', target: last.id });
      },
      close: (back) => void say({ kind: 'close', ...back }),
    };
  }, [entries, say, state, unsaved]);
}
