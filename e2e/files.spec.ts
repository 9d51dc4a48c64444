import { aMold, post } from './things.ts';
import { expect, test } from './workshop.ts';

test('a product goes to another maker as a file: looked at, taken with all that it needs, taken back', async ({
  page,
  demo,
  empty,
}, info) => {
  await page.goto(`${demo.url}/products`);
  const name = 'Pebble 10 g, roe on gull';
  await page.getByRole('button', { name: `Change it: ${name}` }).click();
  const [given] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'As a file for another maker' }).click(),
  ]);
  const file = info.outputPath(given.suggestedFilename());
  await given.saveAs(file);
  await page.goto(`${empty.url}/products`);
  await page.getByLabel('From another maker').setInputFiles(file);
  // What would come in is said before anything is here.
  await expect(page.getByRole('listitem').filter({ hasText: name }).first()).toBeVisible();
  const products = async () =>
    (await (await page.request.get(`${empty.url}/api/products`)).json()) as { name: string }[];
  expect(await products()).toEqual([]);
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect(page.getByRole('button', { name: `Change it: ${name}` })).toBeVisible();
  expect((await products()).map((each) => each.name)).toEqual([name]);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: `Change it: ${name}` })).toHaveCount(0);
  expect(await products()).toEqual([]);
});

test('a notebook, typed up: its columns are understood, it counts in Months, and it is undone whole', async ({
  page,
  empty,
}) => {
  const shape = { style: 'ball', nominalMassKg: 0.01, hookSize: '2/0' };
  await aMold(post(empty.url), 'Five up', [shape, shape]);
  await page.goto(`${empty.url}/books/paper`);
  const typed = (rows: string) => ({
    name: 'notebook.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Evening;What;Form;Poured;Good;Took\n${rows}`),
  });
  // One line says more good ones than were poured: nothing comes in, and the line is named.
  await page.getByLabel('CSV file').setInputFiles(typed('14.3.2025;ball;five-up;60;66;1:30\n'));
  await expect(page.getByRole('alert')).toContainText('Line 2: good must be no more than casts');
  await page
    .getByLabel('CSV file')
    .setInputFiles(typed('14.3.2025;ball;five-up;60;55;1:30\n20.3.2025;ball;five-up;48;45;70 min\n'));
  await page.getByRole('button', { name: 'Take these 2 evenings' }).click();
  await expect(page.getByRole('heading', { name: 'good heads of 2 evenings on paper' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'How many were good' })).toContainText('93 %');
  await page.goto(`${empty.url}/books/months`);
  await expect(page.getByRole('row', { name: /March 2025/ })).toContainText('100');
  await page.goto(`${empty.url}/books/paper`);
  await page.getByRole('button', { name: 'Undo it' }).click();
  await expect(page.getByRole('figure', { name: 'What a log may look like' })).toBeVisible();
});
