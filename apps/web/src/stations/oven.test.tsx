import type { Material, Oven } from '@schmelz/contract';
import { usualRoute } from '@schmelz/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import {
  ids,
  keptProduct,
  materials,
  ovenRun,
  ovens,
  products,
  programs,
  recipes,
  recordShelf,
  ticket,
} from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, refuse, renderAt } from '../test/render.tsx';
import { LoadsPage } from './bake/LoadsPage.tsx';
import { OvenPage } from './bake/OvenPage.tsx';
import { CountBenchPage } from '../counting/CountBench.tsx';
import { BakeBench } from './bake/BakeBench.tsx';
import { PaintBench } from './paint/PaintBench.tsx';
import { TrimBench } from './trim/TrimBench.tsx';
import { DipPage } from './paint/DipPage.tsx';
import { PaintDesk } from './paint/PaintDesk.tsx';

beforeEach(prepareBrowser);
const number = async () => (await screen.findByRole('heading', { level: 1 })).parentElement!.textContent;
const uuid = (n: number) => `30000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

describe('the oven', () => {
  const wires = { name: 'Wires', way: 'hanging' as const, bars: 2, barM: 0.092, clearM: 0.06 };
  const racked: Oven = { ...ovens[0]!, racks: [wires] };
  const toBake = ticket({
    log: [
      { id: 'a', at: 1, kind: 'good', step: 'trim', count: 12 },
      { id: 'b', at: 2, kind: 'good', step: 'paint', count: 12 },
    ],
  });

  test('loads are packed onto the racks that are there; without one it asks for it', async () => {
    fakeApi({ 'GET /ovens': [racked], 'GET /line': { tickets: [toBake], pours: [], runs: [] } });
    const { unmount } = renderAt(<LoadsPage />);
    expect(await number()).toMatch(/^2loads, by program and rack/);
    expect(
      screen
        .getAllByRole('img', { name: /^Wires with \d+ heads on 2 bars/ })
        .map((each) => /\d+/.exec(each.getAttribute('aria-label')!)![0]),
    ).toEqual(['10', '2']);
    unmount();
    fakeApi({ 'GET /line': { tickets: [toBake], pours: [], runs: [] } });
    renderAt(<LoadsPage />);
    expect((await screen.findByRole('link', { name: 'Say how your racks are built' })).getAttribute('href')).toBe(
      '/bake/oven',
    );
  });

  test('before the door is shut it is said what the program will not do', async () => {
    const program = () => ({ ...programs[0]!, setC: 121, seconds: 1200 });
    const product = keptProduct(toBake.productId, toBake.route, { ...recordShelf, program });
    fakeApi({
      'GET /ovens': [racked],
      'GET /line': { tickets: [{ ...toBake, product }], pours: [], runs: [] },
    });
    renderAt(<LoadsPage />);
    const said = await screen.findAllByText(/of a cure by the end of its program, hardly begun/);
    expect(said[0]!.textContent).toContain(products[0]!.name);
    expect(screen.getAllByRole('link', { name: 'A program that does' })[0]!.getAttribute('href')).toBe('/bake/program');
  });

  test('the bench loads as many as the rack takes; the door is said; out, it is hot', async () => {
    const id = uuid(50);
    const api = fakeApi({ 'GET /ovens': [racked], [`GET /tickets/${id}`]: { ...toBake, id } });
    renderAt(<CountBenchPage station="bake" Bench={BakeBench} />, `/bake/${id}`, '/bake/:id');
    await screen.findByText('10 heads');
    expect(screen.getByText(/10 of 12 now, 2 loads in all/)).toBeTruthy();
    await userEvent.keyboard(' ');
    await screen.findByText('Take out in');
    await userEvent.keyboard('d');
    await screen.findByText('The door is open');
    await userEvent.keyboard('d');
    await screen.findByText('Take out in');
    expect(screen.getByRole('button', { name: /^Cure so far: 0 %/ })).toBeTruthy();
    await userEvent.keyboard(' ');
    await screen.findByText(/^Taken out all the same/);
    await userEvent.keyboard(' ');
    await screen.findByText('Out, to look at');
    await waitFor(() =>
      expect(api.writes().map(({ body }) => (body as { kind: string }).kind)).toEqual([
        'load',
        'door',
        'door',
        'unload',
      ]),
    );
    expect((api.writes()[3]!.body as { coolS: number }).coolS).toBeGreaterThanOrEqual(0);
  });

  test('a program that counts from warm metal says when the metal is warm, by hand or by itself', async () => {
    const id = uuid(51);
    const metal = { id: uuid(52), at: Date.now() - 60_000, seconds: 1200, from: 'metal', warmS: 300 };
    const runs = [ovenRun({ ticketId: id, count: 12 }, metal)];
    const api = fakeApi({ [`GET /tickets/${id}`]: { ...toBake, id, runs } });
    renderAt(<CountBenchPage station="bake" Bench={BakeBench} />, `/bake/${id}`, '/bake/:id');
    await screen.findByText('Warming; take out in about');
    await userEvent.keyboard('w');
    await screen.findByText('Take out in');
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'warm', by: 'hand' }));
  });
  test('metal that has become warm says itself', async () => {
    const id = uuid(53);
    const metal = { id: uuid(54), at: Date.now() - 900_000, seconds: 1200, from: 'metal', warmS: 300 };
    const runs = [ovenRun({ ticketId: id, count: 12 }, metal)];
    const api = fakeApi({ [`GET /tickets/${id}`]: { ...toBake, id, runs } });
    renderAt(<CountBenchPage station="bake" Bench={BakeBench} />, `/bake/${id}`, '/bake/:id');
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'warm', by: 'model' }));
    // Taken back is what a person said last: the loading, not what said itself.
    await userEvent.keyboard('z');
    await waitFor(() => expect(api.writes()[1]?.body).toMatchObject({ kind: 'undo', target: metal.id }));
  });

  test('an empty run is learned from; a run that teaches nothing says why; racks come and go', async () => {
    const run = (held: number) =>
      Array.from({ length: held }, (_, i) => ({ at: i * 10_000, celsius: 170 - 150 * Math.exp(-i / 20) }));
    const channel = (id: number, source: string, count: number) => ({
      id,
      name: 'oven',
      place: 'oven',
      source,
      count,
      firstAt: 0,
      lastAt: count * 10_000,
      lastC: 170,
    });
    const api = fakeApi({
      'GET /ovens': [racked],
      'GET /channels': [channel(1, 'empty run', 300), channel(2, 'short', 15)],
      'GET /readings/raw?channel=1': run(300),
      'GET /readings/raw?channel=2': run(15),
    });
    renderAt(<OvenPage />);
    expect(await screen.findByRole('button', { name: /^Offset of the oven: -7 K/ })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Reckon with this oven' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        racks: [wires],
        learned: { offsetK: expect.closeTo(-7, 1), lagS: expect.closeTo(211, 0), setC: 177 },
      }),
    );
    await userEvent.selectOptions(screen.getByLabelText('Run'), '2');
    expect(await screen.findByText(/This run teaches nothing yet: readings is 15; allowed: 20 or more/)).toBeTruthy();
    expect(screen.getByText(reads(/^10 places$/))).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Another rack' }));
    const sheet = await screen.findByRole('dialog');
    await userEvent.type(within(sheet).getByLabelText('Name'), 'Clamp');
    await userEvent.clear(within(sheet).getByLabelText('Bars'));
    await userEvent.type(within(sheet).getByLabelText('Bars'), '70');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Put it in the oven' }));
    expect((await within(sheet).findByRole('alert')).textContent).toMatch(
      /bars is 70; allowed: a whole number from 1 to 40 bars/,
    );
    await userEvent.clear(within(sheet).getByLabelText('Bars'));
    await userEvent.type(within(sheet).getByLabelText('Bars'), '3');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Put it in the oven' }));
    await waitFor(() =>
      expect((api.writes()[1]?.body as { racks: unknown[] }).racks).toMatchObject([
        wires,
        { name: 'Clamp', bars: 3, barM: 0.3 },
      ]),
    );
  });
});

describe('at the benches', () => {
  test('liquid paint: coat after coat with its own wait, no gun and no stirring', async () => {
    const id = uuid(63);
    const liquid = (n: number, name: string, dryS: number) => ({
      ...materials.find((each) => each.id === ids.white)!,
      id: uuid(n),
      name,
      powder: { colour: '#eeeeee', gloss: 'gloss', specificGravity: 1.2, label: [], form: 'liquid', dryS },
    });
    const layers = [
      { powderId: uuid(70), zone: 'whole' as const, coats: 1 },
      { powderId: uuid(71), zone: 'whole' as const, coats: 2 },
    ];
    const parts = [liquid(70, 'Primer', 7200), liquid(71, 'Yellow', 21_600)] as Material[];
    const product = keptProduct(ids.product, usualRoute({ painted: true, baked: true }), {
      ...recordShelf,
      part: (part) => parts.find((each) => each.id === part) ?? recordShelf.part(part),
      recipe: () => ({ ...recipes[0]!, layers }),
    });
    const api = fakeApi({
      [`GET /tickets/${id}`]: ticket({
        ...{ id, product },
        log: [{ id: uuid(64), at: 1, kind: 'good', step: 'trim', count: 12 }],
      }),
    });
    renderAt(<CountBenchPage station="paint" Bench={PaintBench} />, `/paint/${id}`, '/paint/:id');
    const coats = await screen.findByRole('region', { name: 'Coats' });
    expect(
      within(coats)
        .getAllByRole('listitem')
        .map((each) => each.textContent),
    ).toEqual(['1Primerdries 2 h 00', '2Yellowdries 6 h 00', '3Yellowdries 6 h 00']);
    expect(screen.queryByRole('region', { name: 'Pace' })).toBeNull();
    expect(screen.getByText('Heads for coat 1')).toBeTruthy();
    await userEvent.keyboard(' ');
    expect(await screen.findByText('Coat 1 dries')).toBeTruthy();
    expect(await within(coats).findByText(/^wet until/)).toBeTruthy();
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ kind: 'coat', coat: 1, paint: 'Primer', dryS: 7200 }),
    );
    await userEvent.keyboard(' ');
    await screen.findByText('Coat 2 dries');
    await userEvent.keyboard(' ');
    // The last coat is on: from now on they are looked at one by one.
    await screen.findByText('Left to paint');
    expect(screen.getByText('The leader hole is clear')).toBeTruthy();
    expect(screen.queryByText(/heat gun|Its stream/)).toBeNull();
  });

  test('trim: sprues are weighed back for the pot', async () => {
    const id = uuid(60);
    const api = fakeApi({ [`GET /tickets/${id}`]: ticket({ id }) });
    renderAt(<CountBenchPage station="trim" Bench={TrimBench} />, `/trim/${id}`, '/trim/:id');
    await screen.findByText('Left to trim');
    expect(screen.getByText('A fingertip feels nothing')).toBeTruthy();
    await userEvent.keyboard('w');
    await userEvent.type(await screen.findByLabelText('They weigh'), '120 g');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this weight' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'sprue', massKg: 0.12 }));
    expect(await screen.findByText(/120 g of sprue back for the pot/)).toBeTruthy();
  });

  test('paint: the pace of this head, and stirring by the way that is followed', async () => {
    const id = uuid(61);
    const log = [{ id: uuid(62), at: 1, kind: 'good', step: 'trim', count: 12 }];
    fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log: log as never }), 'GET /records/heating': [] });
    renderAt(<CountBenchPage station="paint" Bench={PaintBench} />, `/paint/${id}`, '/paint/:id');
    const pace = await screen.findByRole('region', { name: 'Pace' });
    expect(pace.textContent).toMatch(/^1\d s under the heat gun, to 170 °C/);
    expect(screen.queryByText('Stir the jar before the next dip.')).toBeNull();
    await userEvent.keyboard(' ');
    await userEvent.keyboard(' ');
    expect(await screen.findByText('Stir the jar before the next dip.')).toBeTruthy();
    await userEvent.keyboard('m');
    expect(await screen.findByRole('button', { name: /Metronome off, head 1/ })).toBeTruthy();
  });

  test('paint: what waits for one paint at two tickets is dipped in one go, head by head and ticket by ticket', async () => {
    const [one, two] = [uuid(71), uuid(72)];
    const waits = (id: string, number: number) =>
      ticket({ id, number, log: [{ id: uuid(number), at: 1, kind: 'good', step: 'trim', count: 12 }] as never });
    const tickets = [waits(one, 101), waits(two, 102)];
    const api = fakeApi({
      'GET /line': { tickets, pours: [], runs: [] },
      'GET /records/heating': [],
      'GET /runs/dip': refuse(404, { title: 'Not found', detail: '' }),
    });
    const desk = renderAt(<PaintDesk />, '/paint');
    expect(await screen.findByText('24 heads of tickets 101, 102')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Dip them in one go' }));
    await waitFor(() => expect(desk.router.state.location.pathname).toMatch(/^\/paint\/dip\//));
    const path = desk.router.state.location.pathname;
    const id = path.split('/').pop()!;
    desk.unmount();
    fakeApi({
      'GET /line': { tickets, pours: [], runs: [] },
      'GET /records/heating': [],
      [`GET /runs/dip/${id}`]: refuse(404, { title: 'Not found', detail: '' }),
    });
    renderAt(<DipPage />, path, '/paint/dip/:id');
    const rows = within(await screen.findByRole('list', { name: 'Tickets in this paint' }));
    expect(await number()).toMatch(/[^\d]24$/);
    await userEvent.keyboard(' ');
    await userEvent.keyboard('2');
    await userEvent.keyboard('t');
    await userEvent.keyboard('g');
    await waitFor(async () => expect(await number()).toMatch(/[^\d]10$/));
    const counts = rows.getAllByRole('button').map((row) => row.textContent);
    expect(counts[0]).toMatch(/101.* 1 110$/);
    expect(counts[1]).toMatch(/102.* 12 00$/);
    await userEvent.keyboard('z');
    await waitFor(async () => expect(await number()).toMatch(/[^\d]22$/));
    await userEvent.keyboard('g');
    await userEvent.keyboard('g');
    await waitFor(async () => expect(await number()).toMatch(/[^\d]0$/));
    await userEvent.keyboard(' ');
    expect(await screen.findByRole('link', { name: 'What waits for paint' })).toBeTruthy();
    expect(api.writes()[0]!.body).toMatchObject({
      kind: 'begin',
      heads: [
        { ticketId: one, step: 'paint', count: 12 },
        { ticketId: two, step: 'paint', count: 12 },
      ],
    });
  });
});
