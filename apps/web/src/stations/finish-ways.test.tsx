import type { JarView } from '@schmelz/contract';
import { DEFAULT_WAYS } from '@schmelz/core';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, products, recipes, settings, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { CountBenchPage } from '../counting/CountBench.tsx';
import { TrimBench } from './trim/TrimBench.tsx';
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
          say = (grams) =>
            act(() =>
              listener({
                data: JSON.stringify(
                  grams.map((g, i) => ({
                    name: 'scale',
                    at: Date.now() + 1000 * (i + 1 - grams.length),
                    kg: g / 1000,
                  })),
                ),
              }),
            );
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
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ kind: 'sample', position: 3, massKg: expect.closeTo(0.01061, 6) }),
    );
  });

  test('cut-off sprues go straight from the scale into the ticket', async () => {
    const id = uuid(65);
    const api = fakeApi({ [`GET /tickets/${id}`]: ticket({ id }) });
    renderAt(<CountBenchPage station="trim" Bench={TrimBench} />, `/trim/${id}`, '/trim/:id');
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
    expect(within(sprue).getByRole('radio', { checked: true }).getAttribute('aria-label')).toBe(
      'Nipped with side cutters',
    );
    expect(screen.getByText(/Filings are lead/)).toBeTruthy();
    await userEvent.click(within(sprue).getByRole('radio', { name: 'Wiggled off with pliers' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ version: 1, ways: { schools: { sprue: 'wiggle' } } }),
    );
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
    await waitFor(() =>
      expect(api.writes()[0]).toMatchObject({ path: `/products/${ids.product}`, body: { ways: null } }),
    );
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
    for (const name of ['Roe on gull', 'Moss', 'Tar', 'Chalk'])
      await userEvent.click(await screen.findByRole('button', { name: new RegExp(`^${name}`) }));
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
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        name: 'Moss',
        layers: [{ powderId: ids.white, zone: 'whole', mix: { powderId: ids.orange, share: 0.4 } }],
      }),
    );
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
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        version: 1,
        name: 'Roe on gull',
        layers: [
          { powderId: ids.white, zone: 'whole' },
          { powderId: ids.orange, zone: 'nose' },
        ],
      }),
    );
  });

  test('a product keeps its own ways when its bake is changed to none', async () => {
    const own = products.map((each) => (each.id === ids.product ? { ...each, ways: { eye: 'tube' as const } } : each));
    const api = fakeApi({ 'GET /products': own, [`PUT /products/${ids.product}`]: own[0]! });
    renderAt(<ProductsPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Change it: Pebble 10 g, roe on gull' }));
    const sheet = await screen.findByRole('dialog');
    await userEvent.selectOptions(within(sheet).getByLabelText('Bake'), '');
    await userEvent.click(within(sheet).getByRole('button', { name: 'Keep the product' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        version: 1,
        bakeProgramId: null,
        ways: { eye: 'tube' },
        priceMinor: 195,
        nominalMassKg: 0.01,
      }),
    );
  });

  test('a powder’s label gets its second line, and nothing else of it is touched', async () => {
    const orange = materials.find((each) => each.id === ids.orange)!;
    const api = fakeApi({ [`PUT /materials/${ids.orange}`]: orange });
    renderAt(<MaterialForm material={orange} />);
    await userEvent.type(await screen.findByLabelText('Second line: temperature'), '200 C');
    await userEvent.type(screen.getByLabelText('Second line: minutes'), '10');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        version: 1,
        kind: 'powder',
        name: 'Roe orange',
        powder: {
          ...orange.powder!,
          label: [
            { metalC: 177, seconds: 1200 },
            { metalC: 200, seconds: 600 },
          ],
        },
      }),
    );
  });
});

describe('jars', () => {
  const jar = (more: Partial<JarView>): JarView => ({
    materialId: ids.white,
    last: { at: 1e12, massKg: 0.2 },
    intervals: [],
    receivedKg: 0,
    onHeadsKg: 0,
    ...more,
  });
  test('weighed is shown as weighed, reckoned as an estimate with its range; what stays on comes from the weighings', async () => {
    const stretch = { fromAt: 0, toAt: 1, usedKg: 0.02, onHeadsKg: 0.012 };
    const api = fakeApi({
      'GET /jars': [jar({}), jar({ materialId: ids.orange, intervals: [stretch, stretch], onHeadsKg: 0.006 })],
    });
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
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, ways: { transferEfficiency: 0.6 } }));
    expect(api.writes()[0]!.body).not.toHaveProperty('dataFolder');
  });

  test('a jar is weighed with or without its own weight', async () => {
    const api = fakeApi({ 'GET /jars': [jar({})] });
    renderAt(<JarsPage />);
    await userEvent.type(await screen.findByLabelText('It weighs'), '245 g');
    await userEvent.clear(screen.getByLabelText('Of that, the empty jar'));
    await userEvent.type(screen.getByLabelText('Of that, the empty jar'), '60 g');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this weight' }));
    await waitFor(() =>
      expect(api.writes()[0]).toMatchObject({ path: `/materials/${ids.white}/counts`, body: { quantity: 0.185 } }),
    );
  });
});
