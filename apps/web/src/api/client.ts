import type { Problem } from '@schmelz/contract';
import { heedClock, now } from '../units/now.ts';

/** An answer of the server that says no, as problem details. */
export class ApiProblem extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.detail);
    this.name = 'ApiProblem';
    this.problem = problem;
  }
}

/** The server cannot be reached: what was said is kept and sent later. */
export class Unreachable extends Error {
  constructor() {
    super('The Schmelz server does not answer. Is it still running?');
    this.name = 'Unreachable';
  }
}

/** One request to the API; resolves with the parsed answer, throws {@link ApiProblem} or {@link Unreachable}. */
export async function request<T>(method: string, path: string, body?: unknown, type = 'application/json'): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      // The server sees by this how far the clock of this device is off.
      headers: body === undefined ? {} : { 'content-type': type, 'schmelz-clock': String(now()) },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
    });
  } catch {
    throw new Unreachable();
  }
  heedClock(response.headers.get('date'));
  if (response.status === 204) return undefined as T;
  const text = await response.text();
  if (!response.ok) {
    const isProblem = response.headers.get('content-type')?.includes('json');
    const problem = isProblem
      ? (JSON.parse(text) as Problem)
      : { type: 'about:blank', title: 'Not understood', status: response.status, detail: text.slice(0, 200) };
    throw new ApiProblem(problem);
  }
  return JSON.parse(text) as T;
}
