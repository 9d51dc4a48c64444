import type { Entry, UndoEntry } from '@schmelz/core';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import { ApiProblem, request } from './client.ts';
import { newId } from './id.ts';

/** An entry as the bench says it: the id and the time are added here. */
export type Said<E extends Entry> = E extends Entry ? Omit<E, 'id' | 'at'> : never;

export interface RunLog<E extends Entry> {
  /** What the server has, and what is still on its way. */
  entries: (E | UndoEntry)[];
  /** Taps that are kept on this device but not yet confirmed as on disk. */
  unsaved: number;
  /** Says that something happened, now. Returns the entry's id. */
  say(said: Said<E | UndoEntry>): string;
}

interface Contents {
  /** Kept here, oldest first, not yet with the server. */
  pending: readonly Entry[];
  /** Taken by the server since this page was opened. */
  confirmed: readonly Entry[];
}

interface Outbox {
  contents(): Contents;
  subscribe(listener: () => void): () => void;
  add(entry: Entry): void;
}

const FIRST_RETRY_MS = 500;
const SLOWEST_RETRY_MS = 8000;
const isFinal = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && error.problem.status < 500 && error.problem.status !== 429;

/**
 * One outbox a run, whichever screen shows it: a tap is written to local storage before anything else and sent, in order,
 * until the server has it. Its id makes a repeated delivery harmless.
 */
export function makeOutbox(path: string): Outbox {
  const key = `schmelz-outbox ${path}`;
  const listeners = new Set<() => void>();
  let contents: Contents = { pending: JSON.parse(localStorage.getItem(key) ?? '[]') as Entry[], confirmed: [] };
  let sending = false;

  const change = (next: Contents) => {
    localStorage.setItem(key, JSON.stringify(next.pending));
    contents = next;
    listeners.forEach((listener) => listener());
  };

  const send = async () => {
    if (sending) return;
    sending = true;
    let wait = FIRST_RETRY_MS;
    while (contents.pending.length > 0) {
      const first = contents.pending[0]!;
      let taken = true;
      try {
        await request('POST', `${path}/entries`, first);
      } catch (error) {
        if (!isFinal(error)) {
          await new Promise((resolve) => setTimeout(resolve, wait));
          wait = Math.min(SLOWEST_RETRY_MS, wait * 2);
          continue;
        }
        // Refused for good: it is taken out, and the maker is told what did not count.
        taken = false;
        toast.error(error.problem.detail);
      }
      wait = FIRST_RETRY_MS;
      const pending = contents.pending.filter((entry) => entry.id !== first.id);
      change({ pending, confirmed: taken ? [...contents.confirmed, first] : contents.confirmed });
    }
    sending = false;
  };

  void send();
  return {
    contents: () => contents,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    add(entry) {
      change({ ...contents, pending: [...contents.pending, entry] });
      void send();
    },
  };
}

const outboxes = new Map<string, Outbox>();
const outboxOf = (path: string): Outbox => {
  const known = outboxes.get(path) ?? makeOutbox(path);
  outboxes.set(path, known);
  return known;
};

/**
 * The log of a run on this device: what the server has, and every tap since, shown at once. Taps survive a reload, a crash
 * and a dead network.
 * @param path of the run's API, such as `/pours/<id>`
 */
export function useRunLog<E extends Entry>(path: string, onServer: readonly (E | UndoEntry)[]): RunLog<E> {
  const client = useQueryClient();
  const outbox = outboxOf(path);
  const { pending, confirmed } = useSyncExternalStore(outbox.subscribe, outbox.contents);

  // All is with the server: whatever else is shown may have moved with it.
  const drained = pending.length === 0 && confirmed.length > 0;
  useEffect(() => {
    if (drained) void client.invalidateQueries();
  }, [client, drained, confirmed]);

  const say = useCallback(
    (said: Said<E | UndoEntry>) => {
      const entry: Entry = { ...said, id: newId(), at: Date.now() };
      outbox.add(entry);
      return entry.id;
    },
    [outbox],
  );

  const entries = useMemo(() => {
    const all = new Map<string, E | UndoEntry>();
    for (const entry of [...onServer, ...confirmed, ...pending]) all.set(entry.id, entry as E | UndoEntry);
    return [...all.values()];
  }, [onServer, confirmed, pending]);
  return { entries, unsaved: pending.length, say };
}
