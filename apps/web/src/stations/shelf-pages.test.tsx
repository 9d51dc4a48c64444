import type { TicketOnList } from '@schmelz/contract';
import { COST_PARTS, type CostStack } from '@schmelz/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, molds, order, products, ticket, settings } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../test/render.tsx';
import { BooksPage } from './books/BooksPage.tsx';
import { MoldPage } from './molds/MoldPage.tsx';
import { MoldsPage } from './molds/MoldsPage.tsx';
import { OrderGridPage } from './orders/OrderGridPage.tsx';
import { ProductGridPage } from './products/GridPage.tsx';
import { ProductsPage } from './products/ProductsPage.tsx';
import { SetupPage } from './setup/SetupPage.tsx';
import { StartPage } from './start/StartPage.tsx';
import { StockPage } from './stock/StockPage.tsx';

beforeEach(prepareBrowser);

describe('shelf, molds, books and setup', () => {
  test('stock: a purchase, a weighing, what it was paid', async () => {
    const api = fakeApi({
      [`GET /materials/${ids.lead}/moves`]: [
        {
          id: 1,
          at: 0,
          materialId: ids.lead,
          reason: 'received',
          quantity: 12.5,
          valueMinor: 3125,
          ticketNumber: null,
          lot: 'keel',
        },
      ],
    });
    renderAt(<StockPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'As a list, with what was paid' }));
    expect(await screen.findByText('€2.50/kg')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /Keel lead/ }));
    const sheet = within(await screen.findByRole('dialog'));
    expect(await sheet.findByText('+12.5 kg')).toBeTruthy();
    await userEvent.type(sheet.getByLabelText('How much'), '5 lb');
    await userEvent.type(sheet.getByLabelText('Paid for all of it, EUR'), '6.50');
    await userEvent.click(sheet.getByRole('button', { name: 'It came in' }));
    await waitFor(() =>
      expect(api.writes()[0]).toMatchObject({
        path: `/materials/${ids.lead}/receipts`,
        body: { quantity: expect.closeTo(2.268, 3), priceMinor: 650 },
      }),
    );
  });

  test('a new powder is sent with its label in seconds and Celsius', async () => {
    const api = fakeApi({ 'POST /materials': materials[2] });
    renderAt(<StockPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'New material' }));
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.selectOptions(sheet.getByLabelText('Kind'), 'powder');
    await userEvent.type(sheet.getByLabelText('Name'), 'Tar');
    const second = sheet.getByLabelText('Second line: temperature');
    await userEvent.clear(second);
    await userEvent.click(sheet.getByRole('button', { name: 'Add it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({
      kind: 'powder',
      name: 'Tar',
      hook: null,
      metalId: null,
      powder: { label: [{ metalC: 177, seconds: 1200 }] },
    });
  });

  test('a cavity that gives shorts is marked; a mold is changed with its version', async () => {
    const api = fakeApi({ [`PUT /molds/${ids.mold}`]: molds[0] });
    const { unmount } = renderAt(<MoldsPage />);
    expect(await screen.findByText('70 %')).toBeTruthy();
    expect(screen.getByText('no record')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Three' }).getAttribute('href')).toBe(`/molds/${ids.mold}`);
    unmount();
    renderAt(<MoldPage />, `/molds/${ids.mold}`, '/molds/:id');
    await userEvent.click(await screen.findByRole('button', { name: 'Change this mold' }));
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.selectOptions(sheet.getAllByLabelText('It is')[1]!, 'blocked');
    await userEvent.click(sheet.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({
      version: 1,
      bodyKg: 0.5,
      cavities: [{ condition: 'good' }, { condition: 'blocked', position: 2 }, { condition: 'good' }],
    });
  });

  test('books: what one head cost over all closed tickets', async () => {
    const perHead = Object.fromEntries(COST_PARTS.map((part) => [part, 62 / COST_PARTS.length])) as CostStack;
    const one = { id: 'a', number: 101, productId: ticket().productId, quantity: 12, good: 12, totalMinor: 744 };
    const closed: TicketOnList = { ...one, perHead, closedAt: 1 };
    fakeApi({ 'GET /tickets': [closed, { ...closed, id: 'other', closedAt: null }] });
    renderAt(<BooksPage />);
    expect(await screen.findByText(/12 heads in 1 closed tickets, €7.44/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Everything as JSON' }).getAttribute('href')).toBe('/api/export');
  });

  test('books: a ticket that nobody timed is marked, and led to', async () => {
    const perHead = Object.fromEntries(COST_PARTS.map((part) => [part, 62 / COST_PARTS.length])) as CostStack;
    const one = { id: 'a', number: 101, productId: ticket().productId, quantity: 12, good: 12, totalMinor: 744 };
    const timed: TicketOnList = { ...one, perHead, closedAt: 1 };
    fakeApi({ 'GET /tickets': [timed, { ...timed, id: 'b', number: 102, notTimed: true }] });
    renderAt(<BooksPage />);
    const link = await screen.findByRole('link', { name: 'Say what ticket 102 took' });
    expect(link.getAttribute('href')).toBe('/tickets/b');
    expect(screen.getByText(/^One ticket was not timed at some step/)).toBeTruthy();
    const marked = screen.getAllByRole('row').filter((row) => row.textContent!.includes('not timed'));
    expect(marked.map((row) => row.textContent!.slice(0, 3))).toEqual(['102']);
  });

  test('books: a long year lists its last tickets first, all of them when asked', async () => {
    const perHead = Object.fromEntries(COST_PARTS.map((part) => [part, 62 / COST_PARTS.length])) as CostStack;
    const tickets = Array.from({ length: 40 }, (_, i): TicketOnList => {
      const of = { productId: ticket().productId, quantity: 12, good: 12, totalMinor: 744, perHead };
      return { id: `t${i}`, number: 200 - i, closedAt: 1e12 - i, ...of };
    });
    fakeApi({ 'GET /tickets': tickets });
    renderAt(<BooksPage />);
    const listed = () => screen.getAllByRole('row').length - 1;
    const all = await screen.findByRole('button', { name: 'All 40 tickets' });
    expect(listed()).toBe(25);
    await userEvent.click(all);
    expect(listed()).toBe(40);
    await userEvent.click(screen.getByRole('button', { name: 'Only the last 25' }));
    expect(listed()).toBe(25);
    expect(screen.getByText(/480 heads in 40 closed tickets/)).toBeTruthy();
  });

  test('setup: untouched figures are kept exactly when the units are switched', async () => {
    const api = fakeApi({ 'PUT /settings': {} });
    renderAt(<SetupPage />);
    await userEvent.selectOptions(await screen.findByLabelText('Weights and heat in'), 'oz F');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({
      massUnit: 'oz',
      temperatureUnit: 'F',
      version: 1,
      ways: { pourC: 371, heelKg: 0.8, filmM: 1e-4 },
    });
    expect(screen.getByText('/data/test')).toBeTruthy();
  });

  test('setup: seconds left empty come from the ways, those that are timed are the maker’s own', async () => {
    const api = fakeApi({
      'GET /settings': { ...settings, ways: { ...settings.ways, trimS: 9, schools: { sprue: 'shear' } } },
    });
    renderAt(<SetupPage />);
    const trim = (await screen.findByLabelText(/^Trim/)) as HTMLInputElement;
    expect(trim.value).toBe('9');
    expect((screen.getByLabelText(/^One coat/) as HTMLInputElement).value).toBe('');
    await userEvent.clear(trim);
    await userEvent.type(screen.getByLabelText(/^One coat/), '28');
    await userEvent.click(screen.getAllByRole('button', { name: 'Keep this' })[0]!);
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ ways: { trimS: null, coatS: 28, schools: { sprue: 'shear' } } }),
    );
  });

  test('setup: a way out of range is named', async () => {
    const api = fakeApi();
    renderAt(<SetupPage />);
    const pour = await screen.findByLabelText('Pour at');
    await userEvent.clear(pour);
    await userEvent.type(pour, '1200 F');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(
      /ways.pourC is 649 °C; allowed: a number from 330 °C to 480 °C/,
    );
    expect(api.writes()).toEqual([]);
  });

  test('products are drawn; a server that says no is heard', async () => {
    fakeApi({ 'POST /products': refuse(409, { title: 'Already there', detail: 'name is taken' }) });
    renderAt(<ProductsPage />);
    expect(await screen.findByRole('img', { name: 'Pebble 10 g, roe on gull' })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'New product' }));
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.type(sheet.getByLabelText('Name'), 'Pebble');
    await userEvent.click(sheet.getByRole('button', { name: 'Add the product' }));
    expect((await screen.findByRole('alert')).textContent).toContain('name is taken');
  });

  test('orders by grid: heads down, paints across; a head in a new paint becomes a product with the order', async () => {
    const api = fakeApi({
      'GET /products': [products[0]!],
      'POST /products': { ...products[0]!, id: ids.pour },
      'POST /orders': order,
    });
    const { router } = renderAt(<OrderGridPage />, '/orders/grid');
    const grid = within(await screen.findByRole('table', { name: 'Heads ordered, by head and paint' }));
    await userEvent.type(screen.getByLabelText('For whom'), 'Stall');
    await userEvent.type(grid.getByLabelText('Ball 10 g, Roe on gull: heads'), '24');
    await userEvent.type(grid.getByLabelText('Ball 10 g, Bare lead: heads'), '7');
    expect(await screen.findByText(/One of them is no product yet/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'See the plan' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`/orders/${ids.order}`));
    const [made, ordered] = api.writes();
    expect(made).toMatchObject({ path: '/products', body: { name: 'Ball 10 g', recipeId: null, bakeProgramId: null } });
    expect(ordered).toMatchObject({
      path: '/orders',
      body: {
        customer: 'Stall',
        lines: [
          { productId: ids.product, quantity: 24 },
          { productId: ids.pour, quantity: 7 },
        ],
      },
    });
  });

  test('orders by grid: half a head is refused before anything is made', async () => {
    const api = fakeApi({ 'GET /products': [products[0]!], 'POST /products': products[0]!, 'POST /orders': order });
    renderAt(<OrderGridPage />, '/orders/grid');
    await userEvent.type(await screen.findByLabelText('For whom'), 'Stall');
    await userEvent.type(screen.getByLabelText('Ball 10 g, Bare lead: heads'), '2.5');
    await userEvent.click(screen.getByRole('button', { name: 'See the plan' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/quantity/);
    expect(api.writes()).toEqual([]);
  });

  test('products by grid: what is there is ticked, what is tapped is made', async () => {
    const api = fakeApi({ 'GET /products': [products[0]!], 'POST /products': products[0]! });
    renderAt(<ProductGridPage />, '/products/grid');
    const grid = within(await screen.findByRole('table', { name: 'Products by head and paint' }));
    const there = grid.getByRole('button', { name: 'Ball 10 g, Roe on gull: a product already' });
    expect((there as HTMLButtonElement).disabled).toBe(true);
    await userEvent.click(grid.getByRole('button', { name: 'Ball 10 g, Bare lead' }));
    await userEvent.click(screen.getByRole('button', { name: 'Make them' }));
    await waitFor(() => expect(api.writes()[0]).toMatchObject({ path: '/products', body: { name: 'Ball 10 g' } }));
  });

  test('first steps: one at a time, done ones ticked, paint can be left out', async () => {
    fakeApi({ 'GET /molds': molds, 'GET /products': [], 'GET /recipes': [], 'GET /materials': materials.slice(0, 2) });
    renderAt(<StartPage />);
    expect(await screen.findByRole('heading', { name: 'A powder' })).toBeTruthy();
    expect(screen.getAllByText('done')).toHaveLength(3);
    await userEvent.click(screen.getByRole('button', { name: /Bare lead, no paint/ }));
    expect(screen.getByLabelText('Mass stamped on the mold')).toBeTruthy();
  });
});
