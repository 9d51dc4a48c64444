import { fillTable, type MonthOfBooks, type QualityView } from '@schmelz/contract';
import type { Shopping } from '@schmelz/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import Papa from 'papaparse';
import { ids, materials, molds, settings } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, refuse, renderAt } from '../test/render.tsx';
import { rulesTouched } from '../shell/rules.ts';
import { MetalPage } from './books/MetalPage.tsx';
import { MonthsPage, monthsCsv } from './books/MonthsPage.tsx';
import { PriceLines } from './books/PriceLines.tsx';
import { QualityPage } from './books/QualityPage.tsx';
import { shoppingCsv } from './buy/shopping-csv.ts';
import { SupplierForm } from './buy/SupplierForm.tsx';
import { Copies } from './setup/Copies.tsx';
import { CountPage } from './stock/CountPage.tsx';

beforeEach(prepareBrowser);

const month = (name: string, more: Partial<MonthOfBooks>): MonthOfBooks => ({
  ...{ month: name, toolsMinor: 0, boughtMinor: 0, soldMinor: 0, soldHeads: 0, ownHeads: 0, ownMinor: 0 },
  ...{ madeHeads: 0, tickets: 0, paperHeads: 0, costMinor: 0 },
  ...more,
});

describe('tables for a spreadsheet', () => {
  const shopping: Shopping = {
    bought: [{ offerId: 'a', materialId: 'm', supplier: '=1+1', packs: 2, quantity: 50, minor: 1120 }],
    freight: [{ supplier: '=1+1', goodsMinor: 1120, freightMinor: 490, days: 2 }],
    ...{ totalMinor: 1610, boundMinor: 1610, optimal: true, nobody: [], late: [] },
  };
  test('a list to buy holds packs, prices and freight, and no name that a spreadsheet would run', () => {
    const { data } = Papa.parse<string[]>(shoppingCsv(shopping, () => '@hook', 2));
    expect(data).toEqual([
      ['supplier', 'material', 'packs', 'in a pack', 'quantity', 'price'],
      ["'=1+1", "'@hook", '2', '25', '50', '11.20'],
      ["'=1+1", 'freight', '', '', '', '4.90'],
    ]);
  });
  test('months are written in whole money', () => {
    const { data } = Papa.parse<Record<string, string>>(monthsCsv([month('2026-05', { soldMinor: 123_45 })], 2), {
      header: true,
    });
    expect(data[0]).toMatchObject({ month: '2026-05', sold: '123.45', bought: '0.00' });
  });
});

describe('a count at the shelf', () => {
  const counted = (api: ReturnType<typeof fakeApi>) =>
    api.writes().map(({ path, body }) => [path, (body as { quantity: number }).quantity]);
  const tap = async (...keys: string[]) => {
    for (const key of keys) await userEvent.click(screen.getByRole('button', { name: key }));
  };
  test('is typed with large keys, sent once, and waits on the device while nothing answers', async () => {
    const api = fakeApi();
    renderAt(<CountPage />);
    const [first] = materials.filter(({ kind }) => kind === 'hook');
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain(first!.name);
    api.state.online = false;
    await tap('4', '2', 'Take the last digit back', '1', 'That many');
    expect(await screen.findByText('1 wait to be sent')).toBeTruthy();
    api.state.online = true;
    await waitFor(() => expect(counted(api)).toEqual([[`/materials/${first!.id}/counts`, 41]]), { timeout: 9000 });
    expect(await screen.findByText('all sent')).toBeTruthy();
  });
  test('of powder is in grams; what is refused stays until it was seen', async () => {
    const api = fakeApi({
      [`POST /materials/${ids.white}/counts`]: refuse(422, { title: 'No', detail: 'too much of it' }),
    });
    renderAt(<CountPage />);
    await screen.findByRole('heading', { level: 1 });
    while (
      !screen
        .getByRole('heading', { level: 1 })
        .textContent.includes(materials.find(({ id }) => id === ids.white)!.name)
    ) {
      await tap('Skip');
    }
    await tap('1', '5', '.', '5', 'That many');
    await waitFor(() => expect(counted(api)).toEqual([[`/materials/${ids.white}/counts`, 0.0155]]));
    expect((await screen.findByRole('alert')).textContent).toMatch(/did not count, because too much of it/);
    await tap('Seen');
    expect(screen.queryByRole('alert')).toBeNull();
  });
});

test('a supplier is sent with packs in kilograms or pieces, and a second price from so many on', async () => {
  const api = fakeApi({ 'POST /suppliers': { id: ids.order } });
  let saved = false;
  renderAt(<SupplierForm materials={materials} onSaved={() => (saved = true)} />);
  await userEvent.type(await screen.findByLabelText('Name'), 'Quay shed');
  await userEvent.click(screen.getByRole('button', { name: 'Another pack' }));
  const hook = materials.find(({ kind }) => kind === 'hook')!;
  await userEvent.selectOptions(screen.getByLabelText('Material'), hook.name);
  await userEvent.type(screen.getByLabelText('In a pack'), '25');
  await userEvent.type(screen.getByLabelText(/A pack costs/), '5,60');
  await userEvent.type(screen.getByLabelText('From so many packs'), '4');
  await userEvent.type(screen.getByLabelText(/^only/), '5');
  await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(saved).toBe(true));
  expect(api.writes()[0]!.body).toEqual({
    ...{ name: 'Quay shed', freightMinor: 0, freeAboveMinor: null, days: 3, note: '' },
    offers: [
      {
        ...{ materialId: hook.id, pack: 25 },
        prices: [
          { fromPacks: 1, minor: 560 },
          { fromPacks: 4, minor: 500 },
        ],
      },
    ],
  });
});

test('local rules are read as they were written down', () => {
  const rule = (more: object) => ({
    ...{ id: ids.order, version: 1, where: 'Lake', fromKg: null, belowKg: null, noLead: false, note: '' },
    ...more,
  });
  const of = (kg: number, more: object) => rulesTouched({ nominalMassKg: kg }, [rule(more)]);
  expect(of(0.01, { belowKg: 0.0283 })).toEqual(['Lake: too light for lead there.']);
  expect(of(0.0283, { belowKg: 0.0283 })).toEqual([]);
  expect(of(0.06, { fromKg: 0.05 })).toEqual(['Lake: too heavy for lead there.']);
  expect(of(0.01, { noLead: true })).toEqual(['Lake: no lead at all.']);
});

test('a fee that is put on the price is kept with all other settings', async () => {
  const api = fakeApi({ 'PUT /settings': settings });
  renderAt(<PriceLines settings={{ ...settings, priceLines: [{ name: 'stall', share: 0.1, of: 'price' }] }} />);
  await userEvent.type(await screen.findByLabelText('What'), 'tax');
  await userEvent.type(screen.getByLabelText(/Share/), '19');
  await userEvent.click(screen.getByRole('button', { name: 'Add it' }));
  await waitFor(() => expect(api.writes()).toHaveLength(1));
  expect((api.writes()[0]!.body as { priceLines: object[] }).priceLines).toEqual([
    { name: 'stall', share: 0.1, of: 'price' },
    { name: 'tax', share: 0.19, of: 'price' },
  ]);
});

test('months stand with what is still to come in, newest first', async () => {
  fakeApi({
    'GET /books/months': [
      month('2026-01', { toolsMinor: 30_000 }),
      month('2026-02', { soldMinor: 10_000, madeHeads: 50, costMinor: 3000 }),
    ],
  });
  renderAt(<MonthsPage />);
  expect(await screen.findByText(/are still to come in/)).toBeTruthy();
  const [, newest, oldest] = screen.getAllByRole('row');
  expect(newest!.textContent).toContain('February 2026');
  expect(newest!.textContent).toContain('€0.60');
  expect(oldest!.textContent).toContain('€300.00');
});

test('metal says what is unexplained, and an empty year says so', async () => {
  const api = fakeApi({
    'GET /books/metal': [
      {
        ...{ number: 1, closedAt: Date.UTC(2026, 4, 3), chargedKg: 2, headsKg: 1.2, sprueBackKg: 0.4 },
        ...{ rejectsBackKg: 0.1, drossKg: 0.05, heelKg: 0.2, unexplainedKg: 0.05 },
      },
    ],
    'GET /books/metal/ever': {
      ...{ since: new Date(2024, 2, 9).getTime(), pours: 41 },
      metal: {
        ...{
          chargedKg: 90,
          headsKg: 60,
          sprueBackKg: 15,
          rejectsBackKg: 5,
          drossKg: 1.5,
          heelKg: 8,
          unexplainedKg: 0.5,
        },
      },
    },
  });
  const { unmount } = renderAt(<MetalPage />);
  expect(await screen.findByRole('img', { name: /2.00 kg charged: 1.20 kg in good heads/ })).toBeTruthy();
  expect(screen.getByText(/97.5 % of what was charged is accounted for/)).toBeTruthy();
  const rows = within(screen.getByRole('region', { name: 'Metal month by month' }));
  const ever = await rows.findByRole('row', { name: /All since 9 Mar 2024/ });
  expect(ever.textContent).toMatch(/41.*90\.0.kg.*60\.0.kg.*28\.0.kg.*1\.50.kg/);
  unmount();
  expect(api.sent.some(({ path }) => /from=\d+&to=\d+/.test(path))).toBe(true);
  fakeApi({ 'GET /books/metal': [] });
  renderAt(<MetalPage />);
  expect(await screen.findByText(/No pour was closed/)).toBeTruthy();
});

test('a bad cavity is named against those that cast the same, and no other', async () => {
  const [mold] = molds;
  const cavities = mold!.cavities.map((cavity, at): QualityView['cavities'][number] => ({
    ...{ cavityId: cavity.id, moldId: mold!.id, position: cavity.position, casts: 400 },
    ...(at === 0 ? { good: 240, causes: { short: 160 } } : { good: 372, causes: { short: 28 } }),
  }));
  fakeApi({ 'GET /books/quality': { cavities, pours: [], stations: [] }, ...NOTHING_ELSE });
  renderAt(<QualityPage />);
  const alike = new Set(mold!.cavities.map(({ style, nominalMassKg }) => `${style} ${nominalMassKg}`)).size === 1;
  const found = within(await screen.findByRole('region', { name: 'What stands out' }));
  const [first] = cavities;
  const says = `${mold!.name}, cavity 1${first!.casts - first!.good} of ${first!.casts} casts were not good`;
  expect(found.queryAllByText(reads(new RegExp(`^${says}`))).length > 0).toBe(alike);
});

const NOTHING_ELSE = { 'GET /books/changes': { changes: [], people: [] }, 'GET /trace/lots': [] };

test('what changed and when is told with what went with it, who is worse by name; hands and lots stand beside each other', async () => {
  const cavities = [{ cavityId: 'c', moldId: molds[0]!.id, position: 1, casts: 60, good: 50, causes: { short: 10 } }];
  const chipped = {
    ...{ station: 'finish', cause: 'chipped', heads: 718, bad: 36, rest: { heads: 5066, bad: 22 }, chance: 1 / 4800 },
    from: { number: 159, at: Date.UTC(2026, 7, 9, 12) },
    to: { number: 168, at: Date.UTC(2026, 8, 11, 12) },
    ...{ fromFirst: false, toLast: false, lots: [] },
    meanwhile: [{ kind: 'set', key: '150', badShare: 0.917, outsideShare: 0 }],
  };
  const hand = (who: string, heads: number, bad: number, expected: number, standsOut: boolean) => {
    return { ...{ station: 'trim', who, points: 9, heads, bad, expected, chance: 0.001 }, standsOut };
  };
  const lot = (lotId: number, heads: number, bad: number) => ({
    ...{ lotId, materialId: ids.hook, kind: 'hook', lot: 'box', at: Date.UTC(2026, lotId, 5), tickets: 2, heads, bad },
    ...{ causes: {}, rest: { heads: 9, bad: 0 }, chance: 1, standsOut: false },
  });
  fakeApi({
    'GET /settings': { ...settings, temperatureUnit: 'F' },
    'GET /books/quality': { cavities, pours: [], stations: [] },
    'GET /books/changes': {
      changes: [chipped, { ...chipped, cause: 'eye closed', meanwhile: [], toLast: true }],
      people: [hand('Runa', 400, 40, 20.4, true), hand('Tevo', 380, 12, 19.6, false)],
    },
    'GET /trace/lots': [lot(3, 200, 20), lot(1, 100, 0)],
  });
  renderAt(<QualityPage />);
  const found = within(await screen.findByRole('region', { name: 'What stands out' }));
  expect(await found.findByText('More “chipped” at Finish, 9 August to 11 Sep 2026')).toBeTruthy();
  expect(
    found.getAllByText(reads(/36 of 718 heads in tickets 159 to 168; of all others 22 of 5066: 12 times as often/)),
  ).toHaveLength(2);
  // 150 °C is 302 °F.
  expect(
    found.getByText(reads(/What went with it: Baked at 302 °F: 92 % of them, and of the others none\./)),
  ).toBeTruthy();
  expect(found.getByText('More “eye closed” at Finish, since 9 Aug 2026')).toBeTruthy();
  expect(found.getByText('Nothing that is on record went with it.')).toBeTruthy();
  expect(found.getByText(/40 of 400 heads were not good; of heads like these one would expect 20\./)).toBeTruthy();
  const texts = (name: string) =>
    within(screen.getByRole('list', { name }))
      .getAllByRole('listitem')
      .map((each) => each.textContent);
  expect(texts('Trim')).toEqual(['Runa90 %40 (20)', 'Tevo97 %12 (20)']);
  expect(texts('Lots')).toEqual(['Feb 26100 %0 of 100', 'Apr 2690 %20 of 200']);
});

test('how many filled, by soot and heat of a mold, in the units of the workshop', async () => {
  const [mold] = molds;
  const cavityId = mold!.cavities[0]!.id;
  const of = (shotsSinceSmoked: number, moldC: number, casts: number, shorts: number) => {
    return { cavityId, at: 0, pourC: 371, roomC: 20, moldC, shotsSinceSmoked, casts, shorts };
  };
  const cavities = [{ cavityId, moldId: mold!.id, position: 1, casts: 60, good: 50, causes: { short: 10 } }];
  fakeApi({
    'GET /books/quality': { cavities, pours: [], stations: [] },
    ...NOTHING_ELSE,
    [`GET /molds/${mold!.id}/fill-records`]: fillTable([of(3, 60, 20, 6), of(12, 110, 30, 1), of(200, 150, 10, 3)]),
  });
  renderAt(<QualityPage />);
  const soot = within(await screen.findByRole('list', { name: 'Shots since it was smoked' }));
  expect(soot.getAllByRole('listitem').map((each) => each.textContent)).toEqual([
    '070 %6 of 20',
    '1097 %1 of 30',
    '80+70 %3 of 10',
  ]);
  const heat = within(screen.getByRole('list', { name: 'Heat of the mold before the shot, °C' }));
  expect(heat.getAllByRole('listitem').map((each) => each.textContent)).toEqual([
    '6070 %6 of 20',
    '10097 %1 of 30',
    '14070 %3 of 10',
  ]);
  expect(screen.getByText(/Heat of the metal at the gate, °C: always from 371 to 372/)).toBeTruthy();
});

test('a workshop out of a file: what would change is said before anything does, and it can be left', async () => {
  const copy = { name: 'taken-in-1.sqlite', why: 'taken-in', at: 1, bytes: 100, wrong: null };
  const tables = [
    { table: 'entries', now: 0, then: 412 },
    { table: 'orders', now: 2, then: 9 },
    { table: 'lotUses', now: 1, then: 3 },
  ];
  const api = fakeApi({
    ...{ 'GET /backups': [], 'POST /backups/take-in': { copy, tables }, 'POST /backups/restore': copy },
  });
  renderAt(<Copies />);
  const file = new File(['{"format":"schmelz-workshop"}'], 'shed.json', { type: 'application/json' });
  // A file of jsdom cannot be read as text.
  Object.assign(file, { text: () => Promise.resolve('{"format":"schmelz-workshop"}') });
  const choose = () => userEvent.upload(screen.getByLabelText(/A whole workshop out of a file/), file);
  await screen.findByText('A whole workshop out of a file');
  await choose();
  const table = within(await screen.findByRole('table', { name: 'What would change' }));
  // In a maker's words and order; what is only inside is not counted out.
  expect(table.getAllByRole('row').map((row) => row.textContent)).toEqual([
    'ofherein the file',
    'orders29',
    'taps at the benches0412',
  ]);
  expect(api.writes().map(({ path }) => path)).toEqual(['/backups/take-in']);
  await userEvent.click(screen.getByRole('button', { name: 'Leave it' }));
  expect(screen.queryByRole('table')).toBeNull();
  await choose();
  await userEvent.click(await screen.findByRole('button', { name: 'Put it in the place of this' }));
  await waitFor(() =>
    expect(api.writes().at(-1)).toMatchObject({ path: '/backups/restore', body: { name: copy.name } }),
  );
});

test('a copy is put back only when it was asked twice', async () => {
  const name = 'daily-2026-11-20.sqlite';
  const copy = { name, why: 'daily', at: Date.now() - 3.5 * 24 * 3600_000, bytes: 4.2e6, wrong: null };
  const cut = {
    ...copy,
    name: 'daily-cut.sqlite',
    at: Date.now() - 3600_000,
    wrong: 'is cut short: 20 bytes are there',
  };
  const copies = [cut, copy];
  const api = fakeApi({ 'GET /backups': copies, 'POST /backups/restore': copy });
  const { unmount } = renderAt(<Copies />);
  // One that is not whole is told as such, is not the newest, and cannot be put back.
  expect(await screen.findByText(/The newest is 3 days old/)).toBeTruthy();
  expect(screen.getByText(/This copy is cut short: 20 bytes are there: it cannot be put back/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Put back' }));
  expect(api.writes()).toEqual([]);
  await userEvent.click(screen.getByRole('button', { name: 'Put it back' }));
  await waitFor(() => expect(api.writes().map(({ body }) => body)).toEqual([{ name }]));
  unmount();
  fakeApi({ 'GET /backups': [] });
  renderAt(<Copies />);
  expect(await screen.findByText(/There is no copy yet/)).toBeTruthy();
});
