import type { LocalRule, Material, Product, Supplier } from '@schmelz/contract';
import { act, cleanup, renderHook, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, ovenRun, pour, products, recipes, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../test/render.tsx';
import { AsCsv, csvOf } from './AsCsv.tsx';
import { useCatalogue, type Catalogue } from './catalogue.ts';
import { dressColour, kindsOn } from './dressed.ts';
import { benchPath, runPath } from './line-state.ts';
import { LineNav } from './LineNav.tsx';
import { leftOnShelf, useLow } from './low.ts';
import { PutAway } from './PutAway.tsx';
import { RefusedTaps } from './RefusedTaps.tsx';
import { rulesTouched } from './rules.ts';
import { RulesTouched } from './RulesTouched.tsx';
import { chooseTheme, useTheme } from './theme.ts';

beforeEach(prepareBrowser);
afterEach(cleanup);

const [lead, hook, white, orange] = materials as [Material, Material, Material, Material];
/** What is shown of a hook of React, where only that matters. */
function Probe<T>({ use, show }: { use: () => T; show: (value: T) => string }) {
  return <output>{show(use())}</output>;
}

describe('what runs low', () => {
  const seller = (days: number, ...of: string[]) =>
    ({ days, offers: of.map((materialId) => ({ materialId })) }) as unknown as Supplier;
  const used = (materialId: string, weekly: number[]) => ({ materialId, weekly });
  const low = (all: ReturnType<typeof leftOnShelf>) =>
    all.flatMap(({ materialId, why }) => (why === 'enough' ? [] : `${materialId} ${why}`));

  test('is what falls under its usual least, less what the open work still takes; what is put away does not count', () => {
    // Fewer than sixty hooks and 30 g of orange are little, 200 g of white are not.
    expect(low(leftOnShelf(materials, [], []))).toEqual([`${hook.id} low`, `${orange.id} low`]);
    const need = (heads: number) => (id: string) => (id === hook.id ? heads : 0);
    expect(low(leftOnShelf(materials, [], [], need(41)))).toContain(`${hook.id} short`);
    expect(leftOnShelf(materials, [], [], need(30))[1]).toMatchObject({ here: 40, need: 30, free: 10 });
    expect(low(leftOnShelf([{ ...orange, archived: true }], [], []))).toEqual([]);
  });

  test('comes sooner where it takes long to come, and the quickest who sells it counts', () => {
    // Six hooks a week, week after week: forty last more than six weeks.
    const weeks = used(hook.id, Array<number>(20).fill(6));
    const isLow = (suppliers: Supplier[]) => low(leftOnShelf([hook], suppliers, [weeks])).includes(`${hook.id} low`);
    expect(isLow([])).toBe(false);
    expect(isLow([seller(70, hook.id)])).toBe(true);
    expect(isLow([seller(70, hook.id), seller(3, hook.id)])).toBe(false);
    // Who sells something else is nobody for this.
    expect(isLow([seller(3, lead.id), seller(70, hook.id)])).toBe(true);
  });

  test('is not known before shelf, suppliers and use are; then by material, with what is reserved', async () => {
    fakeApi();
    const show = (map: ReturnType<typeof useLow>) =>
      map ? [...map].map(([id, { why, need }]) => `${id} ${why} ${need}`).join() : 'not known';
    renderAt(<Probe use={() => useLow(new Map([[hook.id, 41]]))} show={show} />);
    expect(screen.getByRole('status').textContent).toBe('not known');
    await waitFor(() => expect(screen.getByRole('status').textContent).not.toBe('not known'));
    expect(screen.getByRole('status').textContent!.split(',')).toEqual([
      `${lead.id} enough 0`,
      `${hook.id} short 41`,
      `${white.id} enough 0`,
      `${orange.id} low 0`,
    ]);
  });
});

describe('local rules', () => {
  const rule = (more: Partial<LocalRule>): LocalRule => ({
    ...{ id: 'r', version: 1, where: 'Mill lake', fromKg: null, belowKg: null, noLead: false, note: '' },
    ...more,
  });
  const head = (grams: number) => ({ nominalMassKg: grams / 1000 });
  test('say where a head is too heavy or too light, at the very mark too, and where no lead may be at all', () => {
    const from = [rule({ fromKg: 0.028 })];
    expect([27.9, 28, 30].map((grams) => rulesTouched(head(grams), from).length)).toEqual([0, 1, 1]);
    expect(rulesTouched(head(28), from)).toEqual(['Mill lake: too heavy for lead there.']);
    const below = [rule({ belowKg: 0.005 })];
    expect([4.9, 5, 6].map((grams) => rulesTouched(head(grams), below).length)).toEqual([1, 0, 0]);
    expect(rulesTouched(head(4), below)).toEqual(['Mill lake: too light for lead there.']);
    // One that bans all of it says only that.
    expect(rulesTouched(head(4), [rule({ noLead: true, belowKg: 0.005 })])).toEqual(['Mill lake: no lead at all.']);
    expect(rulesTouched(head(30), [...from, rule({ where: 'Dam', noLead: true })])).toHaveLength(2);
  });
  test('are said once for products that break them alike, and nothing is said where none is broken', async () => {
    fakeApi({ 'GET /rules': [rule({ fromKg: 0.028 })] });
    const first = renderAt(<RulesTouched products={[head(30), head(40)]} />);
    expect((await screen.findAllByText('Mill lake: too heavy for lead there.')).length).toBe(1);
    first.unmount();
    renderAt(<RulesTouched products={[head(10)]} />);
    await waitFor(() => expect(document.body.textContent).not.toContain('Mill lake'));
  });
});

describe('a thing that is no longer wanted', () => {
  const thing = { id: ids.mold, name: 'Three' };
  test('is asked about before it is deleted, and can be left', async () => {
    const api = fakeApi();
    renderAt(<PutAway path="molds" thing={thing} />);
    await userEvent.click(screen.getByRole('button', { name: 'Delete it, or put it away' }));
    await userEvent.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(api.writes()).toEqual([]);
    expect(screen.getByRole('button', { name: 'Delete it, or put it away' })).toBeTruthy();
  });
  test.each([
    ['Delete it', { method: 'DELETE', path: `/molds/${ids.mold}` }],
    ['Put it away', { method: 'POST', path: '/put-away', body: { kind: 'molds', id: ids.mold, archived: true } }],
  ])('%s does so, and says when it is gone', async (button, sent) => {
    const api = fakeApi();
    const gone = jest.fn();
    renderAt(<PutAway path="molds" thing={thing} onGone={gone} />);
    await userEvent.click(screen.getByRole('button', { name: 'Delete it, or put it away' }));
    await userEvent.click(screen.getByRole('button', { name: button }));
    await waitFor(() => expect(gone).toHaveBeenCalledTimes(1));
    expect(api.writes()).toMatchObject([sent]);
  });
  test('that is still named somewhere stays, and it is said by what', async () => {
    fakeApi({ [`DELETE /molds/${ids.mold}`]: refuse(409, { title: 'In use', detail: 'Pour 3 was poured in it.' }) });
    const gone = jest.fn();
    renderAt(<PutAway path="molds" thing={thing} onGone={gone} />);
    await userEvent.click(screen.getByRole('button', { name: 'Delete it, or put it away' }));
    await userEvent.click(screen.getByRole('button', { name: 'Delete it' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Pour 3 was poured in it.');
    expect(gone).not.toHaveBeenCalled();
  });
  test('a small one is deleted or stays; one that was put away comes back', async () => {
    const api = fakeApi();
    const first = renderAt(<PutAway path="suppliers" thing={thing} />);
    await userEvent.click(screen.getByRole('button', { name: 'Delete it' }));
    expect(screen.queryByRole('button', { name: 'Put it away' })).toBeNull();
    first.unmount();
    renderAt(<PutAway path="products" thing={{ ...thing, archived: true }} />);
    await userEvent.click(screen.getByRole('button', { name: 'Bring it back' }));
    await waitFor(() =>
      expect(api.writes()).toMatchObject([{ body: { kind: 'products', id: ids.mold, archived: false } }]),
    );
  });
});

describe('a table for a spreadsheet', () => {
  test('has a heading and a line a row; what one would run is kept as words', () => {
    expect(csvOf([{ month: '2026-03', heads: 12, note: '=1+1' }]).split(/\r?\n/)).toEqual([
      'month,heads,note',
      `2026-03,12,"'=1+1"`,
    ]);
    expect(csvOf([{ name: 'two, of them', none: null }]).split(/\r?\n/)[1]).toBe('"two, of them",');
  });
  test('is made when it is asked for, under its name', async () => {
    const rows = jest.fn(() => [{ a: 1 }]);
    const made: Blob[] = [];
    URL.createObjectURL = (blob) => `blob:${made.push(blob as Blob)}`;
    URL.revokeObjectURL = jest.fn();
    const clicked: string[] = [];
    jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      clicked.push(`${this.download} ${this.href}`);
    });
    renderAt(<AsCsv name="months" rows={rows} />);
    expect(rows).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'As CSV' }));
    expect(clicked).toEqual(['schmelz-months.csv blob:1']);
    expect(made[0]!.type).toBe('text/csv');
    expect(URL.revokeObjectURL).toHaveBeenCalledWith('blob:1');
  });
});

test('a tap that did not count stands with what it was, when, and why, until it is put away', async () => {
  fakeApi();
  const at = new Date(2026, 2, 6, 19, 48).getTime();
  const entry = { id: 'a', at, kind: 'good' as const, step: 'trim', count: 4 };
  const closed = jest.fn();
  const tap = { path: '/tickets/x', entry, why: 'Only 3 heads wait at trim.' };
  renderAt(<RefusedTaps taps={[tap] as never} title="One tap" onClose={closed} />);
  await screen.findByText('4 good, at trim');
  expect(screen.getByText('6 March 19:48')).toBeTruthy();
  expect(screen.getByText('Did not count, because: Only 3 heads wait at trim.')).toBeTruthy();
  await userEvent.keyboard('{Escape}');
  expect(closed).toHaveBeenCalledTimes(1);
});

describe('the light', () => {
  const shown = () => document.documentElement.dataset['theme'];
  test('goes by the place until the maker chooses, then it is the same everywhere', () => {
    const { rerender } = renderHook(({ place }: { place: 'desk' | 'bench' }) => useTheme(place), {
      initialProps: { place: 'desk' },
    });
    expect(shown()).toBe('light');
    rerender({ place: 'bench' });
    expect(shown()).toBe('dark');
    act(() => chooseTheme('light'));
    expect(shown()).toBe('light');
    rerender({ place: 'desk' });
    expect(shown()).toBe('light');
    act(() => chooseTheme('by place'));
    rerender({ place: 'bench' });
    expect(shown()).toBe('dark');
  });
});

describe('the line as the way about', () => {
  test('colours the stretch of what is hot: pot and mold where it melts and sets, oven where it bakes', async () => {
    const at = Date.now();
    const run = ovenRun({ ticketId: ids.ticket, count: 12 }, { id: 'c', at: at - 60_000 });
    const baking = ticket({ runs: [run], log: [] });
    const melting = pour({ log: [{ id: 'd', at: at - 30_000, kind: 'charge', massKg: 1.2, potC: 20 }] });
    fakeApi({ 'GET /line': { tickets: [baking], pours: [melting], runs: [run] } });
    renderAt(<LineNav bench />);
    const bar = (name: RegExp) =>
      screen.getByRole('link', { name }).querySelector(':scope > span:last-child')!.className;
    await waitFor(() => expect(bar(/^Bake/)).toContain('bg-straw'));
    expect(bar(/^Paint/)).not.toContain('bg-straw');
  });
  test('a step has its bench under its station, by its own key where that is another; a run by its kind', () => {
    expect(benchPath('trim', 't', 'trim')).toBe('/trim/t');
    expect(benchPath('trim', 't', null)).toBe('/trim/t');
    expect(benchPath('finish', 't', 'guard')).toBe('/finish/t/guard');
    expect(['oven', 'dip', 'glue'].map((kind) => runPath(kind, '1'))).toEqual([
      '/bake/load/1',
      '/paint/dip/1',
      '/finish/glue/1',
    ]);
  });
});

describe('everything that names and draws products', () => {
  async function catalogueOf(more: Record<string, unknown> = {}): Promise<Catalogue> {
    fakeApi(more);
    let found: Catalogue | null = null;
    renderAt(<Probe use={() => (found = useCatalogue())} show={(each) => (each ? 'read' : 'not read')} />);
    await screen.findByText('read');
    return found!;
  }
  test('what is put away is on no list, and is still found by who names it', async () => {
    const away = { ...products[1]!, archived: true };
    const catalogue = await catalogueOf({ 'GET /products': [products[0], away] });
    expect(catalogue.products.map(({ id }) => id)).toEqual([ids.product]);
    expect(catalogue.putAway.map(({ id }) => id)).toEqual([ids.bare]);
    expect(catalogue.product(ids.bare)?.name).toBe('Pebble 10 g, bare');
    expect(catalogue.product('none')).toBeUndefined();
  });
  test('a head is drawn with its hook, in its paint; a bare one in none', async () => {
    const catalogue = await catalogueOf();
    const [painted, bare] = products as [Product, Product];
    expect(catalogue.spec(painted)).toMatchObject({ style: 'ball', massKg: 0.01, hookSize: '2/0', eyeAngleDeg: 60 });
    expect(catalogue.spec({ ...bare, hookId: null })).toMatchObject({ hookSize: null, eyeAngleDeg: 60 });
    expect(catalogue.paint(painted)).toMatchObject({ base: { colour: '#ece7d8' }, back: { colour: '#dd5f33' } });
    expect(catalogue.paint(bare).base ?? null).toBeNull();
    expect(dressColour(catalogue.known(painted))).toBe('#dd5f33');
    expect(dressColour(catalogue.known(bare))).toBe('var(--lead)');
    expect(catalogue.layers(recipes[0]!).map(({ powder }) => powder.name)).toEqual(['Gull white', 'Roe orange']);
    expect(catalogue.known(painted)).toBe(catalogue.known(painted));
  });
  test('parts are on a head once their step is done; what is cast in from the beginning', async () => {
    const guard = { ...hook, id: 'guard', kind: 'guard' } as Material;
    const eyelet = { ...hook, id: 'eyelet', kind: 'eye' } as Material;
    const catalogue = await catalogueOf({ 'GET /materials': [...materials, guard, eyelet] });
    const route = [
      { key: 'trim', station: 'trim', does: 'Trim' },
      { key: 'guard', station: 'finish', does: 'Guard in' },
    ];
    const part = (partId: string, step: string) => ({ partId, step, quantity: 1 });
    const dressed = { ...products[1]!, route, parts: [part('guard', 'guard'), part('eyelet', 'pour')] } as Product;
    expect(kindsOn(catalogue.known(dressed), 'trim')).toEqual(['eye']);
    expect(kindsOn(catalogue.known(dressed), 'guard')).toEqual(['guard', 'eye']);
    expect(kindsOn(catalogue.known(dressed))).toEqual(['guard', 'eye']);
    expect(white.kind).toBe('powder');
  });
});
