import { Worker } from 'node:worker_threads';
import { InvalidInput, parseWith, type FieldProblem } from '@schmelz/contract';
import { QuantityError, type SolveLp } from '@schmelz/core';
import { CALCULATIONS, type CalculationName } from '../calculations/index.ts';
import { finite } from '../calculations/finite.ts';
import { Refused } from './errors.ts';
import { loadSolver } from './solver.ts';

/** Longer than this nobody waits for an answer over the wire. */
const LIMIT_MS = 10_000;

/** What a worker says: that it can begin, or of a calculation its result, or why it was refused. */
export type Said = 'ready' | Answer;
export type Answer =
  | { id: number; result: unknown }
  | { id: number; invalid: FieldProblem[] }
  | { id: number; failed: { name: string; message: string } };

/** Checks what was sent, and calculates. @throws InvalidInput, QuantityError */
export function calculate(name: string, body: unknown, solve?: SolveLp): unknown {
  const { input, run } = CALCULATIONS[name as CalculationName];
  return finite(run(parseWith(input, body) as never, solve));
}

/** A calculation as its answer: what a worker posts. */
export function answerTo(id: number, name: string, body: unknown, solve?: SolveLp): Answer {
  try {
    return { id, result: calculate(name, body, solve) };
  } catch (error) {
    if (error instanceof InvalidInput) return { id, invalid: error.fields };
    if (error instanceof QuantityError) {
      const { quantity, given, unit, allowed, message } = error;
      return { id, invalid: [{ field: quantity, value: given, unit, allowed, message }] };
    }
    const { name: kind, message } = error as Error;
    return { id, failed: { name: kind, message } };
  }
}

export interface Computing {
  run(name: string, body: unknown): Promise<unknown>;
  stop(): Promise<void>;
}

interface Waiting {
  resolve(result: unknown): void;
  reject(error: Error): void;
  /** Runs while it is worked on; a worker that still starts works on nothing. */
  limit: NodeJS.Timeout | undefined;
}

const tooLong = (limitMs: number) =>
  new Refused(422, 'Takes too long', `This takes longer than ${limitMs / 1000} s to work out: ask for less at once.`);

/**
 * Calculations off the server's own thread, so that none of them holds up a tap: one worker, started when it is first
 * asked, ended when one takes longer than the limit. Those that waited behind it are asked anew of the next worker.
 * @param script of the worker; null: in the own thread, where there is no built worker
 */
export function computing(script: string | null, limitMs = LIMIT_MS): Computing {
  let worker: Worker | null = null;
  let isReady = false;
  let asked = 0;
  const waiting = new Map<number, Waiting & { name: string; body: unknown }>();

  const settle = (answer: Answer) => {
    const one = waiting.get(answer.id);
    if (!one) return;
    clearTimeout(one.limit);
    waiting.delete(answer.id);
    if ('result' in answer) one.resolve(answer.result);
    else if ('invalid' in answer) one.reject(new InvalidInput(answer.invalid));
    else one.reject(Object.assign(new Error(answer.failed.message), { name: answer.failed.name }));
    restart(); // the next in the row has its own time
  };
  const restart = () => {
    const [first] = waiting.values();
    if (!first || !isReady) return;
    clearTimeout(first.limit);
    first.limit = setTimeout(giveUp, limitMs);
  };
  const begin = (): Worker => {
    const begun = new Worker(script!);
    begun.unref();
    isReady = false;
    begun.on('message', (said: Said) => {
      if (said !== 'ready') return settle(said);
      if (worker !== begun) return;
      isReady = true;
      restart();
    });
    begun.on('error', (error) => {
      if (worker === begun) worker = null;
      for (const [id, one] of waiting) {
        clearTimeout(one.limit);
        waiting.delete(id);
        one.reject(error);
      }
    });
    return begun;
  };
  /** The one that is worked on takes too long: it is ended with its worker, and the others go to the next. */
  function giveUp() {
    void worker?.terminate();
    worker = null;
    const [first, ...rest] = waiting;
    waiting.clear();
    first?.[1].reject(tooLong(limitMs));
    for (const [id, one] of rest) {
      waiting.set(id, one);
      worker ??= begin();
      worker.postMessage({ id, name: one.name, body: one.body });
    }
    restart();
  }
  return {
    run(name, body) {
      // What would not cross from a worker is no answer here either.
      if (script === null) return loadSolver().then((solve) => structuredClone(calculate(name, body, solve)));
      worker ??= begin();
      const id = (asked += 1);
      return new Promise((resolve, reject) => {
        waiting.set(id, { resolve, reject, limit: undefined, name, body });
        worker!.postMessage({ id, name, body });
        if (waiting.size === 1) restart(); // others wait for those before them
      });
    },
    async stop() {
      for (const { limit } of waiting.values()) clearTimeout(limit);
      await worker?.terminate();
    },
  };
}
