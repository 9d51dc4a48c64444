import { usualRoute } from '@schmelz/core';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, products, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { TicketPage } from './TicketPage.tsx';

// A ticket by its log alone: what its page says is counted here by hand.
type Entry = ReturnType<typeof ticket>['log'][number];
const AT = Date.UTC(2026, 2, 6, 18);
let nth = 0;
const said = (kind: string, more: object = {}): Entry => {
  nth += 1;
  return { id: `e${nth}`, at: AT + 60_000 * nth, kind, ...more } as unknown as Entry;
};
const good = (step: string, count: number) => said('good', { step, count });
const reject = (step: string, count: number, cause: string) => said('reject', { step, count, cause, goes: 'melt' });

beforeEach(() => {
  prepareBrowser();
  nth = 0;
});
afterEach(cleanup);

async function open(more: Parameters<typeof ticket>[0], others: Record<string, unknown> = {}) {
  const api = fakeApi({ [`GET /tickets/${ids.ticket}`]: ticket(more), ...others });
  renderAt(<TicketPage />, `/tickets/${ids.ticket}`, '/tickets/:id');
  await screen.findByText('Along the line');
  return api;
}
const bare = usualRoute({ painted: false, baked: false });
const cells = (name: string) => {
  const found = screen.getAllByRole('row').find((row) => (row as HTMLTableRowElement).cells[0]?.textContent === name);
  return [...(found as HTMLTableRowElement).cells].slice(1).map((cell) => cell.textContent);
};

test('each step with what came, what was good and why the rest was thrown back', async () => {
  const log = [good('trim', 9), reject('trim', 2, 'flash'), reject('trim', 1, 'bent hook')];
  await open({ route: bare, log, poured: 12, pourCauses: { short: 3, wrinkled: 1 } });
  expect(cells('Pour').slice(0, 3)).toEqual(['16', '12', '3 short, 1 wrinkled']);
  const [trim, last] = [bare[0]!.does, bare.at(-1)!.does];
  expect(cells(trim).slice(0, 3)).toEqual(['12', '9', '2 flash, 1 bent hook']);
  expect(cells(last).slice(0, 3)).toEqual(['9', '0', '']);
});

test('plan beside what came: casts, yield and metal by the record', async () => {
  await open({ route: bare, poured: 12, pourCauses: { short: 3, wrinkled: 1 } });
  expect(cells('Casts')).toEqual(['14', '16']);
  // 12 of 16 at the pot.
  expect(cells('Yield at the pot')).toEqual(['94 %', '75 %']);
  // 12 heads at 10 g each were planned, and 120 g went.
  expect(cells('Keel lead')[0]).toMatch(/^120 g$/);
  expect(cells('Keel lead')[1]).toMatch(/^120 g, .*0\.30/);
  expect(cells('Hands-on')).toEqual(['20 min', '25 min']);
});

test('heads off the shelf are taken, not poured', async () => {
  await open({
    ...{ source: 'shelf', fromId: ids.hook, poured: 0, pourCauses: {}, route: bare },
    log: [said('take', { count: 12 })],
  });
  expect(cells('Off the shelf').slice(0, 2)).toEqual(['12', '12']);
  expect(screen.queryByText('Pour')).toBeNull();
});

test('where its work is now is the next thing, by its words', async () => {
  await open({ route: bare, log: [good('trim', 12)] });
  const on = screen.getByRole('link', { name: `On to ${bare[1]!.does.toLowerCase()}` });
  expect(on.getAttribute('href')).toContain(ids.ticket);
});

test('before the pour nothing is missing; it goes to the pot that is open for it', async () => {
  await open({ route: bare, poured: 0, pourClosed: false, pourCauses: {}, missing: 12, toCast: 12 });
  expect(screen.queryByText(/missing:/)).toBeNull();
  expect(screen.getByRole('link', { name: 'On to pour' }).getAttribute('href')).toBe(`/pour/${ids.pour}`);
});

describe('a ticket whose product has become another', () => {
  const grown = [{ ...products[0]!, name: 'Pebble, new', hookId: null }, products[1]!];
  test('says what is other, and makes its heads so too when that is asked', async () => {
    const kept = ticket();
    const api = await open(
      { poured: 0, pourId: null, pourClosed: false, pourCauses: {} },
      { 'GET /products': grown, [`POST /tickets/${ids.ticket}/product`]: kept },
    );
    const section = within(await screen.findByRole('region', { name: 'Its product is another now' }));
    const rows = section.getAllByRole<HTMLTableRowElement>('row').slice(1);
    expect(rows.map(({ cells }) => [...cells].map((cell) => cell.textContent))).toEqual([
      ['its name', 'Pebble 10 g, roe on gull', 'Pebble, new'],
      ['its hook', 'Hook 2/0', 'none'],
    ]);
    await userEvent.click(section.getByRole('button', { name: 'Make these heads so too' }));
    await waitFor(() => expect(api.writes().map(({ path }) => path)).toEqual([`/tickets/${ids.ticket}/product`]));
  });
  test('of heads that are cast it says why not', async () => {
    await open({}, { 'GET /products': grown });
    expect(await screen.findByText(/cast already: head and hook stay/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Make these heads so too' })).toBeNull();
  });
  test('where all is as it was, nothing is said', async () => {
    await open({});
    expect(screen.queryByText('Its product is another now')).toBeNull();
  });
});

describe('a ticket that can be closed', () => {
  const done = [good('trim', 12), ...bare.slice(1).map(({ key }) => good(key, 12))];
  test('is closed in one tap', async () => {
    const api = await open({ route: bare, log: done });
    await userEvent.click(screen.getByRole('button', { name: 'Close the ticket' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({ path: `/tickets/${ids.ticket}/entries`, body: { kind: 'close' } });
  });

  test('short of what was wanted, it says so on the key, and casting more is the first thing', async () => {
    const log = [good('trim', 10), reject('trim', 2, 'flash'), ...bare.slice(1).map(({ key }) => good(key, 10))];
    await open({ route: bare, log, missing: 2, toCast: 2 });
    expect(screen.getByText(/2 missing: 12 are wanted, 10 came out/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Cast 2 more' }).getAttribute('href')).toBe('/pour');
    expect(screen.getByRole('button', { name: 'Close it, 2 short' })).toBeTruthy();
  });

  test('a refusal to close is said, and the key stays', async () => {
    const no = refuse(409, { title: 'Not possible', detail: 'A head is still in the oven.' });
    await open({ route: bare, log: done }, { [`POST /tickets/${ids.ticket}/entries`]: no });
    await userEvent.click(screen.getByRole('button', { name: 'Close the ticket' }));
    expect(await screen.findByText(/still in the oven/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Close the ticket' })).toBeTruthy();
  });
});

describe('a ticket that is closed', () => {
  const closing = said('close');
  const perHead = {
    ...{ lead: 3, hook: 16, powder: 1, parts: 0, packaging: 0, dross: 0, energy: 1, work: 40, wear: 0 },
  };
  const closed = (more: object = {}) => {
    const log = [good('trim', 12), ...bare.slice(1).map(({ key }) => good(key, 12)), { ...closing, at: AT + 3600_000 }];
    const actual = { ...ticket().actual, cost: { ...ticket().actual.cost, perHead } };
    return { route: bare, log, actual, ...more } as Parameters<typeof ticket>[0];
  };
  test('says what one head cost, and what it brings at its price', async () => {
    await open(closed());
    // 3 + 16 + 1 + 1 + 40 of a hundred; sold at 1.95.
    expect(screen.getAllByText(/61/).length).toBeGreaterThan(0);
    expect(screen.getByText(/is what one Pebble 10 g cost/)).toBeTruthy();
    expect(screen.getByText(/a head brings/).textContent).toMatch(/1\.95.*1\.34/);
    expect(cells('One head')[1]).toMatch(/0\.61/);
  });

  test('one without a price brings nothing that could be told', async () => {
    const { product } = ticket();
    await open(closed({ product: { ...product, priceMinor: null } }));
    expect(screen.queryByText(/a head brings/)).toBeNull();
  });

  test('is opened again by taking its closing back', async () => {
    const api = await open(closed());
    await userEvent.click(screen.getByRole('button', { name: 'Open it again' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({ kind: 'undo', target: closing.id });
  });

  test('short, it offers to cast what is missing', async () => {
    await open(closed({ quantity: 15, missing: 3 }));
    expect(screen.getByRole('button', { name: '3 missing: open it again and cast for it' })).toBeTruthy();
    expect(screen.getByText(/Closed .*, 3 short of 15; stock has moved/)).toBeTruthy();
  });

  test('heads that nobody timed are said, at the step and at its hands', async () => {
    const log = closed()!.log!;
    const actual = { ...closed()!.actual!, notTimed: [{ step: 'trim', seconds: 300, count: 12 }] };
    await open(closed({ log, actual }));
    expect(cells('Hands-on')[1]).toBe('25 min, 5 min of it by your ways: not timed');
    const table = within(screen.getAllByRole('table')[0]!);
    expect(table.getAllByText(/\d+ not timed|\d+ (s|min)/).length).toBeGreaterThan(0);
  });
});

describe('minutes', () => {
  const hour = 3600;
  /** Twelve heads at the trim in one tap, three hours after the bench was opened. */
  const untimed = { ...good('trim', 12), sinceS: 3 * hour };
  const planned = ticket({}).planned;
  const withWays = { route: bare, poured: 12, planned: { ...planned, handsS: { trim: 11, finish: 10 } } };

  test('that nobody could tell are asked for in one line, and said with one key', async () => {
    const api = await open({ ...withWays, log: [untimed] });
    const asked = within(screen.getByRole('list', { name: 'Not timed' }));
    expect(asked.getByText(/12 heads took 3 h.*: all of it work\?/)).toBeTruthy();
    await userEvent.click(asked.getByRole('button', { name: 'All of it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      path: `/tickets/${ids.ticket}/entries`,
      body: { kind: 'minutes', step: 'trim', seconds: 3 * hour },
    });
  });

  test('are put right by hand; what is no number is said so, and nothing is sent', async () => {
    const api = await open({ ...withWays, log: [{ ...good('trim', 12), sinceS: 130 }] });
    expect(screen.queryByRole('list', { name: 'Not timed' })).toBeNull();
    await userEvent.click(screen.getAllByTitle('Put these minutes right')[0]!);
    const field = screen.getByRole('textbox', { name: /Hands at trim/ });
    await userEvent.clear(field);
    await userEvent.type(field, 'ten');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/minutes at trim is "ten"/);
    expect(api.writes()).toEqual([]);
    await userEvent.clear(field);
    await userEvent.type(field, '7');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({ kind: 'minutes', step: 'trim', seconds: 420 });
  });
});
