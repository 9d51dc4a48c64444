import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What one maker gives another in a small file.
let giver: TestServer;
let taker: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  [giver, taker] = await Promise.all([testServer(), testServer()]);
  things = await smallWorkshop(giver);
});
afterAll(() => Promise.all([giver.stop(), taker.stop()]));
const given = async (kind: string, id: string) => (await giver.call('GET', `/api/give/${kind}/${id}`)).body;
const take = (gift: object, look = false) => taker.call('POST', `/api/take${look ? '?look=true' : ''}`, gift);
const listed = async (path: string) => (await taker.call('GET', `/api/${path}`)).body;

test('a recipe comes with its powders, is shown before it is taken, and comes the same again from there', async () => {
  const gift = await given('recipe', things.recipeId);
  expect(JSON.stringify(gift)).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/); // no ids of somebody else's
  const looked = await take(gift, true);
  expect(looked.body).toEqual({
    says: ['White is new, with none of it here yet.', 'The recipe White is new.'],
    made: [],
  });
  expect(await listed('recipes')).toEqual([]);
  const { body } = await take(gift);
  expect(body.made.map(({ path }: { path: string }) => path)).toEqual(['materials', 'recipes']);
  const [{ id, name }] = await listed('recipes');
  const [white] = await listed('materials');
  expect({ name, quantity: white.quantity }).toEqual({ name: 'White', quantity: 0 });
  expect((await taker.call('GET', `/api/give/recipe/${id}`)).body).toEqual(gift);
  // Taken again: the powder stays the one, the recipe is another.
  const again = await take(gift);
  expect(again.body.says).toEqual([
    'White is on your shelf already: yours stays as it is.',
    'The recipe White, given is new.',
  ]);
  expect((await listed('materials')).length).toBe(1);
  // Undone in turn, last first: nothing is left of it.
  for (const one of [...again.body.made, ...body.made.reverse()]) {
    expect((await taker.call('DELETE', `/api/${one.path}/${one.id}`)).status).toBe(204);
  }
  expect(await listed('materials')).toEqual([]);
});

test('a mold comes with its cavities and without its records; hooks as a table', async () => {
  const gift = await given('mold', things.moldId);
  expect((await take(gift)).body.says).toEqual(['The mold Five is new, with 5 cavities and no records.']);
  const [mold] = await listed('molds');
  expect(
    mold.cavities.map(({ position, hookSize, casts }: Record<string, unknown>) => [position, hookSize, casts]),
  ).toEqual(gift.mold.cavities.map(({ position, hookSize }: Record<string, unknown>) => [position, hookSize, 0]));
  expect((await taker.call('GET', `/api/give/mold/${mold.id}`)).body).toEqual(gift);
  const hooks = await given('hooks', things.moldId);
  expect((await take(hooks)).body.made).toHaveLength(2);
  expect((await listed('materials')).map(({ hook }: { hook: { size: string } }) => hook.size).sort()).toEqual([
    '2/0',
    '3/0',
  ]);
});

test('all of it or nothing: what is wrong is named, and nothing was made', async () => {
  const gift = await given('recipe', things.recipeId);
  const before = (await listed('materials')).length;
  const refused = async (more: object) => (await take({ ...gift, ...more })).body.detail as string;
  const layers = [{ ...gift.recipe.layers[0], powder: 'Nobody knows it' }];
  expect(await refused({ recipe: { ...gift.recipe, layers } })).toMatch(/Nobody knows it is neither in the file nor/);
  expect(await refused({ format: 'other' })).toMatch(/format is "other"; allowed: schmelz-gift/);
  expect(await refused({ version: 2 })).toMatch(/version is 2/);
  expect(await refused({ recipe: undefined, materials: [] })).toMatch(
    /must hold a mold, a recipe, a product or materials/,
  );
  expect(await refused({ materials: [{ ...gift.materials[0], kind: 'nonesuch' }] })).toMatch(/materials\[0\]\.kind/);
  expect((await listed('materials')).length).toBe(before);
  expect((await giver.call('GET', `/api/give/mold/${things.recipeId}`)).status).toBe(404);
});

test('a product comes with its route and all that this needs, by name, and comes the same again from there', async () => {
  const mine = (path: string) => giver.call('GET', `/api/${path}`).then(({ body }) => body);
  const made = async (path: string, body: object) => (await giver.call('POST', `/api/${path}`, body)).body.id as string;
  const eyes = await made('materials', {
    ...{ kind: 'eye', name: 'Eyes, amber', note: '', metalId: null, hook: null, powder: null },
  });
  const { id: _id, version: _version, ...ten } = await mine(`products/${things.productIds[0]}`);
  const route = [
    { key: 'trim', station: 'trim', does: 'Trim' },
    { key: 'paint', station: 'paint', does: 'Paint', recipeId: things.recipeId },
    { key: 'bake', station: 'bake', does: 'Bake', programId: things.bakeProgramId },
    { key: 'eyes', station: 'finish', does: 'Eyes on', task: 'eyes' },
  ];
  const parts = [{ partId: eyes, quantity: 2, waste: 0.05, step: 'eyes' }];
  const id = await made('products', { ...ten, name: 'Amber ten', route, parts, priceMinor: 195 });
  const gift = await given('product', id);
  expect(JSON.stringify(gift)).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/); // no ids of somebody else's
  expect(JSON.stringify(gift)).not.toMatch(/price/i); // nor what it is sold at
  const before = await listed('products');
  const looked = await take(gift, true);
  expect(looked.body.says.at(-1)).toBe('The product Amber ten is new, with 4 steps of its own.');
  expect(await listed('products')).toEqual(before);
  const { status, body } = await take(gift);
  expect([status, body.made.at(-1).path]).toEqual([200, 'products']);
  const taken = (await taker.call('GET', `/api/products/${body.made.at(-1).id}`)).body;
  expect(taken).toMatchObject({ name: 'Amber ten', priceMinor: null, parts: [{ quantity: 2, waste: 0.05 }] });
  const back = (await taker.call('GET', `/api/give/product/${taken.id}`)).body;
  // What was there by its name already has got another here; all else is the same.
  const nameless = (each: typeof gift) =>
    JSON.parse(JSON.stringify(each).replaceAll(', given 2', '').replaceAll(', given', '')) as unknown;
  expect(nameless(back)).toEqual(nameless(gift));
  // What it names must be in it; then nothing of it is taken.
  const lacking = { ...gift, programs: [] };
  const refused = await take(lacking);
  expect([refused.status, refused.body.detail]).toEqual([422, expect.stringMatching(/bake .* is not in the file/)]);
  // Undone in turn, last first.
  for (const one of [...body.made].reverse()) {
    expect((await taker.call('DELETE', `/api/${one.path}/${one.id}`)).status).toBe(204);
  }
  expect(await listed('products')).toEqual(before);
});
