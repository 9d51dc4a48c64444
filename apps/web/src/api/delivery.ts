import type { Entry } from '@schmelz/core';
import { createElement } from 'react';
import { toast } from '../design/toast.ts';
import { Said } from '../units/Said.tsx';
import { ApiProblem, request } from './client.ts';

/** A tap on its way to the server, with whose it is. */
export interface OnItsWay {
  path: string;
  entry: Entry;
  /** Its turn among all that was tapped on this device, on whichever page. */
  turn: number;
  /** The server has it (null), or does not take it, and why. */
  done(refusedBecause: string | null): Promise<void>;
}

const FIRST_RETRY_MS = 500;
const SLOWEST_RETRY_MS = 8000;
/** A tap at which the server stumbles so often is set aside, so that those behind it get through. */
const STUMBLES = 3;

/**
 * What an error says of a tap. `wait`: nothing of the tap itself (nobody answers, too many at once, the disk is full,
 * who asks must log in); `stumbled`: a mistake of the server's; `refused`: it does not count.
 */
function meaning(error: unknown): 'wait' | 'stumbled' | 'refused' {
  if (!(error instanceof ApiProblem)) return 'wait';
  const { status } = error.problem;
  if ([401, 403, 429, 502, 503, 504].includes(status)) return 'wait';
  return status >= 500 ? 'stumbled' : 'refused';
}

/**
 * All that was said on this device and is not with the server, oldest first, whichever log it belongs to. It is sent in
 * that order: a load of the oven counts heads that a tap in another log has painted.
 */
const onItsWay: OnItsWay[] = [];
let sending = false;
/** Whether this page sends, and what else of this device is to be sent is looked for, before the next one goes. */
let sender: { isMine(): boolean; gather(): Promise<void> } = { isMine: () => true, gather: async () => undefined };
let gathered = true;

/** Names who decides which page sends. */
export function sendBy(decides: typeof sender): void {
  sender = decides;
}

/** There may be taps of other pages, or of ones that are closed: they are sent in their turn. */
export function lookForMore(): void {
  gathered = false;
  if (sending) wakeUp();
  else void sendAll();
}

/** A tap that another page has sent needs no sending. */
export function isSent(id: string): void {
  const at = onItsWay.findIndex(({ entry }) => entry.id === id);
  if (at >= 0) onItsWay.splice(at, 1);
}
let wakeUp = () => {};
const lockedOut = new Set<() => void>();

/** Calls back when the server wants a log-in before it takes what was said. */
export function onLockedOut(listener: () => void): () => void {
  lockedOut.add(listener);
  return () => void lockedOut.delete(listener);
}

/** Tries again at once: somebody has logged in, or the network is back. */
export const tryAgain = () => wakeUp();
if (typeof window !== 'undefined') window.addEventListener('online', () => wakeUp());

/** Taps go on their way, in their turn. */
export function send(taps: readonly OnItsWay[]): void {
  onItsWay.push(...taps);
  onItsWay.sort((a, b) => a.turn - b.turn);
  if (!sending) void sendAll();
}

const rest = (ms: number) =>
  new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, ms);
    wakeUp = () => {
      clearTimeout(timer);
      resolve();
    };
  });

const TROUBLE = 'server-trouble';
/** Says as long as it lasts why taps stay here. */
function say(error: unknown): void {
  if (!(error instanceof ApiProblem)) return; // a server that is away is said by the bench, with how many taps wait
  if (error.problem.status === 401) lockedOut.forEach((listener) => listener());
  const says = `${error.problem.detail} What you tap stays on this device until the server takes it.`;
  toast.error(createElement(Said, { of: says }), {
    id: TROUBLE,
    duration: Infinity,
  });
}

async function sendAll(): Promise<void> {
  sending = true;
  let wait = FIRST_RETRY_MS;
  let stumbles = 0;
  while (sender.isMine()) {
    if (!gathered) {
      gathered = true;
      await sender.gather();
    }
    const [first] = onItsWay;
    if (!first) break;
    const { path, entry, done } = first;
    let why: string | null = null;
    try {
      await request('POST', `${path}/entries`, entry);
    } catch (error) {
      const means = meaning(error);
      if (means === 'stumbled') stumbles += 1;
      if (means === 'wait' || (means === 'stumbled' && stumbles < STUMBLES)) {
        say(error);
        await rest(wait);
        gathered = false; // another page may have tapped meanwhile
        wait = Math.min(SLOWEST_RETRY_MS, wait * 2);
        continue;
      }
      why = (error as ApiProblem).problem.detail;
    }
    toast.dismiss(TROUBLE);
    wait = FIRST_RETRY_MS;
    stumbles = 0;
    isSent(entry.id);
    await done(why);
  }
  sending = false;
}
