import { Worker } from 'node:worker_threads';
import type { RouteKey } from '@schmelz/contract';
import type { Changes, Store } from '../store/store.ts';
import { Refused } from './errors.ts';
import { keepFigures } from './ticket-figures.ts';

/**
 * What is read off the server's own thread: what reckons over many records or solves, so that no tap waits for it. All
 * of it only reads.
 */
export const ASIDE = [
  'GET /orders/:id/plan',
  'GET /tonight',
  'GET /tickets',
  'GET /bakes',
  'GET /stock/makes',
  'GET /books/period',
  'GET /books/metal',
  'GET /books/metal/ever',
  'GET /books/months',
  'GET /books/sales',
  'GET /books/changes',
  'GET /books/quality',
  'GET /books/cost/:id',
  'GET /trace/lots',
  'GET /pours/whole',
] as const satisfies readonly RouteKey[];
export type AsideKey = (typeof ASIDE)[number];

/** What of a request such a route is answered from; its table has checked it. */
export interface AsideAsked {
  params: unknown;
  query: unknown;
}
/** What the thread is sent, and what it says: an answer as it goes over the wire, or why there is none. */
export interface AsideQuestion {
  id: number;
  key: AsideKey;
  asked: AsideAsked;
  changes: Changes;
}
export type AsideAnswer = { id: number; json: string } | { id: number; wrong: Wrong };

/** An error as it is told between threads, which keep of an error only its words. */
interface Wrong {
  message: string;
  stack?: string;
  /** Of a refusal: its status and title. */
  refused?: { status: number; title: string };
  /** Of the disk or the database: its code. */
  code?: string;
}

export function wrongOf(error: unknown): Wrong {
  const { message, stack, code, original } = error as Error & { code?: string; original?: { code?: string } };
  if (error instanceof Refused) return { message, refused: { status: error.status, title: error.title } };
  return { message, stack, code: original?.code ?? code };
}

function errorOf({ message, stack, refused, code }: Wrong): Error {
  if (refused) return new Refused(refused.status, refused.title, message);
  return Object.assign(new Error(message), { stack, code });
}

export interface Aside {
  /** The answer as JSON. @throws what the route throws */
  ask(key: AsideKey, asked: AsideAsked): Promise<string>;
  stop(): Promise<void>;
}

const stops = () => new Refused(503, 'Schmelz stops', 'Ask again when it runs.');

/** Longer than this its end is not waited for. */
const END_MS = 2000;

/**
 * A thread that reads beside the taps. It is started with the server, and anew with the next question where it fell
 * over.
 * @param script of the thread
 */
export function aside(script: string, store: Store): Aside {
  let asked = 0;
  let isStopped = false;
  const waiting = new Map<number, { resolve(json: string): void; reject(error: Error): void }>();
  const begin = (): Worker => {
    const begun = new Worker(script, { workerData: { folder: store.folder } });
    begun.unref();
    begun.on('message', (said: AsideAnswer) => {
      const one = waiting.get(said.id);
      waiting.delete(said.id);
      if ('json' in said) one?.resolve(said.json);
      else one?.reject(errorOf(said.wrong));
    });
    begun.on('error', (error) => {
      if (worker === begun) worker = null;
      for (const one of waiting.values()) one.reject(error);
      waiting.clear();
    });
    return begun;
  };
  let worker: Worker | null = begin();
  return {
    async ask(key, { params, query }) {
      await keepFigures(store);
      if (isStopped) throw stops();
      const thread = (worker ??= begin());
      const id = (asked += 1);
      return new Promise((resolve, reject) => {
        waiting.set(id, { resolve, reject });
        const question: AsideQuestion = { id, key, asked: { params, query }, changes: store.changes() };
        thread.postMessage(question);
      });
    },
    async stop() {
      isStopped = true;
      const last = worker;
      if (last) {
        const ended = new Promise((resolve) => last.once('exit', resolve));
        last.postMessage('end'); // it closes the database first
        const late = setTimeout(() => void last.terminate(), END_MS);
        await ended;
        clearTimeout(late);
      }
      for (const one of waiting.values()) one.reject(stops());
    },
  };
}
