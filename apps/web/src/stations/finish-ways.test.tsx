import type { JarView, Oven } from '@schmelz/contract';
import { DEFAULT_WAYS } from '@schmelz/core';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, ovens, products, recipes, settings, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, renderAt } from '../test/render.tsx';
import { LoadsPage } from './bake/LoadsPage.tsx';
import { OvenPage } from './bake/OvenPage.tsx';
import { CountBenchPage } from './count/CountBench.tsx';
import { JarsPage } from './paint/JarsPage.tsx';
import { PaintWays } from './paint/PaintDesk.tsx';
import { RecipesPage } from './paint/RecipesPage.tsx';
import { ProductsPage } from './products/ProductsPage.tsx';
import { RecipeForm } from './products/RecipeForm.tsx';
import { MaterialForm } from './stock/MaterialForm.tsx';
import { useCatalogue } from '../shell/catalogue.ts';
import { SamplePage } from './trim/SamplePage.tsx';
import { TrimWays } from './trim/TrimDesk.tsx';

beforeEach(prepareBrowser);
const number = async () => (await screen.findByRole('heading', { level: 1 })).parentElement!.textContent;
const uuid = (n: number) => `30000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

describe('off the scale', () => {
  let say: (grams: number[]) => void;
  beforeEach(() => {
    // A stream of the test's own in the place of the browser's.
    Object.assign(globalThis, {
      EventSource: class {
        onmessage = null;
        addEventListener(_: string, listener: (event: { data: string }) => void) {
          say = (grams) => act(() => listener({ data: JSON.stringify(grams.map((g, i) => ({ name: 'scale', at: Date.now() + i, kg: g / 1000 }))) })); // prettier-ignore
        }
        close() {}
      },
    });
  });
  afterEach(() => delete (globalThis as { EventSource?: unknown }).EventSource);

  test('a trimmed head is taken once it has settled, and kept with its cavity', async () => {
    const api = fakeApi({ [`GET /records/sample?thing=${ids.product}`]: [] });
    renderAt(<SamplePage />);
    await screen.findByText('nothing on the scale yet');
    say([0, 0, 8.2]);
    expect((screen.getByRole('button', { name: 'Take it' }) as HTMLButtonElement).disabled).toBe(true);
    say([10.61, 10.61, 10.62]);
    await userEvent.click(screen.getByRole('button', { name: 'Take it' }));
    expect((screen.getByLabelText('It weighs') as HTMLInputElement).value).toBe('10.61 g');
    await userEvent.selectOptions(screen.getByLabelText('Out of cavity'), '3');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this weight' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'sample', position: 3, massKg: expect.closeTo(0.01061, 6) })); // prettier-ignore
  });

  test('cut-off sprues go straight from the scale into the ticket', async () => {
    const id = uuid(65);
    const api = fakeApi({ [`GET /tickets/${id}`]: ticket({ id }) });
    renderAt(<CountBenchPage station="trim" />, `/trim/${id}`, '/trim/:id');
    await screen.findByText('Left to trim');
    await userEvent.keyboard('w');
    const sheet = await screen.findByRole('dialog');
    say([85.2, 85.21, 85.2]);
    await userEvent.click(await within(sheet).findByRole('button', { name: 'Take it' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ kind: 'sprue', massKg: expect.closeTo(0.0852, 4) }),
    );
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });
});

describe('ways', () => {
  test('the house chooses a school: its seconds, what it spoils, its caution; it is kept in the setup', async () => {
    const api = fakeApi();
    renderAt(<TrimWays />);
    expect(await number()).toMatch(/12sa head/);
    const sprue = screen.getByRole('radiogroup', { name: 'Sprue off' });
    expect(within(sprue).getByRole('radio', { checked: true }).getAttribute('aria-label')).toBe('Nipped with side cutters'); // prettier-ignore
    expect(screen.getByText(/Filings are lead/)).toBeTruthy();
    await userEvent.click(within(sprue).getByRole('radio', { name: 'Wiggled off with pliers' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, ways: { finish: { sprue: 'wiggle' } } })); // prettier-ignore
    expect(api.writes()[0]!.path).toBe('/settings');
  });

  test('a product may differ from the house, and goes back to it', async () => {
    const own = products.map((each) => (each.id === ids.product ? { ...each, ways: { eye: 'tube' as const } } : each));
    const api = fakeApi({ 'GET /products': own });
    renderAt(<PaintWays />);
    await screen.findByRole('radiogroup', { name: 'The hook’s eye' });
    await userEvent.selectOptions(screen.getByLabelText('The ways of'), ids.product);
    const eye = screen.getByRole('radiogroup', { name: 'The hook’s eye' });
    expect(within(eye).getByRole('radio', { checked: true }).getAttribute('aria-label')).toBe('Shrink tube over it');
    expect(screen.getByText('its own way')).toBeTruthy();
    // What is chosen as the house has it is no way of its own.
    await userEvent.click(within(eye).getByRole('radio', { name: 'Not dipped' }));
    await waitFor(() => expect(api.writes()[0]).toMatchObject({ path: `/products/${ids.product}`, body: { ways: null } })); // prettier-ignore
  });

  test('own seconds outrank the ways, and say so', async () => {
    fakeApi({ 'GET /settings': { ...settings, ways: { ...DEFAULT_WAYS, trimS: 9 } } });
    renderAt(<TrimWays />);
    expect(await number()).toMatch(/9sa head/);
    await userEvent.click(screen.getByRole('button', { name: /^Seconds a head/ }));
    expect(await screen.findByText(/Your own seconds, from the setup/)).toBeTruthy();
  });
});

describe('recipes', () => {
  test('side by side: powder, cost, hands; three at most', async () => {
    const more = ['Moss', 'Tar', 'Chalk'].map((name, i) => ({ ...recipes[0]!, id: uuid(i), name }));
    fakeApi({ 'GET /recipes': [...recipes, ...more], 'GET /jars': [] });
    renderAt(<RecipesPage />);
    for (const name of ['Roe on gull', 'Moss', 'Tar', 'Chalk']) await userEvent.click(await screen.findByRole('button', { name: new RegExp(`^${name}`) })); // prettier-ignore
    expect(screen.getAllByText('Powder a head')).toHaveLength(3);
    expect(screen.getByText('3 of 3 side by side')).toBeTruthy();
    // 10 g ball, 100 um of two powders, the back half: by the coverage formula some tenths of a gram.
    const powder = screen.getByRole('button', { name: /^Powder, Moss: (\d+) mg/ }).getAttribute('aria-label')!;
    expect(Number(/(\d+) mg/.exec(powder)![1])).toBeGreaterThan(100);
    expect(Number(/(\d+) mg/.exec(powder)![1])).toBeLessThan(300);
  });

  function Form() {
    const catalogue = useCatalogue();
    return catalogue && <RecipeForm catalogue={catalogue} />;
  }
  test('a mixture is said by its share; bare lead with eyes needs no layer', async () => {
    const api = fakeApi({ 'POST /recipes': { ...recipes[0] } });
    renderAt(<Form />);
    await userEvent.type(await screen.findByLabelText('Name'), 'Moss');
    await userEvent.selectOptions(screen.getByLabelText('Shaken together with'), ids.orange);
    await userEvent.clear(screen.getByLabelText(/^Of that/));
    await userEvent.type(screen.getByLabelText(/^Of that/), '99');
    await userEvent.click(screen.getByRole('button', { name: 'Add the recipe' }));
    expect((await screen.findByRole('alert')).textContent).toContain(
      'share is 0.99; allowed: a number from 0.05 to 0.95',
    );
    await userEvent.clear(screen.getByLabelText(/^Of that/));
    await userEvent.type(screen.getByLabelText(/^Of that/), '40');
    await userEvent.click(screen.getByRole('button', { name: 'Add the recipe' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ name: 'Moss', layers: [{ powderId: ids.white, zone: 'whole', mix: { powderId: ids.orange, share: 0.4 } }] })); // prettier-ignore
    await userEvent.type(screen.getByLabelText('Name'), 'Bare with eyes');
    await userEvent.selectOptions(screen.getByLabelText('Eyes'), 'yes');
    await userEvent.click(screen.getByRole('button', { name: 'Remove layer 1' }));
    await userEvent.click(screen.getByRole('button', { name: 'Add the recipe' }));
    await waitFor(() => expect(api.writes()[1]?.body).toMatchObject({ layers: [], eyeColour: '#e2d27c' }));
  });
});

describe('things on record can be changed', () => {
  test('a recipe, from where it is compared: its layers come back as they were', async () => {
    const api = fakeApi({ 'GET /jars': [], [`PUT /recipes/${ids.recipe}`]: recipes[0]! });
    renderAt(<RecipesPage />);
    await userEvent.click(await screen.findByRole('button', { name: /^Roe on gull/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Change it' }));
    const sheet = await screen.findByRole('dialog');
    await userEvent.selectOptions(within(sheet).getAllByLabelText('On')[1]!, 'nose');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Keep the recipe' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, name: 'Roe on gull', layers: [{ powderId: ids.white, zone: 'whole' }, { powderId: ids.orange, zone: 'nose' }] })); // prettier-ignore
  });

  test('a product keeps its own ways when its bake is changed to none', async () => {
    const own = products.map((each) => (each.id === ids.product ? { ...each, ways: { eye: 'tube' as const } } : each));
    const api = fakeApi({ 'GET /products': own, [`PUT /products/${ids.product}`]: own[0]! });
    renderAt(<ProductsPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Change it: Pebble 10 g, roe on gull' }));
    const sheet = await screen.findByRole('dialog');
    await userEvent.selectOptions(within(sheet).getByLabelText('Bake'), '');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Keep the product' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, bakeProgramId: null, ways: { eye: 'tube' }, priceMinor: 195, nominalMassKg: 0.01 })); // prettier-ignore
  });

  test('a powder’s label gets its second line, and nothing else of it is touched', async () => {
    const orange = materials.find((each) => each.id === ids.orange)!;
    const api = fakeApi({ [`PUT /materials/${ids.orange}`]: orange });
    renderAt(<MaterialForm material={orange} />);
    await userEvent.type(await screen.findByLabelText('Second line: temperature'), '200 C');
    await userEvent.type(screen.getByLabelText('Second line: minutes'), '10');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, kind: 'powder', name: 'Roe orange', powder: { ...orange.powder!, label: [{ metalC: 177, seconds: 1200 }, { metalC: 200, seconds: 600 }] } })); // prettier-ignore
  });
});

describe('jars', () => {
  const jar = (more: Partial<JarView>): JarView => ({ materialId: ids.white, last: { at: 1e12, massKg: 0.2 }, intervals: [], receivedKg: 0, onHeadsKg: 0, ...more }); // prettier-ignore
  test('weighed is shown as weighed, reckoned as an estimate with its range; what stays on comes from the weighings', async () => {
    const stretch = { fromAt: 0, toAt: 1, usedKg: 0.02, onHeadsKg: 0.012 };
    const api = fakeApi({ 'GET /jars': [jar({}), jar({ materialId: ids.orange, intervals: [stretch, stretch], onHeadsKg: 0.006 })] }); // prettier-ignore
    renderAt(<JarsPage />);
    expect(await number()).toMatch(/^60%of the powder taken/);
    const white = screen.getByRole('button', { name: /^Left of Gull white: 200 g/ });
    await userEvent.click(white);
    expect(await screen.findByText('As it was weighed; nothing has come or gone since.')).toBeTruthy();
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getByRole('button', { name: /^Left of Roe orange: 190 g/ }));
    expect(await screen.findByText(/an estimate until it is weighed again/)).toBeTruthy();
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getByRole('button', { name: 'Reckon with 60 %' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, ways: { transferEfficiency: 0.6 } })); // prettier-ignore
    expect(api.writes()[0]!.body).not.toHaveProperty('dataFolder');
  });

  test('a jar is weighed with or without its own weight', async () => {
    const api = fakeApi({ 'GET /jars': [jar({})] });
    renderAt(<JarsPage />);
    await userEvent.type(await screen.findByLabelText('It weighs'), '245 g');
    await userEvent.clear(screen.getByLabelText('Of that, the empty jar'));
    await userEvent.type(screen.getByLabelText('Of that, the empty jar'), '60 g');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this weight' }));
    await waitFor(() => expect(api.writes()[0]).toMatchObject({ path: `/materials/${ids.white}/counts`, body: { quantity: 0.185 } })); // prettier-ignore
  });
});

describe('the oven', () => {
  const wires = { name: 'Wires', way: 'hanging' as const, bars: 2, barM: 0.092, clearM: 0.06 };
  const racked: Oven = { ...ovens[0]!, racks: [wires] };
  const toBake = ticket({ log: [
    { id: 'a', at: 1, kind: 'good', station: 'trim', count: 12 },
    { id: 'b', at: 2, kind: 'good', station: 'paint', count: 12 },
  ] }); // prettier-ignore

  test('loads are packed onto the racks that are there; without one it asks for it', async () => {
    fakeApi({ 'GET /ovens': [racked], 'GET /line': { tickets: [toBake], pours: [] } });
    const { unmount } = renderAt(<LoadsPage />);
    expect(await number()).toMatch(/^2loads, by program and rack/);
    expect(screen.getAllByRole('img', { name: /^Wires with \d+ heads on 2 bars/ }).map((each) => /\d+/.exec(each.getAttribute('aria-label')!)![0])).toEqual(['10', '2']); // prettier-ignore
    unmount();
    fakeApi({ 'GET /line': { tickets: [toBake], pours: [] } });
    renderAt(<LoadsPage />);
    expect((await screen.findByRole('link', { name: 'Say how your racks are built' })).getAttribute('href')).toBe('/bake/oven'); // prettier-ignore
  });

  test('the bench loads as many as the rack takes; the door is said; out, it is hot', async () => {
    const id = uuid(50);
    const api = fakeApi({ 'GET /ovens': [racked], [`GET /tickets/${id}`]: { ...toBake, id } });
    renderAt(<CountBenchPage station="bake" />, `/bake/${id}`, '/bake/:id');
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
    await screen.findByText('Out, to look at');
    await waitFor(() => expect(api.writes().map(({ body }) => (body as { kind: string }).kind)).toEqual(['load', 'door', 'door', 'unload'])); // prettier-ignore
    expect((api.writes()[3]!.body as { coolS: number }).coolS).toBeGreaterThanOrEqual(0);
  });

  test('a program that counts from warm metal says when the metal is warm, by hand or by itself', async () => {
    const id = uuid(51);
    const load = { id: uuid(52), at: Date.now() - 60_000, kind: 'load', station: 'bake', count: 12, setC: 177, seconds: 1200, preheated: true, from: 'metal', warmS: 300 }; // prettier-ignore
    const api = fakeApi({ [`GET /tickets/${id}`]: { ...toBake, id, log: [...toBake.log, load] } });
    renderAt(<CountBenchPage station="bake" />, `/bake/${id}`, '/bake/:id');
    await screen.findByText('Warming; take out in about');
    await userEvent.keyboard('w');
    await screen.findByText('Take out in');
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'warm', by: 'hand' }));
  });
  test('metal that has become warm says itself', async () => {
    const id = uuid(53);
    const load = { id: uuid(54), at: Date.now() - 900_000, kind: 'load', station: 'bake', count: 12, setC: 177, seconds: 1200, preheated: true, from: 'metal', warmS: 300 }; // prettier-ignore
    const api = fakeApi({ [`GET /tickets/${id}`]: { ...toBake, id, log: [...toBake.log, load] } });
    renderAt(<CountBenchPage station="bake" />, `/bake/${id}`, '/bake/:id');
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'warm', by: 'model' }));
    // Taken back is what a person said last: the loading, not what said itself.
    await userEvent.keyboard('z');
    await waitFor(() => expect(api.writes()[1]?.body).toMatchObject({ kind: 'undo', target: load.id }));
  });

  test('an empty run is learned from; a run that teaches nothing says why; racks come and go', async () => {
    const run = (held: number) => Array.from({ length: held }, (_, i) => ({ at: i * 10_000, celsius: 170 - 150 * Math.exp(-i / 20) })); // prettier-ignore
    const channel = (id: number, source: string, count: number) => ({ id, name: 'oven', place: 'oven', source, count, firstAt: 0, lastAt: count * 10_000, lastC: 170 }); // prettier-ignore
    const api = fakeApi({
      'GET /ovens': [racked],
      'GET /channels': [channel(1, 'empty run', 300), channel(2, 'short', 15)],
      'GET /readings/raw?channel=1': run(300),
      'GET /readings/raw?channel=2': run(15),
    });
    renderAt(<OvenPage />);
    expect(await screen.findByRole('button', { name: /^Offset of the oven: -7 K/ })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Reckon with this oven' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ racks: [wires], learned: { offsetK: expect.closeTo(-7, 1), lagS: expect.closeTo(200, 0), setC: 177 } })); // prettier-ignore
    await userEvent.selectOptions(screen.getByLabelText('Run'), '2');
    expect(await screen.findByText(/This run teaches nothing yet: readings is 15; allowed: 20 or more/)).toBeTruthy();
    expect(screen.getByText(reads(/^10 places$/))).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Another rack' }));
    const sheet = await screen.findByRole('dialog');
    await userEvent.type(within(sheet).getByLabelText('Name'), 'Clamp');
    await userEvent.clear(within(sheet).getByLabelText('Bars'));
    await userEvent.type(within(sheet).getByLabelText('Bars'), '70');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Put it in the oven' }));
    expect((await within(sheet).findByRole('alert')).textContent).toMatch(/bars is 70; allowed: a whole number from 1 to 40 bars/); // prettier-ignore
    await userEvent.clear(within(sheet).getByLabelText('Bars'));
    await userEvent.type(within(sheet).getByLabelText('Bars'), '3');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Put it in the oven' }));
    await waitFor(() => expect((api.writes()[1]?.body as { racks: unknown[] }).racks).toMatchObject([wires, { name: 'Clamp', bars: 3, barM: 0.3 }])); // prettier-ignore
  });
});

describe('at the benches', () => {
  test('liquid paint: coat after coat with its own wait, no gun and no stirring', async () => {
    const id = uuid(63);
    const liquid = (n: number, name: string, dryS: number) => ({ ...materials.find((each) => each.id === ids.white)!, id: uuid(n), name, powder: { colour: '#eeeeee', finish: 'gloss', specificGravity: 1.2, label: [], form: 'liquid', dryS } }); // prettier-ignore
    const layers = [{ powderId: uuid(70), zone: 'whole' as const, coats: 1 }, { powderId: uuid(71), zone: 'whole' as const, coats: 2 }]; // prettier-ignore
    const api = fakeApi({
      'GET /materials': [...materials, liquid(70, 'Primer', 7200), liquid(71, 'Yellow', 21_600)],
      'GET /recipes': [{ ...recipes[0]!, layers }],
      [`GET /tickets/${id}`]: ticket({ id, log: [{ id: uuid(64), at: 1, kind: 'good', station: 'trim', count: 12 }] }),
    });
    renderAt(<CountBenchPage station="paint" />, `/paint/${id}`, '/paint/:id');
    const coats = await screen.findByRole('region', { name: 'Coats' });
    expect(within(coats).getAllByRole('listitem').map((each) => each.textContent)).toEqual(['1Primerdries 2 h 00', '2Yellowdries 6 h 00', '3Yellowdries 6 h 00']); // prettier-ignore
    expect(screen.queryByRole('region', { name: 'Pace' })).toBeNull();
    expect(screen.getByText('Heads for coat 1')).toBeTruthy();
    await userEvent.keyboard(' ');
    expect(await screen.findByText('Coat 1 dries')).toBeTruthy();
    expect(await within(coats).findByText(/^wet until/)).toBeTruthy();
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'coat', coat: 1, paint: 'Primer', dryS: 7200 })); // prettier-ignore
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
    renderAt(<CountBenchPage station="trim" />, `/trim/${id}`, '/trim/:id');
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
    const log = [{ id: uuid(62), at: 1, kind: 'good', station: 'trim', count: 12 }];
    fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log: log as never }), 'GET /records/heating': [] });
    renderAt(<CountBenchPage station="paint" />, `/paint/${id}`, '/paint/:id');
    const pace = await screen.findByRole('region', { name: 'Pace' });
    expect(pace.textContent).toMatch(/^1\d s under the heat gun, to 170 °C/);
    expect(screen.queryByText('Stir the jar before the next dip.')).toBeNull();
    await userEvent.keyboard(' ');
    await userEvent.keyboard(' ');
    expect(await screen.findByText('Stir the jar before the next dip.')).toBeTruthy();
    await userEvent.keyboard('m');
    expect(await screen.findByRole('button', { name: /Metronome off, head 1/ })).toBeTruthy();
  });
});
