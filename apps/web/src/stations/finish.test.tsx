import type { BakeOnRecord } from '@schmelz/contract';
import { expose } from 'comlink';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { bakedHead, type Reading } from '@schmelz/core';
import { ids, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, renderAt } from '../test/render.tsx';
import { tasks } from '../workers/tasks.ts';
import { LogPage } from './bake/LogPage.tsx';
import { PastPage } from './bake/PastPage.tsx';
import { ProgramPage } from './bake/ProgramPage.tsx';
import { HeatPage } from './paint/HeatPage.tsx';
import { OrderPage } from './paint/OrderPage.tsx';
import { SamplePage } from './trim/SamplePage.tsx';

// The worker of the browser, as a message port of this process.
jest.mock('../workers/start.ts', () => ({
  startFitWorker: () => {
    const { port1, port2 } = new MessageChannel();
    expose(tasks, port1 as never);
    return Object.assign(port2, { terminate: () => port2.close() });
  },
}));

beforeEach(prepareBrowser);
const number = async () => (await screen.findByRole('heading', { level: 1 })).parentElement!.textContent;

describe('Bake', () => {
  test('the shortest program under the finish, and what the common schedules are worth', async () => {
    fakeApi();
    renderAt(<ProgramPage />);
    expect(await number()).toMatch(/^\d+minset to 1\d\d °C, the oven cures all of it/);
    const row = (name: RegExp) => within(screen.getByRole('row', { name }));
    expect(row(/121 °C, 20 min/).getByText(/hardly begun/)).toBeTruthy();
    // One label line only: the prior of 70 kJ/mol makes it less than half.
    const half = Number(/(\d+) %/.exec(screen.getByRole('row', { name: /149 °C, 25 min/ }).textContent)![1]);
    expect(half).toBeGreaterThan(15);
    expect(half).toBeLessThan(45);
    const hot = Number(/^\d+/.exec((await number())!)![0]);
    await userEvent.click(screen.getByRole('radio', { name: 'From cold' }));
    await waitFor(async () => expect(Number(/^\d+/.exec((await number())!)![0])).toBeGreaterThan(hot));
    await userEvent.click(screen.getAllByRole('checkbox', { checked: true })[0]!);
    expect(await number()).toMatch(/^–pick what is baked together/);
  });

  const head = bakedHead(ticket().product, 'bake');
  test('past bakes: one that was taken out too early is found, with its month', async () => {
    const at = Date.UTC(2026, 7, 14, 19);
    const load = {
      id: 'l',
      ticketNumber: 101,
      productId: ticket().productId,
      step: 'bake',
      heads: 12,
      setC: 150,
      head,
    };
    const bake: BakeOnRecord = { ...load, preheated: true, doors: [], loadedAt: at, unloadedAt: at + 900_000 };
    fakeApi({ 'GET /bakes': [bake] });
    renderAt(<PastPage />);
    expect(await number()).toMatch(/^12heads went out under-cured, of 12 baked/);
    expect(screen.getByText(reads(/Worst in August 2026: 12 of 12 heads/))).toBeTruthy();
    expect(screen.getByRole('cell', { name: /150 °C, 15 min/ })).toBeTruthy();
  });

  test('one load that nothing can be reckoned from is named and left out; a year that was asked for is asked of the server', async () => {
    const at = Date.UTC(2025, 7, 14, 19);
    const load = {
      id: 'l',
      ticketNumber: 101,
      productId: ticket().productId,
      step: 'bake',
      heads: 12,
      setC: 150,
      head,
    };
    const bake: BakeOnRecord = { ...load, preheated: true, doors: [], loadedAt: at, unloadedAt: at + 900_000 };
    const odd = { ...bake, id: 'm', ticketNumber: 102, setC: 4000 };
    const booked = { from: Date.UTC(2024, 3, 1), to: Date.UTC(2026, 3, 1) };
    const api = fakeApi({ 'GET /bakes': [bake, odd], 'GET /books/period': booked });
    renderAt(<PastPage />, '/bake/past?year=2025', '/bake/past');
    expect(await number()).toMatch(/^12heads went out under-cured, of 12 baked in 2025/);
    expect(screen.getByRole('alert').textContent).toMatch(/the load of ticket 102 on 14 Aug 2025 \(airC is 4000 °C/);
    const asked = new URLSearchParams(api.sent.find(({ path }) => path.startsWith('/bakes'))!.path.split('?')[1]);
    expect(['from', 'to'].map((name) => new Date(Number(asked.get(name))).getFullYear())).toEqual([2025, 2026]);
    const years = within(await screen.findByRole('navigation', { name: 'Which year' })).getAllByRole('link');
    expect(years.map((link) => link.textContent)).toEqual(['Twelve months', '2026', '2025', '2024']);
    expect(years.map((link) => link.getAttribute('aria-current'))).toEqual([null, null, 'page', null]);
  });

  test('a log is read again for what hung in it; gaps are said; nothing on record says so', async () => {
    const readings: Reading[] = Array.from({ length: 30 }, (_, i) => ({
      at: i * 60_000 + (i > 20 ? 600_000 : 0),
      celsius: 177,
    }));
    const channel = {
      id: 7,
      name: 'oven',
      place: 'oven',
      source: 'evening',
      count: 30,
      firstAt: 0,
      lastAt: readings.at(-1)!.at,
      lastC: 177,
    };
    fakeApi({ 'GET /channels': [channel], 'GET /readings/raw?channel=7': readings });
    renderAt(<LogPage />);
    await screen.findByText(/11 min of it are gaps/);
    const inAir = Number(/^\d+/.exec((await number())!)![0]);
    await userEvent.click(screen.getByRole('radio', { name: 'In a head' }));
    await waitFor(async () => expect(Number(/^\d+/.exec((await number())!)![0])).toBeGreaterThan(inAir));
  });
});

describe('Paint', () => {
  test('seconds by tool and coat; a count that came out right is kept and makes the gun known', async () => {
    const api = fakeApi({ 'GET /records/heating': [] });
    renderAt(<HeatPage />);
    const seconds = async () => Number(/^\d+/.exec((await number())!)![0]);
    const gun = await seconds();
    expect(gun).toBeGreaterThan(10);
    await userEvent.click(screen.getByRole('radio', { name: 'Second' }));
    expect(await seconds()).toBeLessThan(gun);
    await userEvent.click(screen.getByRole('radio', { name: 'First head' }));
    expect(await seconds()).toBeGreaterThan(gun);
    await userEvent.click(screen.getByRole('radio', { name: 'torch' }));
    expect(await seconds()).toBeLessThan(gun);
    await userEvent.type(screen.getByLabelText(/^Seconds for/), 'long');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this count' }));
    expect((await screen.findByRole('alert')).textContent).toContain('seconds is "long"; allowed: a number');
    await userEvent.clear(screen.getByLabelText(/^Seconds for/));
    await userEvent.type(screen.getByLabelText(/^Seconds for/), '6');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this count' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'heating', tool: 'torch', seconds: 6 }));
  });

  test('counts on record are read as the maker’s own gun', async () => {
    const count = (n: number) => ({
      id: `c${n}`,
      kind: 'heating',
      thingId: ids.product,
      at: n,
      tool: 'heat gun',
      seconds: 30,
      struck: n === 4,
    });
    fakeApi({ 'GET /records/heating': [1, 2, 3, 4].map(count) });
    renderAt(<HeatPage />);
    expect(await screen.findByText(/Your gun, from 3 counts/)).toBeTruthy();
    expect(Number(/^\d+/.exec((await number())!)![0])).toBeGreaterThan(20);
  });

  test('the metronome runs and stops on Space', async () => {
    fakeApi({ 'GET /records/heating': [] });
    renderAt(<HeatPage />);
    await screen.findByRole('region', { name: 'Metronome' });
    await userEvent.keyboard(' ');
    expect(await screen.findByText('head 1')).toBeTruthy();
    await userEvent.keyboard(' ');
    await waitFor(() => expect(screen.queryByText('head 1')).toBeNull());
  });

  test('the order of colours is worked out beside the page, with what each step brings', async () => {
    fakeApi();
    renderAt(<OrderPage />);
    const list = await screen.findByRole('list', { name: 'Order of colours' });
    await waitFor(() => expect(within(list).getAllByRole('listitem').length).toBeGreaterThan(0));
    expect(await screen.findByText(/The best order there is/)).toBeTruthy();
    expect(within(list).getAllByRole('button', { name: /^Move .*, number 1$/ })).toHaveLength(1);
  });
});

describe('Trim', () => {
  test('heads on the scale: the mean beside what was reckoned, what it says, one struck out', async () => {
    const sample = (n: number, massKg: number, position: number, struck = false) => ({
      id: `s${n}`,
      kind: 'sample',
      thingId: ids.product,
      at: n,
      position,
      massKg,
      struck,
    });
    const light = [0.0103, 0.01032, 0.01028].map((kg, i) => sample(i, kg, 1));
    const right = [0.0107, 0.01071, 0.01069].map((kg, i) => sample(10 + i, kg, 2));
    const api = fakeApi({
      [`GET /records/sample?thing=${ids.product}`]: [...light, ...right, sample(20, 0.02, 2, true)],
    });
    renderAt(<SamplePage />);
    await screen.findByText(/is the mean of 6; reckoned 10/);
    expect(screen.getByText(/Cavity 1 is 4.0 % lighter than its fellows/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText('It weighs'), 'heavy');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this weight' }));
    expect((await screen.findByRole('alert')).textContent).toContain('mass is heavy');
    await userEvent.clear(screen.getByLabelText('It weighs'));
    await userEvent.type(screen.getByLabelText('It weighs'), '10.7 g');
    await userEvent.selectOptions(screen.getByLabelText('Out of cavity'), '2');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this weight' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ kind: 'sample', position: 2, massKg: expect.closeTo(0.0107, 9) }),
    );
  });
});
