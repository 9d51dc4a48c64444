import type { RunView } from '@schmelz/contract';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { ids } from '../test/fixtures.ts';
import { useFillRecords } from './fill-records.ts';
import { fakeApi, prepareBrowser } from '../test/render.tsx';
import { sayToLog } from './outbox.ts';
import {
  useAllRecords,
  useBookedPeriod,
  useChannels,
  useImports,
  useJars,
  useLots,
  useMoves,
  useOrder,
  useOrders,
  usePartLots,
  useOrderTickets,
  usePlan,
  usePour,
  usePours,
  usePoursOf,
  useReadings,
  useRecords,
} from './queries.ts';
import { useRuns } from './runs.ts';

beforeEach(prepareBrowser);

const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
    {children}
  </QueryClientProvider>
);
const heads = [{ ticketId: ids.ticket, step: 'bake', count: 12 }];
const load = (id: string, at: number) => ({ id, at, kind: 'load', heads, setC: 177, seconds: 1200, preheated: true });
const run = (id: string, kind: string, log: unknown[]) => ({ id, kind, number: 1, version: 1, log }) as RunView;

test('runs are the server’s with what was said here, each entry once, and those that were begun here', async () => {
  fakeApi();
  const onServer = [
    run('first', 'oven', [load('a', 1)]),
    run('dip', 'dip', [{ id: 'd', at: 1, kind: 'begin', heads, partId: ids.white, name: 'White' }]),
    run('idle', 'oven', []),
  ];
  const { result } = renderHook(() => useRuns(onServer), { wrapper });
  expect(result.current.map(({ id }) => id)).toEqual(['first', 'dip']);
  act(() => {
    sayToLog('/runs/oven/first', { kind: 'door', open: true });
    sayToLog('/runs/oven/fresh', { ...load('', 0), ovenId: null });
    sayToLog('/runs/dip/dip', { kind: 'stirred' });
  });
  await waitFor(() => expect(result.current.map(({ id }) => id)).toEqual(['first', 'dip', 'fresh']));
  const [first, dip, fresh] = result.current as [RunView, RunView, RunView];
  expect(first.log.map(({ kind }) => kind)).toEqual(['load', 'door']);
  // What was said to a dip session is none of the oven's.
  expect(dip.log.map(({ kind }) => kind)).toEqual(['begin']);
  expect(fresh).toMatchObject({ kind: 'oven', number: 0, log: [{ kind: 'load' }] });
  // The server has it now too: it stays one entry.
  const both = renderHook(() => useRuns([run('first', 'oven', [...first.log])]), { wrapper });
  expect(both.result.current[0]!.log).toHaveLength(2);
});

test.each([
  ['/books/period', () => useBookedPeriod()],
  ['/pours', () => usePours()],
  [`/pours/whole?mold=${ids.mold}`, () => usePoursOf({ moldId: ids.mold })],
  [`/pours/${ids.pour}`, () => usePour(ids.pour)],
  ['/orders', () => useOrders()],
  [`/orders/${ids.order}`, () => useOrder(ids.order)],
  [`/orders/${ids.order}/plan`, () => usePlan(ids.order)],
  [`/orders/${ids.order}/tickets`, () => useOrderTickets(ids.order)],
  [`/materials/${ids.hook}/moves`, () => useMoves(ids.hook)],
  [`/materials/${ids.hook}/lots`, () => usePartLots(ids.hook)],
  ['/lead-lots', () => useLots()],
  ['/imports', () => useImports()],
  ['/jars', () => useJars()],
  ['/records/care', () => useAllRecords('care')],
  [`/records/care?thing=${ids.mold}`, () => useRecords('care', ids.mold)],
  [`/molds/${ids.mold}/fill-records`, () => useFillRecords(ids.mold)],
  ['/channels', () => useChannels()],
  ['/readings?channel=3&from=10&to=20&points=400', () => useReadings(3, 10, 20)],
] as [string, () => unknown][])('%s is asked for', async (path, useIt) => {
  const api = fakeApi();
  renderHook(useIt, { wrapper });
  await waitFor(() => expect(api.sent.length).toBeGreaterThan(0));
  expect(api.sent[0]!.path).toBe(path);
});

test('what nobody has chosen yet is not asked for', async () => {
  const api = fakeApi();
  renderHook(() => [usePoursOf(null), useFillRecords(undefined), useReadings(undefined, 0, 1)], { wrapper });
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(api.sent).toEqual([]);
});
