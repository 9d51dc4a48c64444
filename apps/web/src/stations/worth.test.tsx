import type { CostOfProduct, LocalRule, Tool } from '@schmelz/contract';
import { COST_PARTS, type ChangedCost, type CostStack, type Makeable } from '@schmelz/core';
import { expose } from 'comlink';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, products } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { CostPage } from './books/CostPage.tsx';
import { ToolForm } from './books/ToolForm.tsx';
import { MakePage } from './buy/MakePage.tsx';
import { Rules } from './setup/Rules.tsx';

// What a head costs, what can be made of what is here, tools and local rules: pages with a made-up server, and the
// worker of the browser as a message port of this process.
let made: { heads: { id: string; count: number }[]; runsOut: string[] };
const asked: Makeable[][] = [];
let costs: ChangedCost[] = [];
jest.mock('../workers/start.ts', () => ({
  startBuyer: () => {
    const { port1, port2 } = new MessageChannel();
    const buyer = {
      make(all: Makeable[]) {
        asked.push(all);
        return made;
      },
      costs: () => costs,
      least: () => 24,
    };
    expose(buyer, port1 as never);
    return Object.assign(port2, { terminate: () => port2.close() });
  },
}));

beforeEach(() => {
  prepareBrowser();
  asked.length = 0;
});
afterEach(cleanup);

const stack = (each: number): CostStack => Object.fromEntries(COST_PARTS.map((part) => [part, each])) as CostStack;
const total = (each: number) => each * COST_PARTS.length;

describe('what one costs', () => {
  const cost = (more: Partial<CostOfProduct> = {}): CostOfProduct => ({
    ...{ input: {} as CostOfProduct['input'], actual: null, heads: 0, tickets: 0, served: [] },
    ...more,
  });
  const changed = (id: string, each: number): ChangedCost => ({
    ...{ id, says: id, stack: stack(each), totalMinor: total(each), moreMinor: total(each) - total(5) },
  });
  const open = (more: Partial<CostOfProduct> = {}, path = '/books/cost') => {
    const api = fakeApi({
      [`GET /books/cost/${ids.product}`]: cost(more),
      [`GET /books/cost/${ids.bare}`]: cost(),
    });
    return { api, ...renderAt(<CostPage />, path, '/books/cost') };
  };
  beforeEach(() => {
    costs = [changed('as it is', 5), changed('a cheaper hook', 4), changed('two coats', 7)];
  });

  test('is the first of what was reckoned; each thing otherwise says by how much it is more or less', async () => {
    open();
    const number = (await screen.findByText(/is what one costs by the plan, 60 at once/)).parentElement!;
    const euros = (minor: number) => `€${(minor / 100).toFixed(3)}`;
    expect(number.textContent).toContain(euros(total(5)));
    const [, less, more] = ['as it is', 'a cheaper hook', 'two coats'].map(
      (says) => screen.getByText(says).closest('li')!.textContent!,
    );
    expect(less).toContain(`−${euros(total(1))}`);
    expect(more).toContain(`+${euros(total(2))}`);
    expect(screen.getByText('No ticket of it was closed yet: by the plan only.')).toBeTruthy();
  });
  test('stands beside what its closed tickets came to', async () => {
    open({ actual: stack(6), heads: 31, tickets: 3 });
    const says = await screen.findByText(/Over 3 closed tickets, 31 heads, it came to/);
    expect(says.textContent).toContain(`€${(total(6) / 100).toFixed(3)}`);
  });
  test('is asked anew for another product and another number; no number is the usual one', async () => {
    const { api, router } = open();
    await screen.findByText(/60 at once/);
    const heads = screen.getByLabelText(/^At once/);
    await userEvent.clear(heads);
    await screen.findByText(/60 at once/);
    await userEvent.type(heads, '12');
    await screen.findByText(/12 at once/);
    expect(api.sent.some(({ path }) => path === `/books/cost/${ids.product}?heads=12`)).toBe(true);
    await userEvent.selectOptions(screen.getByLabelText('Product'), products[1]!.name);
    await waitFor(() => expect(router.state.location.search).toBe(`?product=${ids.bare}`));
    await waitFor(() => expect(api.sent.some(({ path }) => path.startsWith(`/books/cost/${ids.bare}?`))).toBe(true));
  });
  test('of what no mold casts is not said', async () => {
    costs = [];
    open();
    await screen.findByText(/No mold casts it as it is/);
  });
});

describe('what can be made of what is here', () => {
  const makes = [
    { id: ids.product, takes: { [ids.hook]: 1 } },
    { id: ids.bare, takes: { [ids.hook]: 1 } },
  ];
  const open = () => {
    made = {
      heads: [
        { id: ids.bare, count: 9 },
        { id: ids.product, count: 31 },
      ],
      runsOut: [ids.hook],
    };
    fakeApi({ 'GET /stock/makes': makes });
    renderAt(<MakePage />);
  };
  test('is told most first, with its sum, its worth where it has a price, and what runs out first', async () => {
    open();
    await screen.findByText(/They would be sold for/);
    expect(screen.getByText('heads can be made of what is here').parentElement!.textContent).toMatch(/^40/);
    // Thirty-one at 1.95; bare ones have no price.
    expect(screen.getByText(/They would be sold for/).textContent).toContain('€60.45');
    const links = screen.getAllByRole('link').filter((link) => link.getAttribute('href')!.includes('product='));
    expect(links.map((link) => link.textContent)).toEqual([products[0]!.name, products[1]!.name]);
    const gone = materials.find(({ id }) => id === ids.hook)!;
    expect(screen.getByText(gone.name).closest('li')!.textContent).toContain('40');
  });
  test('by money each is worth its price, by heads as much as any other, and evenly no more than a dozen', async () => {
    open();
    await screen.findByText(/They would be sold for/);
    const wish = screen.getByLabelText('What you would rather');
    expect(asked.at(-1)!.map(({ weight }) => weight)).toEqual([195, 0]);
    await userEvent.selectOptions(wish, 'as many heads as can be');
    await waitFor(() => expect(asked.at(-1)!.map(({ weight }) => weight)).toEqual([1, 1]));
    await userEvent.selectOptions(wish, 'of each no more than a dozen');
    await waitFor(() => expect(asked.at(-1)!.map(({ most }) => most)).toEqual([12, 12]));
  });
  test('nothing is said in words', async () => {
    fakeApi({ 'GET /stock/makes': [] });
    made = { heads: [], runsOut: [] };
    renderAt(<MakePage />);
    await screen.findByText(/Nothing that can be cast here has all that it takes/);
    expect(screen.getByText(/Nothing: there is more than is wanted/)).toBeTruthy();
  });
});

describe('a tool', () => {
  const fill = async (label: RegExp | string, text: string) => {
    const field = screen.getByLabelText(label);
    await userEvent.clear(field);
    if (text) await userEvent.type(field, text);
  };
  test('is kept in minor units, for everything or for one product; without an end it lasts', async () => {
    const api = fakeApi();
    renderAt(<ToolForm products={products} onSaved={() => undefined} />);
    await fill('Name', '  Gang mold ');
    await fill(/^It cost/, '89.90');
    await userEvent.selectOptions(screen.getByLabelText('Serves'), `only ${products[0]!.name}`);
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      path: '/tools',
      body: { name: 'Gang mold', priceMinor: 8990, lifeHeads: null, productIds: [ids.product] },
    });
  });
  test('that is changed keeps its version and the other products that it serves', async () => {
    const tool = {
      ...{
        id: 't',
        version: 3,
        name: 'Gang mold',
        priceMinor: 8990,
        boughtOn: '2026-01-05',
        lifeHeads: 4000,
        note: 'n',
      },
      productIds: [ids.product, ids.mold],
    } as Tool;
    const api = fakeApi();
    renderAt(<ToolForm products={products} tool={tool} onSaved={() => undefined} />);
    await fill(/^Worn out after/, '5000');
    await userEvent.selectOptions(screen.getByLabelText('Serves'), `only ${products[1]!.name}`);
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      ...{ method: 'PUT', path: '/tools/t' },
      body: { version: 3, priceMinor: 8990, lifeHeads: 5000, productIds: [ids.bare, ids.mold], note: 'n' },
    });
  });
  test.each([
    [/^It cost/, 'much'],
    [/^Worn out after/, '1.5'],
  ])('%s is a figure: %s is refused and nothing is sent', async (label, wrong) => {
    const api = fakeApi();
    renderAt(<ToolForm products={products} onSaved={() => undefined} />);
    await fill('Name', 'Pot');
    await fill(/^It cost/, '10');
    await fill(label, wrong);
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(screen.getAllByRole('alert').length).toBeGreaterThan(0));
    expect(api.writes()).toEqual([]);
  });
});

describe('what is allowed where', () => {
  const rule = (more: Partial<LocalRule>): LocalRule => ({
    ...{ id: 'r1', version: 2, where: 'Mill lake', fromKg: null, belowKg: null, noLead: false, note: '' },
    ...more,
  });
  test('is said in the units of the workshop', async () => {
    fakeApi({
      'GET /rules': [
        rule({ fromKg: 0.028 }),
        rule({ id: 'r2', where: 'Dam', belowKg: 0.005, note: 'read on the board' }),
        rule({ id: 'r3', where: 'Park', noLead: true }),
      ],
    });
    renderAt(<Rules />);
    const rows = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent);
    expect(rows).toEqual([
      'Mill lakeno lead of 28 g and more',
      'Damno lead lighter than 5 gread on the board',
      'Parkno lead',
    ]);
  });
  test('a new one asks for a mass only where one decides, read in any unit', async () => {
    const api = fakeApi();
    renderAt(<Rules />);
    await userEvent.click(await screen.findByRole('button', { name: 'Another rule' }));
    const sheet = within(await screen.findByRole('dialog'));
    expect(sheet.queryByLabelText('Mass')).toBeNull();
    await userEvent.type(sheet.getByLabelText('Where'), 'Ferry');
    await userEvent.selectOptions(sheet.getByLabelText('Not allowed there'), 'lead lighter than');
    await userEvent.type(sheet.getByLabelText('Mass'), '1 oz');
    await userEvent.click(sheet.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    // An ounce is 28.349 523 125 g (NIST SP 811, appendix B.8).
    expect(api.writes()[0]!.body).toMatchObject({ where: 'Ferry', noLead: false, fromKg: null });
    expect((api.writes()[0]!.body as { belowKg: number }).belowKg).toBeCloseTo(0.028349523125, 9);
  });
  test('one is opened as it was written down, and changed with its version', async () => {
    const api = fakeApi({ 'GET /rules': [rule({ fromKg: 0.028, note: 'asked' })] });
    renderAt(<Rules />);
    await userEvent.click(await screen.findByRole('button', { name: 'Mill lake' }));
    const sheet = within(await screen.findByRole('dialog'));
    expect((sheet.getByLabelText('Mass') as HTMLInputElement).value).toBe('28 g');
    await userEvent.selectOptions(sheet.getByLabelText('Not allowed there'), 'lead of any kind');
    await userEvent.click(sheet.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      ...{ method: 'PUT', path: '/rules/r1' },
      body: { version: 2, noLead: true, fromKg: null, belowKg: null, note: 'asked' },
    });
  });
});
