import type { Entry, UndoEntry } from '@schmelz/core';
import { useCallback, useLayoutEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import { ApiProblem, request } from './client.ts';
import { newId } from './id.ts';
import { tapStore } from './tap-store.ts';

/** An entry as the bench says it: the id and the time are added here. */
export type Said<E extends Entry> = E extends Entry ? Omit<E, 'id' | 'at'> : never;

export interface RunLog<E extends Entry> {
  /** What the server has, and what is still on its way. */
  entries: (E | UndoEntry)[];
  /** Taps that are kept on this device but not yet confirmed as on disk. */
  unsaved: number;
  /** Says that something happened, now. */
  say(said: Said<E | UndoEntry>): void;
  /** Runs when every key before it has done its work, with the log as it stands then: what a quick second key means. */
  next(work: (entries: (E | UndoEntry)[]) => void): void;
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
  /** Keys take turns, in the order in which they were pressed: each sees what all before it have said. */
  inTurn(work: () => void): void;
  /** Whether a turn is being taken: what is said within it belongs to it. */
  working(): boolean;
  /** Resolves when all that was said is on this device. */
  settled(): Promise<void>;
}

const FIRST_RETRY_MS = 500;
const SLOWEST_RETRY_MS = 8000;
const isFinal = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && error.problem.status < 500 && error.problem.status !== 429;

const takenListeners = new Set<() => void>();
/** Calls back when the server has taken what was said, whichever screen is open then. */
export function onTaken(listener: () => void): () => void {
  takenListeners.add(listener);
  return () => takenListeners.delete(listener);
}
/** A burst of taps is one reason to look again, and not in the middle of it. */
const QUIET_MS = 250;
let quiet: ReturnType<typeof setTimeout> | undefined;
const taken = () => {
  clearTimeout(quiet);
  quiet = setTimeout(() => takenListeners.forEach((listener) => listener()), QUIET_MS);
};

/** A tap on its way to the server, with whose it is. */
interface OnItsWay {
  path: string;
  entry: Entry;
  /** Its turn; what an earlier page left comes before all that is said on this one. */
  turn: number;
  /** The server has it, or will never take it. */
  done(counts: boolean): Promise<void>;
}

/**
 * All that was said on this device and is not with the server, oldest first, whichever log it belongs to. It is sent in
 * that order: a load of the oven counts heads that a tap in another log has painted.
 */
const onItsWay: OnItsWay[] = [];
let turns = 0;
const BEFORE_THIS_PAGE = 1e15;
let sending = false;

function send(taps: readonly OnItsWay[]): void {
  onItsWay.push(...taps);
  onItsWay.sort((a, b) => a.turn - b.turn);
  if (!sending) void sendAll();
}

async function sendAll(): Promise<void> {
  sending = true;
  let wait = FIRST_RETRY_MS;
  for (let first = onItsWay[0]; first; first = onItsWay[0]) {
    const { path, entry, done } = first;
    let counts = true;
    try {
      await request('POST', `${path}/entries`, entry);
    } catch (error) {
      if (!isFinal(error)) {
        await new Promise((resolve) => setTimeout(resolve, wait));
        wait = Math.min(SLOWEST_RETRY_MS, wait * 2);
        continue;
      }
      // Refused for good: it is taken out, and the maker is told what did not count.
      counts = false;
      toast.error(error.problem.detail);
    }
    wait = FIRST_RETRY_MS;
    onItsWay.splice(onItsWay.indexOf(first), 1);
    await done(counts);
  }
  sending = false;
}

/**
 * One outbox a run, whichever screen shows it: a tap is on this device's disk (IndexedDB) before it shows, and is
 * sent, in order, until the server has it. Its id makes a repeated delivery harmless.
 */
export function makeOutbox(path: string): Outbox {
  const listeners = new Set<() => void>();
  let contents: Contents = { pending: [], confirmed: [] };

  const change = (next: Contents) => {
    contents = next;
    listeners.forEach((listener) => listener());
  };

  const tap = (entry: Entry, turn: number): OnItsWay => ({
    path,
    entry,
    turn,
    async done(counts) {
      await tapStore.remove(entry.id).catch(notKept);
      const pending = contents.pending.filter(({ id }) => id !== entry.id);
      change({ pending, confirmed: counts ? [...contents.confirmed, entry] : contents.confirmed });
      if (pending.length === 0) taken();
    },
  });

  // What an earlier page left here comes first.
  let writing: Promise<void> = tapStore
    .all(path)
    .then((kept) => {
      if (kept.length === 0) return;
      change({ ...contents, pending: [...kept, ...contents.pending] });
      // By its time: turns of this page count from one, those of an earlier one are below nought.
      send(kept.map((entry) => tap(entry, entry.at - BEFORE_THIS_PAGE)));
    })
    .catch(notKept);
  let turn: Promise<void> = Promise.resolve();
  let busy = false;
  return {
    contents: () => contents,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    add(entry) {
      writing = writing
        .then(() => tapStore.add(path, entry))
        .catch(notKept)
        .then(() => {
          change({ ...contents, pending: [...contents.pending, entry] });
          send([tap(entry, ++turns)]);
        });
    },
    inTurn(work) {
      turn = turn
        .then(() => writing)
        .then(() => {
          busy = true;
          try {
            work();
          } finally {
            busy = false;
          }
        })
        // The next in line does not care how this one ended; whoever listens for errors does.
        .catch((error: unknown) =>
          queueMicrotask(() => {
            throw error;
          }),
        );
    },
    working: () => busy,
    settled: () => turn.then(() => writing),
  };
}

/** A browser that keeps nothing still works, but a reload before the server answers would lose taps: that is said. */
function notKept(error: unknown): void {
  toast.error(
    `This browser does not keep taps (${error instanceof Error ? error.message : String(error)}): do not reload while the server is away.`,
    { id: 'not-kept' },
  );
}

const outboxes = new Map<string, Outbox>();
const anyListeners = new Set<() => void>();
/** Counts up whenever anything is said or taken anywhere: what looks at many logs looks again. */
let said = 0;
const outboxOf = (path: string): Outbox => {
  const known = outboxes.get(path);
  if (known) return known;
  const made = makeOutbox(path);
  outboxes.set(path, made);
  made.subscribe(() => {
    said += 1;
    anyListeners.forEach((listener) => listener());
  });
  return made;
};

/**
 * Says something in a log that this screen does not show: a run that begins. Now, on this device's disk, then to the
 * server.
 */
export function sayInto(path: string, said: { kind: string } & Record<string, unknown>): void {
  const outbox = outboxOf(path);
  const at = Date.now();
  outbox.inTurn(() => {
    const { confirmed, pending } = outbox.contents();
    const newest = [...confirmed, ...pending].reduce((last, entry) => Math.max(last, entry.at), 0);
    outbox.add({ ...said, id: newId(), at: Math.max(at, newest + 1) });
  });
}

const listenToAny = (listener: () => void) => {
  anyListeners.add(listener);
  return () => void anyListeners.delete(listener);
};

/**
 * What this device has said in every log below a path since the page was opened, by the rest of the path: runs that
 * were begun
 * here are known before the server has heard of them.
 */
export function useSaidUnder(prefix: string): ReadonlyMap<string, readonly Entry[]> {
  const change = useSyncExternalStore(listenToAny, () => said);
  return useMemo(() => {
    void change;
    const own = [...outboxes].filter(([path]) => path.startsWith(prefix));
    return new Map(
      own.map(([path, outbox]) => {
        const { confirmed, pending } = outbox.contents();
        return [path.slice(prefix.length), [...confirmed, ...pending]];
      }),
    );
  }, [prefix, change]);
}

/**
 * Taps of an earlier page go on their way whichever screen is opened first, not only at the bench they were made at.
 */
export async function resumeOutboxes(): Promise<void> {
  try {
    (await tapStore.paths()).forEach(outboxOf);
  } catch (error) {
    notKept(error);
  }
}

function merged<E extends Entry>(onServer: readonly (E | UndoEntry)[], { pending, confirmed }: Contents) {
  const all = new Map<string, E | UndoEntry>();
  for (const entry of [...onServer, ...confirmed, ...pending]) all.set(entry.id, entry as E | UndoEntry);
  return [...all.values()];
}

/**
 * The log of a run on this device: what the server has, and every tap since. Taps survive a reload, a crash and a dead
 * network. Times of one run never go back, whatever the clock of the device does.
 * @param path of the run's API, such as `/pours/<id>`
 */
export function useRunLog<E extends Entry>(path: string, onServer: readonly (E | UndoEntry)[]): RunLog<E> {
  const outbox = outboxOf(path);
  const contents = useSyncExternalStore(outbox.subscribe, outbox.contents);
  const entries = useMemo(() => merged<E>(onServer, contents), [onServer, contents]);
  const server = useRef(onServer);
  useLayoutEffect(() => {
    server.current = onServer;
  }, [onServer]);
  const newest = useRef(0);

  const say = useCallback(
    (said: Said<E | UndoEntry>) => {
      const saidAt = Date.now();
      const add = () => {
        const known = merged<E>(server.current, outbox.contents()).reduce((last, entry) => Math.max(last, entry.at), 0);
        const at = Math.max(saidAt, known + 1, newest.current + 1);
        newest.current = at;
        outbox.add({ ...said, id: newId(), at });
      };
      if (outbox.working()) add();
      else outbox.inTurn(add);
    },
    [outbox],
  );
  const next = useCallback(
    (work: (entries: (E | UndoEntry)[]) => void) => {
      outbox.inTurn(() => work(merged<E>(server.current, outbox.contents())));
    },
    [outbox],
  );
  return { entries, unsaved: contents.pending.length, say, next };
}
