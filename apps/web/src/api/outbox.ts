import type { Entry, UndoEntry } from '@schmelz/core';
import { createElement, useCallback, useLayoutEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { toast } from '../design/toast.ts';
import { handsOf } from '../bench/hands.ts';
import { whoIsHere } from '../bench/who.ts';
import { Said } from '../units/Said.tsx';
import { clearRefused, loadRefused, setAside } from './did-not-count.ts';
import { isSent, lookForMore, send, sendBy, type OnItsWay } from './delivery.ts';
import { newId } from './id.ts';
import { makeSender } from './sender.ts';
import { tapStore, type RefusedTap, type TapOnDisk } from './tap-store.ts';
import { now } from '../units/now.ts';

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
  /** Takes up taps that lie on the disk and were tapped on another page. */
  takeUp(kept: readonly TapOnDisk[]): void;
  /** Another page has sent a tap: the server has answered for it. */
  answered(id: string, why: string | null): void;
}

/** @param leftBehind whether what was taken was said on an earlier page: this one knows nothing of it */
type TakenListener = (leftBehind: boolean) => void;
const takenListeners = new Set<TakenListener>();
/** Calls back when the server has taken what was said, whichever screen is open then. */
export function onTaken(listener: TakenListener): () => void {
  takenListeners.add(listener);
  return () => takenListeners.delete(listener);
}
/** A burst of taps is one reason to look again, and not in the middle of it. */
const QUIET_MS = 250;
/** While taps go on and on the screen shows them by itself; the server is asked only so often. */
const BETWEEN_LOOKS_MS = 4000;
let quiet: ReturnType<typeof setTimeout> | undefined;
let lookedAt = 0;
let leftBehind = false;
const taken = () => {
  clearTimeout(quiet);
  const look = () => {
    lookedAt = Date.now();
    const earlier = leftBehind;
    leftBehind = false;
    takenListeners.forEach((listener) => listener(earlier));
  };
  quiet = setTimeout(look, Math.max(QUIET_MS, Math.min(BETWEEN_LOOKS_MS, lookedAt + BETWEEN_LOOKS_MS - Date.now())));
};

/** The number of the newest tap of this device on the disk, and of those that no disk has kept since. */
let newestTurn = 0;
/** Between two numbers of the disk there is room for what it did not keep. */
const BETWEEN_TURNS = 1e-6;

/** Taps that another page has sent: one that was read off the disk just before is not taken up any more. */
const answeredElsewhere = new Set<string>();

const sender = makeSender({
  look: lookForMore,
  answered(path, id, why) {
    answeredElsewhere.add(id);
    outboxes.get(path)?.answered(id, why);
    if (why !== null) void loadRefused().catch(notKept);
  },
});
sendBy({ isMine: sender.isMine, gather: takeUpAll });

/** Takes up all that lies on this device's disk and is not on its way from this page. */
async function takeUpAll(): Promise<void> {
  try {
    const [kept, open] = [await tapStore.everything(), await sender.openPages()];
    const others = kept.filter(({ page }) => page !== sender.page);
    for (const path of new Set(others.map((tap) => tap.path))) {
      outboxOf(path).takeUp(others.filter((tap) => tap.path === path));
    }
    const left = others.filter(({ page, entry }) => open && !(page && open.has(page)) && !foundAtStart?.has(entry.id));
    if (left.length > 0 && foundAtStart) tellOf(left);
  } catch (error) {
    notKept(error);
  }
}

/** What the application says by itself, from a model or a probe: nobody need hear that it came too late. */
const saidByItself = (entry: Entry) => 'by' in entry && entry.by !== 'hand';

/**
 * One outbox a run, whichever screen shows it: a tap is on this device's disk (IndexedDB) before it shows, and is sent,
 * in order, until the server has it. Its id makes a repeated delivery harmless.
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
    async done(why) {
      if (why === null || saidByItself(entry)) await tapStore.remove(entry.id).catch(notKept);
      else {
        toast.error(createElement(Said, { of: why })); // said at once, and kept in the list until it was seen
        await setAside({ path, entry, why, at: now() }).catch(notKept);
      }
      const pending = contents.pending.filter(({ id }) => id !== entry.id);
      change({ pending, confirmed: why === null ? [...contents.confirmed, entry] : contents.confirmed });
      leftBehind ||= ofAnother.has(entry.id);
      if (pending.length === 0) taken();
      sender.answered(path, entry.id, why);
    },
  });

  /** Taps that were not made on this page. */
  const ofAnother = new Set<string>();
  const takeUp = (kept: readonly TapOnDisk[]) => {
    const known = new Set([...contents.pending, ...contents.confirmed].map(({ id }) => id));
    const found = kept.filter(({ entry }) => !known.has(entry.id) && !answeredElsewhere.has(entry.id));
    if (found.length === 0) return;
    found.forEach(({ entry }) => ofAnother.add(entry.id));
    newestTurn = Math.max(newestTurn, ...found.map(({ seq }) => seq));
    change({ ...contents, pending: [...found.map(({ entry }) => entry), ...contents.pending] });
    send(found.map(({ entry, seq }) => tap(entry, seq)));
  };
  // What an earlier page left here comes first.
  let writing: Promise<void> = tapStore.all(path).then(takeUp).catch(notKept);
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
        .then(() => tapStore.add({ path, entry, page: sender.page }))
        .catch(notKept)
        .then((seq) => {
          newestTurn = seq ?? newestTurn + BETWEEN_TURNS;
          change({ ...contents, pending: [...contents.pending, entry] });
          send([tap(entry, newestTurn)]);
          sender.kept();
        });
    },
    takeUp,
    answered(id, why) {
      isSent(id);
      const entry = contents.pending.find((each) => each.id === id);
      if (!entry) return;
      const pending = contents.pending.filter((each) => each.id !== id);
      change({ pending, confirmed: why === null ? [...contents.confirmed, entry] : contents.confirmed });
      if (pending.length === 0) taken();
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

/** Taps that lay on the disk when this page was opened, and those that were told of since; null: not looked at yet. */
let foundAtStart: Set<string> | null = null;
/** Says that taps of a page that was closed go on their way from here. */
function tellOf(left: readonly TapOnDisk[]): void {
  left.forEach(({ entry }) => foundAtStart?.add(entry.id));
  toast(
    left.length === 1
      ? 'A tap that a closed page had left here is being sent.'
      : `${left.length} taps that a closed page had left here are being sent.`,
  );
}

/** Without a disk taps go on from memory; a reload before the server has them would lose them: that is said. */
function notKept(error: unknown): void {
  const why = error instanceof Error ? error.message : String(error);
  toast.error(
    `This browser does not keep taps on its disk (${why}): they go to the server from memory. Do not reload while taps wait.`,
    { id: 'not-kept', duration: Infinity },
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

/** What another device's clock may be ahead of this one's, and still be followed. */
const AHEAD_MS = 60_000;
/** When the newest entry was made, as far as a clock near this one says it: a wrong clock moves no other's times. */
const newestBy = (clock: number, entries: readonly Entry[]): number =>
  entries.reduce((last, { at }) => (at <= clock + AHEAD_MS ? Math.max(last, at) : last), 0);

/** The name of who stands here, for what is said now. */
function byWho(): { who?: string } {
  const who = whoIsHere();
  return who === undefined ? {} : { who };
}

/**
 * Says something in a log that this screen does not show: a run that begins. Now, on this device's disk, then to the
 * server.
 */
export function sayToLog(path: string, said: { kind: string } & Record<string, unknown>): void {
  const outbox = outboxOf(path);
  const at = now();
  outbox.inTurn(() => {
    const { confirmed, pending } = outbox.contents();
    const its = { id: newId(), at: Math.max(at, newestBy(at, [...confirmed, ...pending]) + 1) };
    const who = byWho();
    outbox.add({ ...said, ...who, ...handsOf(said, { ...its, ...who, path }), ...its });
  });
}

/** Taps that wait on this page to be sent, of all runs. */
export const waitingHere = (): number =>
  [...outboxes.values()].reduce((sum, outbox) => sum + outbox.contents().pending.length, 0);

const listenToAny = (listener: () => void) => {
  anyListeners.add(listener);
  return () => void anyListeners.delete(listener);
};

/**
 * What this device has said in every log below a path since the page was opened, by the rest of the path: runs that
 * were begun here are known before the server has heard of them.
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
    await loadRefused();
    const kept = await tapStore.everything();
    foundAtStart = new Set(kept.map(({ entry }) => entry.id));
    kept.forEach(({ path }) => outboxOf(path));
  } catch (error) {
    notKept(error);
  }
}

/** A tap that did not count goes on its way once more, as it was made. */
export async function sayAgain({ path, entry }: RefusedTap): Promise<void> {
  await clearRefused(entry.id).catch(notKept);
  outboxOf(path).add(entry);
}

function merged<E extends Entry>(onServer: readonly (E | UndoEntry)[], { pending, confirmed }: Contents) {
  // What was said on this page keeps the time of this device: its waits run by the same clock.
  const all = new Map<string, E | UndoEntry>(onServer.map((entry) => [entry.id, entry]));
  for (const entry of [...confirmed, ...pending]) all.set(entry.id, entry as E | UndoEntry);
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
      const saidAt = now();
      const add = () => {
        const known = newestBy(saidAt, merged<E>(server.current, outbox.contents()));
        const at = Math.max(saidAt, known + 1, newest.current + 1);
        newest.current = at;
        const id = newId();
        const who = byWho();
        outbox.add({ ...said, ...who, ...handsOf(said, { id, at, ...who, path }), id, at });
      };
      if (outbox.working()) add();
      else outbox.inTurn(add);
    },
    [outbox, path],
  );
  const next = useCallback(
    (work: (entries: (E | UndoEntry)[]) => void) => {
      outbox.inTurn(() => work(merged<E>(server.current, outbox.contents())));
    },
    [outbox],
  );
  return { entries, unsaved: contents.pending.length, say, next };
}
