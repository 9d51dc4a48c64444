import type { Page } from '@playwright/test';
import { aFullShelf, pourIt } from './things.ts';
import { atTheBench, benchesOf, choose, order, shelf } from './walk.ts';
import { expect, test } from './workshop.ts';

/** One kind of head: what is chosen in its form, and the steps that its ticket is then walked through. */
interface Kind {
  name: string;
  /** Options of the form by their label. */
  chosen: Record<string, string | RegExp>;
  /** The way that it starts from, by how the list begins; the usual one where none is said. */
  way?: RegExp;
  /** Recipes of its own steps, by the number of the field. */
  stepRecipes?: string[];
  parts?: { part: string; step: string }[];
  /** As the ticket lists them. */
  steps: string[];
  /** What is more or less of a part on the shelf in the end. */
  moves?: Record<string, number>;
}

const KINDS: Kind[] = [
  {
    name: 'ring and hook before the paint',
    chosen: { Paint: 'All white' },
    way: /^Hook and ring before the paint/,
    parts: [{ part: 'Split ring 5 mm', step: 'Hook and ring on' }],
    steps: ['Trim', 'Hook and ring on', 'Paint', 'Bake', 'Finish'],
    moves: { 'Split ring 5 mm': -3 },
  },
  { name: 'no paint', chosen: { Paint: 'bare lead' }, steps: ['Trim', 'Finish'] },
  {
    name: 'no bake, heat to gloss',
    chosen: { Paint: 'All white', Bake: 'no bake' },
    steps: ['Trim', 'Paint', 'Finish'],
  },
  {
    name: 'treble after the bake',
    chosen: { Paint: 'All white' },
    way: /^Treble after the bake/,
    parts: [{ part: 'Treble 8', step: 'Treble and blade on' }],
    steps: ['Trim', 'Paint', 'Bake', 'Treble and blade on', 'Finish'],
    moves: { 'Treble 8': -3 },
  },
  {
    name: 'two coats with a bake between',
    chosen: { Paint: 'All white' },
    way: /^Two coats/,
    stepRecipes: ['All white', 'All clear'],
    steps: ['Trim', 'First coat', 'Bake the first coat', 'Second coat', 'Bake the second coat', 'Finish'],
  },
  {
    name: 'bought-in bare heads',
    chosen: { Paint: 'All white', 'Its heads': 'come off the shelf: Ball 10 g, bare' },
    steps: ['Paint', 'Bake', 'Finish'],
    moves: { 'Ball 10 g, bare': -3 },
  },
  {
    name: 'cast ahead to the shelf',
    chosen: { Paint: 'bare lead', 'When they are done': 'they go on the shelf: Ball 10 g, bare' },
    steps: ['Trim', 'Finish'],
    moves: { 'Ball 10 g, bare': 3 },
  },
  {
    name: 'won back from worn ones: stripped, sharpened, dipped again',
    chosen: { Paint: 'All white', 'Its heads': 'come off the shelf: Worn ball 10 g' },
    way: /^Won back from used ones/,
    steps: ['Cut off, clean, sharpen', 'Paint', 'Bake', 'Finish'],
    moves: { 'Worn ball 10 g': -3 },
  },
  {
    name: 'a spinner with no hook in the head',
    chosen: { Hook: 'no hook in the head', Paint: 'All white' },
    way: /^Treble after the bake/,
    parts: [{ part: 'Treble 8', step: 'Treble and blade on' }],
    steps: ['Trim', 'Paint', 'Bake', 'Treble and blade on', 'Finish'],
    moves: { 'Treble 8': -3, 'Hook 2/0': 0 },
  },
];

async function makeProduct(page: Page, kind: Kind) {
  await page.goto('/products');
  await page.getByRole('button', { name: 'New product' }).click();
  await page.getByLabel('Name', { exact: true }).fill(kind.name);
  await page.getByLabel('Mass stamped').fill('10 g');
  for (const [field, label] of Object.entries(kind.chosen)) await choose(page, field, label);
  if (kind.way) await choose(page, 'Start from', kind.way);
  for (const [at, recipe] of (kind.stepRecipes ?? []).entries()) await choose(page, 'Recipe of this step', recipe, at);
  for (const [at, { part, step }] of (kind.parts ?? []).entries()) {
    await page.getByRole('button', { name: 'Another part' }).click();
    await choose(page, 'Part', part, at);
    await choose(page, 'At the step', step, at);
  }
  await page.getByRole('button', { name: 'Add the product' }).click();
  await expect(page.getByText(`${kind.name} can be ordered.`)).toBeVisible();
}

/** From the form of the product to the closed ticket. */
async function walk(page: Page, url: string, kind: Kind) {
  const before = await shelf(page);
  await makeProduct(page, kind);
  await order(page, kind.name);
  if (!String(kind.chosen['Its heads'] ?? '').startsWith('come off')) await pourIt(url);
  const line = await (await page.request.get('/api/line')).json();
  const { id } = line.tickets[0] as { id: string };
  await page.goto(`/tickets/${id}`);
  const table = page.getByRole('table').first();
  await expect(table.locator('tbody tr')).toHaveCount(kind.steps.length + 1);
  const listed = await table.locator('tbody td:first-child').allTextContents();
  expect(listed.slice(1)).toEqual(kind.steps);
  for (const bench of await benchesOf(page)) await atTheBench(page, bench);
  await page.goto(`/tickets/${id}`);
  await page.getByRole('button', { name: 'Close the ticket' }).click();
  await expect(page.getByText('stock has moved', { exact: false })).toBeVisible();
  const after = await shelf(page);
  for (const [name, change] of Object.entries(kind.moves ?? {})) {
    expect([name, after.get(name)! - before.get(name)!]).toEqual([name, change]);
  }
}

/** Two halves, so that two workers share them; in each one workshop, and tickets one after another. */
const HALF = Math.ceil(KINDS.length / 2);
for (const kinds of [KINDS.slice(0, HALF), KINDS.slice(HALF)]) {
  test(`from order to closed ticket: ${kinds.map(({ name }) => name).join('; ')}`, async ({ browser, empty }) => {
    test.setTimeout(240_000);
    await aFullShelf(empty.url);
    const page = await browser.newPage({ baseURL: empty.url });
    await page.clock.install();
    for (const kind of kinds) await test.step(kind.name, () => walk(page, empty.url, kind));
    await page.close();
  });
}
