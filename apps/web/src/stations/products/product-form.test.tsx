import type { Material, Mold, Product, ProductInput } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useUnits } from '../../units/Units.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { ids, materials, molds, products } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { ProductGridPage } from './GridPage.tsx';
import { ProductForm } from './ProductForm.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const part = (id: string, kind: string, name: string, more: object = {}) =>
  ({ ...materials[1]!, id, kind, name, hook: null, limitC: null, ...more }) as unknown as Material;
const uuid = (n: number) => `00000000-0000-4000-8000-${String(900 + n).padStart(12, '0')}`;
const [SKIRT, BLANKS, SWIVEL] = [uuid(1), uuid(2), uuid(3)] as const;
const skirt = part(SKIRT, 'banded skirt', 'Silicone skirt', { limitC: 120 });
const blanks = part(BLANKS, 'bare head', 'Bought balls');
const swivel = part(SWIVEL, 'swivel', 'Swivel');
const thin = {
  ...materials[1]!,
  id: 'thin',
  name: 'Hook 1/0',
  hook: { ...materials[1]!.hook!, size: '1/0' },
} as Material;

function Form({ product, onSaved }: { product?: Product; onSaved?: (product: Product) => void }) {
  const catalogue = useCatalogue();
  const units = useUnits();
  return (
    catalogue &&
    units && <ProductForm {...{ catalogue, ...(product ? { product } : {}), ...(onSaved ? { onSaved } : {}) }} />
  );
}
async function open(more: Record<string, unknown> = {}, product?: Product) {
  const saved: Product[] = [];
  const api = fakeApi(more);
  renderAt(<Form {...(product ? { product } : {})} onSaved={(each) => saved.push(each)} />, '/products');
  await screen.findByLabelText(/^Name/);
  return { api, saved };
}
const value = (label: RegExp | string) => screen.getByLabelText<HTMLInputElement>(label).value;
const write = async (label: RegExp | string, text: string) => {
  await userEvent.clear(screen.getByLabelText(label));
  if (text) await userEvent.type(screen.getByLabelText(label), text);
};
const add = () => userEvent.click(screen.getByRole('button', { name: /^(Add|Keep) the product$/ }));
const sent = (api: ReturnType<typeof fakeApi>) => api.writes().at(-1)?.body as ProductInput;

describe('the first product of a workshop', () => {
  const first = { 'GET /products': [] };
  test('is proposed by the first cavity and the first paint, with the hook that fits it', async () => {
    await open({ ...first, 'GET /materials': [materials[0]!, thin, ...materials.slice(1)] });
    expect(value(/^Name/)).toBe('Ball 10 g, roe on gull');
    expect(value('Head style')).toBe('ball');
    expect(value(/^Mass/)).toBe('10 g');
    // The cavity takes 2/0; the 1/0 that stands first on the shelf does not.
    expect(value('Hook')).toBe(ids.hook);
  });

  test('without a paint it is named by its head, and asks for no bake', async () => {
    const { api } = await open({ ...first, 'GET /recipes': [] });
    expect(value(/^Name/)).toBe('Ball 10 g');
    await add();
    await waitFor(() => expect(sent(api)).toBeDefined());
    // The oven's program is chosen, but bare lead is not baked.
    expect(sent(api)).toMatchObject({ recipeId: null, bakeProgramId: null, name: 'Ball 10 g' });
  });

  test('with no mold it is a usual head, in the units of the workshop', async () => {
    await open({ ...first, 'GET /molds': [] });
    expect(value(/^Name/)).toBe('');
    expect(value(/^Mass/)).toBe('10 g');
  });
});

describe('what is sent', () => {
  test('mass in whatever unit, money in the smallest coin, what is empty as nothing', async () => {
    const { api, saved } = await open({ 'POST /products': products[0] });
    await write(/^Name/, '  Pebble, quarter ounce ');
    await write(/^Mass/, '1/4 oz');
    await write(/^Sold at/, '2,35');
    await write(/^Always on the shelf/, '40');
    await add();
    await waitFor(() => expect(saved).toHaveLength(1));
    const body = sent(api);
    expect(body).toMatchObject({ name: 'Pebble, quarter ounce', priceMinor: 235, keepHeads: 40, variant: null });
    // A quarter of 28.349523125 g.
    expect(body.nominalMassKg).toBeCloseTo(0.00708738, 7);
    expect(body.route).toBeNull();
  });

  test('no price and nothing kept are no nought', async () => {
    const { api } = await open();
    await write(/^Name/, 'Own use');
    await add();
    await waitFor(() => expect(sent(api)).toMatchObject({ priceMinor: null, keepHeads: null, fromId: null }));
  });

  test('parts with their waste in a hundredth, at their step', async () => {
    const { api } = await open({ 'GET /materials': [...materials, skirt] });
    await write(/^Name/, 'With a skirt');
    await userEvent.click(screen.getByRole('button', { name: 'Another part' }));
    await write(/^Wasted/, '5');
    await add();
    await waitFor(() => expect(sent(api)).toBeDefined());
    expect(sent(api).parts).toEqual([expect.objectContaining({ partId: SKIRT, quantity: 1, waste: 0.05 })]);
  });

  test('after one is added the form is empty for the next; a refusal leaves it as it is', async () => {
    const no = refuse(422, { title: 'Not possible', fields: [{ field: 'name', message: 'name is taken' }] });
    const answers = [no, products[0]];
    const { saved } = await open({ 'POST /products': () => answers.shift() });
    await write(/^Name/, 'Twice');
    await write(/^Sold at/, '3');
    await add();
    expect((await screen.findByRole('alert')).textContent).toContain('name is taken');
    expect(value(/^Name/)).toBe('Twice');
    await add();
    await waitFor(() => expect(saved).toHaveLength(1));
    await waitFor(() => expect(value(/^Sold at/)).toBe(''));
  });

  test.each([
    [/^Mass/, 'heavy', /heavy/],
    [/^Sold at/, 'a lot', /price.*a lot/],
    [/^Always on the shelf/, 'some', /kept on the shelf.*some/],
  ])('%s that cannot be read is said, and nothing is sent', async (label, text, says) => {
    const { api } = await open();
    await write(/^Name/, 'Odd');
    await write(label, text);
    await add();
    expect((await screen.findByRole('alert')).textContent).toMatch(says);
    expect(api.writes()).toEqual([]);
  });
});

test('a product that is changed shows what it is, and goes with its version and its ways', async () => {
  const own = {
    ...products[0]!,
    ...{ version: 6, keepHeads: 20, ways: { sprue: 'shear' } },
    parts: [{ partId: SKIRT, quantity: 2, waste: 0.025, step: 'finish' }],
  } as unknown as Product;
  const { api } = await open({ 'GET /materials': [...materials, skirt], 'GET /products': [own, products[1]!] }, own);
  expect(value(/^Sold at/)).toBe('1.95');
  expect(value(/^Wasted/)).toBe('2.5');
  expect(value(/^Always on the shelf/)).toBe('20');
  await write(/^Sold at/, '2.10');
  await add();
  await waitFor(() => expect(sent(api)).toBeDefined());
  expect(api.writes()[0]!.path).toBe(`/products/${own.id}`);
  expect(sent(api)).toMatchObject({
    ...{ version: 6, priceMinor: 210, keepHeads: 20, ways: { sprue: 'shear' } },
    parts: [{ partId: SKIRT, quantity: 2, waste: 0.025, step: 'finish' }],
  });
});

describe('where its heads come from and go', () => {
  test('is asked only where there is something on the shelf that could be it', async () => {
    await open();
    expect(screen.queryByLabelText('Its heads')).toBeNull();
  });
  test('off the shelf, and back on it', async () => {
    const { api } = await open({ 'GET /materials': [...materials, blanks] });
    await write(/^Name/, 'Painted by me');
    await userEvent.selectOptions(screen.getByLabelText('Its heads'), BLANKS);
    await add();
    await waitFor(() => expect(sent(api)).toMatchObject({ fromId: BLANKS, becomesId: null }));
  });
  test('what a cavity is cast as besides is asked where a mold has it', async () => {
    const variants = [{ name: 'No collar', pin: 'none' }];
    const [mold] = molds;
    const cavities = mold!.cavities.map((cavity, at) => (at === 0 ? { ...cavity, variants } : cavity));
    const { api } = await open({ 'GET /molds': [{ ...mold, cavities } as unknown as Mold] });
    await write(/^Name/, 'Collarless');
    await userEvent.selectOptions(screen.getByLabelText(/^Cast as/), 'No collar');
    await add();
    await waitFor(() => expect(sent(api)).toMatchObject({ variant: 'No collar' }));
    // A head of another mass is cut nowhere: nothing is asked.
    await write(/^Mass/, '14 g');
    expect(screen.queryByRole('option', { name: 'No collar' })).toBeNull();
  });
});

test('a part that would be in an oven hotter than it stands is said while it is written', async () => {
  await open({ 'GET /materials': [...materials, { ...swivel, limitC: 150 }] });
  await userEvent.click(screen.getByRole('button', { name: 'Another part' }));
  expect(screen.queryByText(/Swivel.*150/)).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText('At the step'), 'cast in');
  expect((await screen.findAllByRole('note')).map((note) => note.textContent).join(' ')).toMatch(/Swivel/);
});

describe('many at once', () => {
  const grid = async () => {
    const api = fakeApi({ 'POST /products': products[0] });
    renderAt(<ProductGridPage />, '/products/grid');
    return { api, table: within(await screen.findByRole('table', { name: /Products by head and paint/ })) };
  };
  test('what is a product has its tick and cannot be made twice', async () => {
    const { table } = await grid();
    const there = table.getAllByRole<HTMLButtonElement>('button', { name: /: a product already$/ });
    // The fixtures have the pebble in its paint, and bare.
    expect(there).toHaveLength(2);
    expect(there.every(({ disabled }) => disabled)).toBe(true);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make them' }).disabled).toBe(true);
  });

  test('what is chosen is counted, let go again, and made with its paint and bake', async () => {
    const other = {
      id: 'r2',
      version: 1,
      name: 'Gull',
      eyeColour: null,
      layers: [{ powderId: ids.white, zone: 'whole', coats: 1 }],
    };
    const api = fakeApi({
      'POST /products': products[0],
      'GET /recipes': [other],
      'GET /products': [products[1]],
    });
    renderAt(<ProductGridPage />, '/products/grid');
    const cell = await screen.findByRole('button', { name: 'Ball 10 g, Gull' });
    await userEvent.click(cell);
    expect(cell.getAttribute('aria-pressed')).toBe('true');
    await userEvent.click(cell);
    expect(cell.getAttribute('aria-pressed')).toBe('false');
    await userEvent.click(cell);
    await userEvent.click(screen.getByRole('button', { name: 'Make them' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({
      ...{ name: 'Ball 10 g, gull', style: 'ball', hookId: ids.hook, recipeId: 'r2', bakeProgramId: ids.program },
      priceMinor: null,
    });
    await waitFor(() => expect(cell.getAttribute('aria-pressed')).toBe('false'));
  });
});
