import type { Given, Params, Problem, Query, RouteKey, Sent } from '@schmelz/contract';
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

/**
 * One request to the API by its address, for what was put by and is sent later; resolves with the parsed answer, throws
 * {@link ApiProblem} or {@link Unreachable}.
 */
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

/** What a route must be asked with; nothing where it wants nothing. */
type Ask<K extends RouteKey> = (keyof Params<K> extends never ? unknown : { params: Params<K> }) &
  (keyof Query<K> extends never ? unknown : { query?: Query<K> }) &
  (Sent<K> extends undefined ? unknown : { body: Sent<K> });
interface AnyAsk {
  params?: Record<string, string | number>;
  query?: Record<string, string | number | undefined>;
  body?: unknown;
}

/** The address of a route, its parts and its query filled in. */
function addressOf(key: string, { params = {}, query = {} }: AnyAsk = {}): string {
  const path = key.slice(key.indexOf(' ') + 1).replaceAll(/:(\w+)/g, (_, name: string) => `${params[name]}`);
  const given = Object.entries(query).filter(([, value]) => value !== undefined);
  return given.length ? `${path}?${new URLSearchParams(given.map(([name, value]) => [name, `${value}`]))}` : path;
}

/**
 * One request to a route of the API; what goes in and out is known from the table of routes.
 * @throws ApiProblem, Unreachable
 * @example call('GET /tickets/:id', { params: { id } }) // a Ticket
 */
export function call<K extends RouteKey>(
  key: K,
  ...[ask]: unknown extends Ask<K>
    ? [ask?: Ask<K>]
    : { query?: Query<K> } extends Ask<K>
      ? [ask?: Ask<K>]
      : [ask: Ask<K>]
): Promise<Given<K>> {
  const asked = (ask ?? {}) as AnyAsk;
  const method = key.slice(0, key.indexOf(' '));
  const type = typeof asked.body === 'string' ? 'text/csv' : 'application/json';
  // A write without a body says so: the server reads one wherever something is written.
  const body = method === 'POST' ? (asked.body ?? {}) : asked.body;
  return request<Given<K>>(method, addressOf(key, asked), body, type);
}
