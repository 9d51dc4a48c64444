import { usualRoute } from '@schmelz/core';
import { cleanup, screen } from '@testing-library/react';
import { ids, order, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { OrderPage } from './OrderPage.tsx';

// An order that is released is two tickets by what was written down that day: planned and came are added up by hand.
beforeEach(prepareBrowser);
afterEach(cleanup);

const bare = usualRoute({ painted: false, baked: false });
const cost = (minor: number) => ({
  ...{ lead: minor, hook: 0, powder: 0, parts: 0, packaging: 0, dross: 0, energy: 0, work: 0, wear: 0 },
});
const at = Date.UTC(2026, 2, 6);
const done = (id: string, count: number) =>
  [...bare.map(({ key }) => ({ kind: 'good', step: key, count })), { kind: 'close' }].map((entry, nth) => ({
    ...{ id: `${id} ${nth}`, at: at + nth * 60_000 },
    ...entry,
  })) as unknown as ReturnType<typeof ticket>['log'];

const first = ticket({
  ...{
    id: 'first',
    number: 101,
    route: bare,
    quantity: 12,
    poured: 10,
    pourCauses: { short: 4 },
    log: done('first', 10),
  },
  planned: { ...ticket().planned, casts: 14, workS: 1200, stack: cost(30) },
  actual: { ...ticket().actual, workS: 1800, cost: { ...ticket().actual.cost, perHead: cost(50) } },
});
const second = ticket({
  ...{ id: 'second', number: 102, route: bare, quantity: 6, poured: 6, pourCauses: {} },
  planned: { ...ticket().planned, casts: 8, workS: 600, stack: cost(60) },
  actual: { ...ticket().actual, workS: 300, cost: { ...ticket().actual.cost, perHead: null } },
});

async function open(status: 'released' | 'done' = 'released') {
  const api = fakeApi({
    [`GET /orders/${ids.order}`]: { ...order, status },
    [`GET /orders/${ids.order}/tickets`]: [second, first],
    [`GET /orders/${ids.order}/goods`]: { lines: [] },
  });
  renderAt(<OrderPage />, `/orders/${ids.order}`, '/orders/:id');
  await screen.findByText('Its tickets');
  return api;
}
const row = (name: string) =>
  [
    ...screen.getAllByRole<HTMLTableRowElement>('row').find(({ cells }) => cells[0]!.textContent.startsWith(name))!
      .cells,
  ]
    .slice(1)
    .map((cell) => cell.textContent);

test('stands as it was released and as it came, and nothing is planned anew for it', async () => {
  const api = await open();
  expect(api.sent.map(({ path }) => path).filter((path) => path.endsWith('/plan'))).toEqual([]);
  // Ten of the first ticket are done, none of the second.
  expect(screen.getByRole('heading', { level: 1 }).parentElement!.textContent).toMatch(/10of 18 heads are good/);
  expect(row('Hands-on')).toEqual(['30 min', '35 min']);
  expect(row('Casts')).toEqual(['22', '20']);
  // (12 x 30 + 6 x 60) / 18 was planned; what came is the first ticket's alone, the second has no head yet.
  const [planned, came] = row('One head, on average');
  expect(planned).toMatch(/0\.400/);
  expect(came).toMatch(/0\.500/);
});

test('each ticket leads to its own, says where it is, and what was planned beside what came', async () => {
  await open();
  expect(screen.getByRole('link', { name: /101/ }).getAttribute('href')).toBe('/tickets/first');
  const [where, good, casts, cameCasts, one, cameOne] = row('101');
  expect([where, good, casts, cameCasts]).toEqual(['closed', '10 of 12', '14', '14']);
  expect([one, cameOne]).toEqual([expect.stringMatching(/0\.300/), expect.stringMatching(/0\.500/)]);
  expect(row('102').slice(0, 2)).toEqual([bare[0]!.does, '0 of 6']);
  expect(row('102')[5]).toBe('–');
});

test('one that is done says what came of it', async () => {
  await open('done');
  expect(screen.getByRole('heading', { level: 1 }).parentElement!.textContent).toMatch(
    /10good heads came of 18 ordered/,
  );
});
