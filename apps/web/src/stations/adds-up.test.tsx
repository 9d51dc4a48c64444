import type { GoodsOnShelf, MonthOfBooks, Ticket } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Sale } from '@schmelz/core';
import { ids, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { MonthsPage } from './books/MonthsPage.tsx';
import { SalesPage } from './books/SalesPage.tsx';
import { GoodsPage } from './goods/GoodsPage.tsx';
import { TicketPage } from './ticket/TicketPage.tsx';

// What a page says on the whole is the sum of what it says one by one: added up here from what stands on it.
beforeEach(prepareBrowser);
afterEach(cleanup);

/** Money as it stands on a page, minor units. */
const minor = (text: string | null): number => {
  const [, sign, whole, cents] = /([-−])?€\s?([\d,]+)\.(\d\d)/.exec(text ?? '') ?? [];
  return (sign ? -1 : 1) * (Number(whole!.replaceAll(',', '')) * 100 + Number(cents));
};
const cells = (row: HTMLElement) => [...row.querySelectorAll('td')].map(({ textContent }) => textContent);
const rowsIn = (region: string) =>
  within(screen.getByRole('region', { name: region }))
    .getAllByRole('row')
    .slice(1)
    .map(cells);

describe('money month by month', () => {
  const month = (name: string, more: Partial<MonthOfBooks>): MonthOfBooks => ({
    ...{ month: name, toolsMinor: 0, boughtMinor: 0, soldMinor: 0, soldHeads: 0, ownHeads: 0, ownMinor: 0 },
    ...{ madeHeads: 0, tickets: 0, paperHeads: 0, costMinor: 0 },
    ...more,
  });
  const months = [
    month('2025-11', { toolsMinor: 25_000, boughtMinor: 8_050 }),
    month('2025-12', { boughtMinor: 1_000, soldMinor: 9_000, soldHeads: 45, madeHeads: 60, costMinor: 4_200 }),
    month('2026-01', { ownMinor: 2_000, ownHeads: 10, madeHeads: 12, paperHeads: 30, costMinor: 900 }),
    month('2026-02', { soldMinor: 31_000, soldHeads: 150, madeHeads: 140, costMinor: 9_800 }),
  ];
  const stands = (rows: (string | null)[][]) => rows.map((row) => minor(row[6]!));
  const came = (row: (string | null)[]) => minor(row[4]!);
  const went = (row: (string | null)[]) => minor(row[5]!);

  test('what stands is all that came in less all that went out until then; the newest is the number', async () => {
    fakeApi({ 'GET /books/months': months });
    renderAt(<MonthsPage />);
    await screen.findByRole('region', { name: 'Money month by month' });
    const rows = rowsIn('Money month by month').reverse();
    let sum = 0;
    expect(stands(rows)).toEqual(rows.map((row) => (sum += came(row) - went(row))));
    // By hand: 20.00 + 310.00 + 90.00 in, 330.50 + 10.00 out.
    expect(sum).toBe(42_000 - 34_050);
    expect(screen.getByText('€79.50', { selector: 'span' })).toBeTruthy();
    expect(screen.getByText(/more came in than went out/)).toBeTruthy();
    expect(screen.getByText(/has been paid since February 2026/)).toBeTruthy();
    expect(rows.map((row) => row[2]!.slice(0, 5))).toEqual(['–', '€0.70', '€0.75', '€0.70']);
  });

  test('a year is the sum of its months, and stands where its last month stands', async () => {
    fakeApi({ 'GET /books/months': months });
    renderAt(<MonthsPage />);
    await screen.findByRole('region', { name: 'Money month by month' });
    const monthly = rowsIn('Money month by month').reverse();
    await userEvent.click(screen.getByRole('button', { name: 'Year by year' }));
    const years = rowsIn('Money year by year').reverse();
    expect(years.map(([year]) => year)).toEqual(['2025', '2026']);
    for (const sum of [came, went]) {
      expect(years.map(sum)).toEqual([sum(monthly[0]!) + sum(monthly[1]!), sum(monthly[2]!) + sum(monthly[3]!)]);
    }
    expect(stands(years)).toEqual([stands(monthly)[1], stands(monthly)[3]]);
    expect(years.map((row) => row[1])).toEqual(['60', '15230 on paper']);
    // What one head cost in a year is a mean of heads: 10 700 over 152.
    expect(years[1]![2]).toMatch(/€0\.70/);
  });
});

test('sales by product and by customer are the same sales, and both are the number above them', async () => {
  const sale = (
    productId: string,
    party: string,
    heads: number,
    soldMinor: number,
    more: Partial<Sale> = {},
  ): Sale => ({
    ...{ productId, party, heads, minor: soldMinor, costMinor: 31 * heads, workMinor: 47 * heads, givenHeads: 0 },
    ...more,
  });
  fakeApi({
    'GET /books/sales': [
      sale(ids.product, 'Stall', 6, 1170),
      sale(ids.product, 'Ferry', 4, 800, { givenHeads: 2 }),
      sale(ids.bare, 'Ferry', 10, 1500),
      sale(ids.bare, '', 3, 0, { givenHeads: 3, heads: 0 }),
    ],
  });
  renderAt(<SalesPage />);
  await screen.findByRole('region', { name: 'By product' });
  const sums = (region: string) =>
    [2, 3, 4, 5].map((at) => rowsIn(region).reduce((sum, row) => sum + minor(row[at]!), 0));
  const [cameIn, parts, work, left] = sums('By product') as [number, number, number, number];
  expect(sums('By customer')).toEqual([cameIn, parts, work, left]);
  expect([cameIn, parts, work]).toEqual([3470, 31 * 23, 47 * 23]);
  expect(left).toBe(cameIn - parts - work);
  expect(screen.getByText('€34.70', { selector: '.fig *, .fig' })).toBeTruthy();
  expect(rowsIn('By customer').map(([party]) => party)).toEqual(['Ferry', 'Stall', 'nobody named']);
});

describe('the shelf of finished heads', () => {
  const lot = (ticketNumber: number | null, pieces: number) => ({
    ...{ ticketId: ticketNumber === null ? null : `t${ticketNumber}`, ticketNumber, pieces },
  });
  const goods = [
    {
      ...{ productId: ids.product, grade: 'good', pieces: 9, valueMinor: 270, wanted: 4, more: 0 },
      lots: [lot(101, 6), lot(104, 3)],
    },
    { productId: ids.bare, grade: 'good', pieces: 1, valueMinor: 25, wanted: 0, more: 0, lots: [lot(null, 1)] },
    { productId: ids.product, grade: 'second', pieces: 2, valueMinor: 31, wanted: 0, more: 2, lots: [lot(101, 2)] },
  ] as unknown as GoodsOnShelf[];
  const open = (all: GoodsOnShelf[] = goods) => {
    const api = fakeApi({ 'GET /goods': all, 'GET /goods/moves': [] });
    renderAt(<GoodsPage />);
    return api;
  };
  test('counts good ones, seconds beside them, and what both cost; tickets of a row add up to its number', async () => {
    open();
    expect((await screen.findByText('heads are finished and still here')).parentElement!.textContent).toContain('10');
    expect(screen.getByText(/Beside them 2 of second grade/).textContent).toContain('€3.26');
    const rows = screen.getAllByRole('checkbox').map((box) => box.closest('li')!);
    // First grade first, the most of it at the top.
    expect(rows.map((row) => row.querySelector('.fig:last-child')!.textContent)).toEqual(['9', '1', '2']);
    const tags = within(rows[0]!)
      .getAllByText(/^no\. /)
      .map((tag) => Number(tag.previousSibling!.textContent));
    expect(tags.reduce((sum, each) => sum + each, 0)).toBe(9);
    expect(rows[0]!.textContent).toContain('4 still ordered');
    expect(rows[1]!.textContent).toContain('found');
    expect(rows[2]!.textContent).toContain('and 2 tickets more');
  });
  test('one head is said as one, and none at all says when they come', async () => {
    open([goods[1]!]);
    await screen.findByText('head is finished and still here');
    cleanup();
    open([]);
    await screen.findByText(/^Nothing is finished and here/);
    expect(screen.getByRole('button', { name: 'Tick what goes' })).toHaveProperty('disabled', true);
  });
  test('what is ticked is what goes, first grade at its price', async () => {
    open();
    await userEvent.click((await screen.findAllByRole('checkbox'))[0]!);
    await userEvent.click(screen.getByRole('button', { name: 'Sold, given, back' }));
    const sheet = within(await screen.findByRole('dialog'));
    expect(sheet.getByText(/Pebble 10 g, roe on gull/)).toBeTruthy();
    expect(sheet.queryByText(/bare/)).toBeNull();
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getAllByRole('checkbox')[0]!);
    expect(screen.getByRole('button', { name: 'Tick what goes' })).toBeTruthy();
  });
});

describe('a ticket along the line', () => {
  const at = Date.now() - 3_600_000;
  const log = [
    { id: 'a', at, kind: 'good', step: 'trim', count: 9 },
    { id: 'b', at: at + 1000, kind: 'reject', step: 'trim', cause: 'bent hook', count: 2, goes: 'melt' },
    { id: 'c', at: at + 2000, kind: 'good', step: 'paint', count: 5 },
    { id: 'd', at: at + 3000, kind: 'reject', step: 'paint', cause: 'runs', count: 1, goes: 'scrap' },
  ] as Ticket['log'];
  async function rows() {
    fakeApi({ [`GET /tickets/${ids.ticket}`]: ticket({ log, pourCauses: { short: 2, void: 1 } }) });
    renderAt(<TicketPage />, `/tickets/${ids.ticket}`, '/tickets/:id');
    await screen.findByRole('heading', { name: 'Along the line' });
    return within(screen.getAllByRole('table')[0]!).getAllByRole('row').slice(1).map(cells);
  }
  test('what came to a step is what was good at the one before it, and what was thrown back is named', async () => {
    const all = await rows();
    const [pot, trim, paint, bake] = all.map(([, came, good]) => [Number(came), Number(good)]) as [number, number][];
    expect(pot).toEqual([12 + 3, 12]);
    expect(trim).toEqual([pot![1], 9]);
    expect(paint).toEqual([trim![1], 5]);
    expect(bake![0]).toBe(paint![1]);
    expect(all[0]![3]).toMatch(/2 short.*1 void|1 void.*2 short/);
    expect(all[1]![3]).toBe('2 bent hook');
    expect(all[2]![3]).toBe('1 runs');
  });
  test('leads on to the first step where heads wait', async () => {
    await rows();
    await waitFor(() => expect(screen.getByRole('link', { name: /^On to trim/ })).toBeTruthy());
  });
});
