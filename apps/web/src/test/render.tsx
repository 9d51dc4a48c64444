import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render } from '@testing-library/react';
import 'fake-indexeddb/auto';
import { webcrypto } from 'node:crypto';
import type { ReactNode } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { UnitsProvider } from '../units/Units.tsx';
import { answers } from './fixtures.ts';

export interface Sent {
  method: string;
  path: string;
  body: unknown;
}
type Answer = unknown | ((sent: Sent) => unknown);
/** An answer that says no. */
export const refuse = (status: number, problem: Record<string, unknown>) => ({ __status: status, status, ...problem });

/** Puts a small server in the place of fetch; every request is kept in order. */
export function fakeApi(more: Record<string, Answer> = {}) {
  const table = answers(more as Record<string, unknown>);
  const sent: Sent[] = [];
  const state = { online: true };
  globalThis.fetch = (async (url: string, init: RequestInit = {}) => {
    if (!state.online) throw new TypeError('Failed to fetch');
    const method = init.method ?? 'GET';
    const path = url.replace(/^\/api/, '');
    const text = typeof init.body === 'string' ? init.body : undefined;
    const one = { method, path, body: text?.startsWith('{') ? JSON.parse(text) : text };
    sent.push(one);
    // What a query says is looked at by the test, not here.
    const found = table[`${method} ${path}`] ?? table[`${method} ${path.split('?')[0]}`];
    const answer = typeof found === 'function' ? (found as (each: Sent) => unknown)(one) : found;
    const status =
      (answer as { __status?: number } | undefined)?.__status ??
      (answer === undefined ? (method === 'GET' ? 404 : 204) : 200);
    const body = status === 404 ? { title: 'Not found', status, detail: `nothing at ${method} ${path}` } : answer;
    return {
      ok: status < 400,
      status,
      headers: new Headers({ 'content-type': 'application/json' }),
      text: async () => JSON.stringify(body ?? null),
    } as Response;
  }) as typeof fetch;
  return { sent, writes: () => sent.filter(({ method }) => method !== 'GET'), state };
}

/** What jsdom lacks and the components use. */
export function prepareBrowser(): void {
  // A busy machine is slow, not wrong.
  configure({ asyncUtilTimeout: 10_000 });
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  if (!globalThis.crypto?.getRandomValues) Object.defineProperty(globalThis, 'crypto', { value: webcrypto });
  Element.prototype.scrollIntoView = () => {};
  Element.prototype.hasPointerCapture = () => false;
  Element.prototype.setPointerCapture = () => {};
  localStorage.clear();
}

/** Renders an element at a path, in the providers that the application gives it. */
export function renderAt(element: ReactNode, path = '/', pattern = path) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 1000 } } });
  const router = createMemoryRouter(
    [
      { path: pattern, element },
      { path: '*', element: <p>elsewhere</p> },
    ],
    { initialEntries: [path] },
  );
  const view = render(
    <QueryClientProvider client={client}>
      <UnitsProvider>
        <RouterProvider router={router} />
      </UnitsProvider>
    </QueryClientProvider>,
  );
  return { ...view, client, router };
}

/** The smallest element that reads so as a whole, figures to be asked why among its words. */
export const reads = (pattern: RegExp) => (_: string, element: Element | null) =>
  !!element &&
  pattern.test(element.textContent) &&
  ![...element.children].some((child) => pattern.test(child.textContent));
