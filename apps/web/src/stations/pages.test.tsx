import type { Ticket } from '@schmelz/contract';
import { COST_PARTS, figure, given, type CostStack, type Plan } from '@schmelz/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, order, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { LinePage } from './line/LinePage.tsx';
import { OrderFormPage } from './orders/OrderForm.tsx';
import { OrdersPage } from './orders/OrdersPage.tsx';
import { OrderPage } from './orders/OrderPage.tsx';
import { TicketPage } from './ticket/TicketPage.tsx';

beforeEach(prepareBrowser);

const fig = (value: number, unit: Parameters<typeof figure>[1]) =>
  figure(value, unit, { rule: 'because', formula: 'a = b', source: 'test', inputs: [given('a', value, unit)] });
const stack = Object.fromEntries(COST_PARTS.map((part) => [part, 5])) as CostStack;
const plan: Plan = {
  lines: [
    {
      productId: ids.product,
      productName: 'Pebble 10 g, roe on gull',
      quantity: 12,
      coming: 12,
      molds: [],
      unpriced: [],
      priced: [],
      casts: fig(14, 'count'),
      yieldShare: fig(0.94, 'ratio'),
      leadKgPerHead: fig(0.01, 'head-kg'),
      unitCost: fig(30, 'minor/head'),
      stack,
      workS: 90,
      powders: [],
      parts: [],
      bake: {
        cure: fig(0.52, 'ratio'),
        part: 'Bronzed 2/0',
        limitC: 150,
        damage: { flag: 'browned', overS: 1200, overK: 26 },
      },
    },
  ],
  molds: [
    {
      moldId: ids.mold,
      moldName: 'Three',
      uses: [
        {
          position: 1,
          cavityId: 'c',
          productIds: [ids.product],
          leadKg: 0.01,
          sprueKg: 0.003,
          yieldShare: 0.94,
          yieldSure: 30,
        },
      ],
      shots: fig(14, 'count'),
      blanks: fig(5, 'count'),
      solidS: 2,
      openS: fig(4, 's'),
    },
  ],
  charge: fig(1.1, 'kg'),
  leadUsed: fig(0.2, 'kg'),
  chargeParts: [
    { label: 'heads', kg: 0.3 },
    { label: 'heel', kg: 0.8 },
  ],
  melt: fig(300, 's'),
  needs: [
    { materialId: ids.hook, name: 'Hook 2/0', kind: 'hook', need: fig(50, 'count'), have: 40, missing: 10 },
    { materialId: ids.lead, name: 'Keel lead', kind: 'lead', need: fig(1.1, 'kg'), have: 12.5, missing: 0 },
  ],
  minutes: [
    { station: 'pour', does: 'Pour', handsS: fig(1800, 's'), waitS: null },
    { station: 'bake', does: 'Bake', handsS: fig(60, 's'), waitS: fig(1680, 's') },
  ],
  handsTotal: fig(4000, 's'),
  ovenLoads: fig(1, 'count'),
  unitCost: fig(30, 'minor/head'),
  pins: [],
  problems: [],
};
const planAnswers = (more: Partial<Plan> = {}) => ({
  [`GET /orders/${ids.order}/plan`]: { plan: { ...plan, ...more } },
});

describe('the line', () => {
  test('says the one next thing, and Space goes there', async () => {
    fakeApi();
    const { router } = renderAt(<LinePage />);
    const heading = await screen.findByRole('heading', { level: 1 });
    expect(heading.textContent).toBe('Pebble 10 g to trim');
    expect(heading.parentElement!.textContent).toContain('12');
    expect(screen.getByText(/Ticket 101, Stall, due 14 March/)).toBeTruthy();
    await userEvent.keyboard(' ');
    expect(router.state.location.pathname).toBe(`/trim/${ids.ticket}`);
  });

  test('a ticket is a strip along the stations with its losses where they happened', async () => {
    fakeApi();
    renderAt(<LinePage />);
    const strip = within(await screen.findByRole('article', { name: 'Ticket 101' }));
    expect(strip.getAllByText('12 to trim').length).toBeGreaterThan(0);
    expect(strip.getByText('1 short')).toBeTruthy();
    expect(screen.getByText('Order 7, Stall')).toBeTruthy();
  });

  test('what runs low is on the short shelf; an empty workshop is led to its first steps', async () => {
    fakeApi();
    const first = renderAt(<LinePage />);
    expect(await screen.findByText('Roe orange')).toBeTruthy();
    expect(screen.getByText('30 g left')).toBeTruthy();
    first.unmount();
    fakeApi({ 'GET /orders': [], 'GET /products': [], 'GET /line': { tickets: [], pours: [], runs: [] } });
    const { router } = renderAt(<LinePage />);
    await waitFor(() => expect(router.state.location.pathname).toBe('/start'));
  });
});

describe('orders', () => {
  test('an order is products times quantities; what is wrong is said at the field', async () => {
    const api = fakeApi({ 'POST /orders': order });
    const { router } = renderAt(<OrderFormPage />, '/orders/new');
    const heads = await screen.findByLabelText('Heads');
    await userEvent.clear(heads);
    await userEvent.type(heads, '0');
    await userEvent.click(screen.getByRole('button', { name: 'See the plan' }));
    expect(await screen.findByText(/greater than or equal to 1/)).toBeTruthy();
    expect(api.writes()).toEqual([]);
    await userEvent.type(screen.getByLabelText('For whom'), 'Stall');
    await userEvent.clear(heads);
    await userEvent.type(heads, '24');
    await userEvent.click(screen.getByRole('button', { name: 'See the plan' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`/orders/${ids.order}`));
    expect(api.writes()[0]!.body).toEqual({
      customer: 'Stall',
      dueOn: null,
      note: '',
      lines: [{ productId: ids.product, quantity: 24 }],
    });
  });

  test('the same product twice is refused', async () => {
    fakeApi();
    renderAt(<OrderFormPage />, '/orders/new');
    await userEvent.type(await screen.findByLabelText('For whom'), 'Stall');
    await userEvent.click(screen.getByRole('button', { name: 'Another product' }));
    await userEvent.click(screen.getByRole('button', { name: 'See the plan' }));
    expect(await screen.findByText('must name each product once')).toBeTruthy();
  });

  test('the list tells what is not released yet', async () => {
    fakeApi();
    renderAt(<OrdersPage />);
    expect(await screen.findByText('not released')).toBeTruthy();
    expect(screen.getByText('12 × Pebble 10 g, roe on gull')).toBeTruthy();
  });

  test.each([
    ['released', {}, 0, 'on the line'],
    ['done', {}, 0, 'to hand over'],
    ['done', { [ids.product]: 5 }, 0, '5 of 12 with them'],
    ['done', { [ids.product]: 12 }, 0, 'handed over'],
    ['done', { [ids.product]: 9 }, 3, '3 missing'],
  ])('an order that is %s with %j handed over and %d missing says: %s', async (status, handed, missing, says) => {
    fakeApi({ 'GET /orders': [{ ...order, status, handed, missing }] });
    renderAt(<OrdersPage />);
    expect(await screen.findByText(says)).toBeTruthy();
  });

  test('the plan names what is missing, every figure asks why, release makes tickets', async () => {
    const api = fakeApi({ ...planAnswers(), [`POST /orders/${ids.order}/release`]: [] });
    const { router } = renderAt(<OrderPage />, `/orders/${ids.order}`, '/orders/:id');
    expect(await screen.findByText('10 missing')).toBeTruthy();
    expect(screen.getByText(/Hook 2\/0: not enough on the shelf/)).toBeTruthy();
    const asked = screen.getAllByRole('button', { name: /Why\?$/ });
    expect(asked.length).toBeGreaterThanOrEqual(15);
    expect(screen.getByRole('button', { name: 'Cure: 52 %. Why?' })).toBeTruthy();
    expect(screen.getByText(/52 % of a cure by the end of its program, about half/)).toBeTruthy();
    expect(screen.getByText(/Bronzed 2\/0 stands 150 °C and is over it for 20 min/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Release to the line' }));
    await waitFor(() => expect(router.state.location.pathname).toBe('/pour'));
    expect(api.writes()[0]!.path).toBe(`/orders/${ids.order}/release`);
  });

  test('what cannot be cast stops the release and says why', async () => {
    fakeApi(planAnswers({ problems: [{ productId: ids.product, text: 'Hook 6/0 does not fit: too large.' }] }));
    renderAt(<OrderPage />, `/orders/${ids.order}`, '/orders/:id');
    expect((await screen.findByText(/Hook 6\/0 does not fit: too large\./)).textContent).toMatch(/^[^:]+: Hook/);
    expect((screen.getByRole('button', { name: 'Release to the line' }) as HTMLButtonElement).disabled).toBe(true);
  });
});

describe('a ticket', () => {
  const at = Date.UTC(2026, 2, 6);
  const entry = (n: number, rest: Record<string, unknown>) =>
    ({
      id: `30000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
      at: at + n * 60_000,
      ...rest,
    }) as Ticket['log'][number];
  const done = ['trim', 'paint', 'bake', 'finish'].map((step, n) => entry(n, { kind: 'good', step, count: 12 }));
  const perHead = Object.fromEntries(COST_PARTS.map((part, i) => [part, 2 * (i + 1)])) as CostStack;
  const show = (log: Ticket['log'], more: Partial<Ticket> = {}) => {
    const api = fakeApi({ [`GET /tickets/${ids.ticket}`]: ticket({ log, ...more }) });
    renderAt(<TicketPage />, `/tickets/${ids.ticket}`, '/tickets/:id');
    return api;
  };

  test('stands at its station with a way there', async () => {
    show([]);
    expect((await screen.findByRole('link', { name: 'On to trim' })).getAttribute('href')).toBe(`/trim/${ids.ticket}`);
    expect(screen.getByText(/of 12 Pebble 10 g are done/)).toBeTruthy();
  });
  test('is closed after its last station', async () => {
    const api = show(done);
    await userEvent.click(await screen.findByRole('button', { name: 'Close the ticket' }));
    await waitFor(() => expect(api.writes()[0]!.body).toMatchObject({ kind: 'close' }));
  });
  test('closed, it tells plan against what it came to, as stacks, and can be opened again', async () => {
    const closing = entry(9, { kind: 'close' });
    const actual = { ...ticket().actual, cost: { ...ticket().actual.cost, perHead } };
    const api = show([...done, closing], { actual });
    expect(await screen.findByText('is what one Pebble 10 g cost')).toBeTruthy();
    expect(screen.getAllByText('€0.900').length).toBeGreaterThan(0); // 2 + 4 + ... + 18 minor units
    expect(screen.getAllByText('€0.450').length).toBeGreaterThan(0);
    expect(screen.getByText(/a head brings €1.050/)).toBeTruthy();
    expect(screen.getByText('120 g, €0.30')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Open it again' }));
    await waitFor(() => expect(api.writes()[0]!.body).toMatchObject({ kind: 'undo', target: closing.id }));
  });
});
