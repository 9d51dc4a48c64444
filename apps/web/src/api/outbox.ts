import type { Entry, UndoEntry } from '@schmelz/core';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
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

const read = <E>(key: string): E[] => {
  const text = localStorage.getItem(key);
  return text ? (JSON.parse(text) as E[]) : [];
};

const SLOWEST_RETRY_MS = 8000;

/**
 * The log of a run on this device. A tap is written to local storage before anything else, shown at once, and sent until
 * the server has it; its id makes a repeated delivery harmless. So it survives a reload, a crash and a dead network.
 * @param path of the run's API, such as `/pours/<id>`
 */
export function useRunLog<E extends Entry>(path: string, onServer: readonly (E | UndoEntry)[]): RunLog<E> {
  const client = useQueryClient();
  const key = `schmelz-outbox ${path}`;
  const [pending, setPending] = useState<(E | UndoEntry)[]>(() => read(key));
  const [confirmed, setConfirmed] = useState<(E | UndoEntry)[]>([]);
  const sending = useRef(false);

  const flush = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    let wait = 500;
    for (let queue = read<E | UndoEntry>(key); queue.length > 0; queue = read(key)) {
      const [first] = queue;
      try {
        await request('POST', `${path}/entries`, first);
        setConfirmed((before) => [...before, first!]);
        wait = 500;
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.problem.status >= 500 || error.problem.status === 429) {
          await new Promise((resolve) => setTimeout(resolve, wait));
          wait = Math.min(SLOWEST_RETRY_MS, wait * 2);
          continue;
        }
        // Refused for good: it is taken out, and the maker is told what did not count.
        toast.error(error.problem.detail);
      }
      const rest = read<E>(key).filter((entry) => entry.id !== first!.id);
      localStorage.setItem(key, JSON.stringify(rest));
      setPending(rest);
    }
    sending.current = false;
    void client.invalidateQueries();
  }, [client, key, path]);

  useEffect(() => {
    void flush();
  }, [flush]);

  const say = useCallback(
    (said: Said<E | UndoEntry>) => {
      const entry = { ...said, id: newId(), at: Date.now() } as unknown as E;
      const queue = [...read<E | UndoEntry>(key), entry];
      localStorage.setItem(key, JSON.stringify(queue));
      setPending(queue);
      void flush();
      return entry.id;
    },
    [flush, key],
  );

  const entries = useMemo(() => {
    const all = new Map<string, E | UndoEntry>();
    for (const entry of [...onServer, ...confirmed, ...pending]) all.set(entry.id, entry);
    return [...all.values()];
  }, [onServer, confirmed, pending]);
  return { entries, unsaved: pending.length, say };
}
