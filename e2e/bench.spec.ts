import { expect, test } from './workshop.ts';
import { aPour } from './things.ts';

test.describe('a tap is never lost', () => {
  test('not on a dead network, not by a reload, and it counts once', async ({ page, empty, context }) => {
    const pour = await aPour(empty.url);
    await page.goto(`${empty.url}/pour/${pour.id}`);
    await page.getByRole('button', { name: 'Pot is on' }).click();
    await expect(page.getByRole('heading', { name: 'Melt ready in' })).toBeVisible();
    await page.keyboard.press('g');
    await expect(page.getByText('Shot 1 of')).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Shots to go', exact: true })).toBeVisible();

    await context.setOffline(true);
    await page.keyboard.press('Space');
    await page.keyboard.press('2');
    await expect(page.getByText('Shot 2 of')).toBeVisible();
    await expect(page.getByRole('status')).toContainText('kept here until the server answers');

    await context.setOffline(false);
    await page.reload();
    await expect(page.getByText('Shot 2 of')).toBeVisible();
    await expect(page.getByRole('status')).toHaveCount(0);
    const { log } = await (await page.request.get(`${empty.url}/api/pours/${pour.id}`)).json();
    expect(log.filter((entry: { kind: string }) => entry.kind === 'shot')).toHaveLength(2);
    expect(log.filter((entry: { kind: string }) => entry.kind === 'reject')).toHaveLength(1);
  });

  test('everything by touch: a cavity is marked, its cause given, and taken back', async ({ page, empty }) => {
    const pour = await aPour(empty.url);
    await page.goto(`${empty.url}/pour/${pour.id}`);
    await page.getByRole('button', { name: 'Pot is on' }).click();
    await page.getByRole('button', { name: 'Go on with hooks' }).click();
    await page.getByRole('button', { name: /^Cavity 2/ }).click();
    await page.getByRole('button', { name: /void/ }).click();
    await expect(page.getByRole('button', { name: /Cavity 2: 0 good. Last one is bad, void/ })).toBeVisible();
    await page.getByRole('button', { name: /^Z Undo/ }).click();
    await expect(page.getByRole('button', { name: /Cavity 2: 1 good/ })).toBeVisible();
    // Targets of the bench are at least 64 px high.
    for (const target of await page.getByRole('group', { name: 'What happened' }).getByRole('button').all()) {
      expect((await target.boundingBox())!.height).toBeGreaterThanOrEqual(64);
    }
    for (const cavity of await page.getByRole('button', { name: /^Cavity/ }).all()) {
      expect((await cavity.boundingBox())!.height).toBeGreaterThanOrEqual(64);
    }
  });

  test('what the server refuses is said, and is not counted', async ({ page, empty }) => {
    const pour = await aPour(empty.url);
    await page.goto(`${empty.url}/pour/${pour.id}`);
    await page.getByRole('button', { name: 'Pot is on' }).click();
    await page.getByRole('button', { name: /^\+ More/ }).click();
    await page.getByRole('button', { name: /^W Weigh back/ }).click();
    await page.getByLabel('Dross').fill('plenty');
    await page.getByRole('button', { name: 'Close the pour' }).click();
    await expect(page.getByRole('alert')).toContainText('mass is plenty; allowed: a number with g, kg, oz or lb');
    await page.getByLabel('Dross').fill('999 kg');
    await page.getByRole('button', { name: 'Close the pour' }).click();
    await expect(page.getByText('drossKg is 999 kg; allowed: a number from 0 g to 60.0 kg')).toBeVisible();
    const { closed } = await (await page.request.get(`${empty.url}/api/pours/${pour.id}`)).json();
    expect(closed).toBe(false);
  });
});

test.describe('forms say what is wrong', () => {
  test('no number, too many heads, a file that is no list', async ({ page, empty }) => {
    await aPour(empty.url);
    await page.goto(`${empty.url}/orders/new`);
    await page.getByLabel('For whom').fill('Stall');
    await page.getByLabel('Heads').fill('1000000000');
    await page.getByRole('button', { name: 'See the plan' }).click();
    await expect(page.getByText('must be less than or equal to 20000')).toBeVisible();
    await page.goto(`${empty.url}/stock`);
    await page.getByRole('button', { name: 'Import CSV' }).click();
    await page.getByLabel('CSV file').setInputFiles({
      name: 'picture.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    });
    await expect(page.getByRole('alert')).toContainText('picture.csv has no line of headings with rows below it');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /Lead$/ }).click();
    await page.getByLabel('Weighed now').fill('-3 kg');
    await page.getByRole('button', { name: 'Set to this' }).click();
    await expect(page.getByRole('alert')).toContainText('quantity is -3; allowed: a number from 0 to 100000');
  });

  test('two people change one thing: the second is told what changed', async ({ page, empty }) => {
    await page.goto(`${empty.url}/setup`);
    await page.getByLabel('Holds').fill('5 kg');
    const [pot] = await (await page.request.get(`${empty.url}/api/pots`)).json();
    await page.request.put(`${empty.url}/api/pots/${pot.id}`, { data: { ...pot, id: undefined, powerW: 450 } });
    await page.getByRole('button', { name: 'Keep the pot' }).click();
    await expect(page.getByRole('alert')).toContainText('differs from yours in: capacityKg, powerW');
  });
});

test('after a restart of the server the bench goes on', async ({ page, empty }) => {
  const pour = await aPour(empty.url);
  await page.goto(`${empty.url}/pour/${pour.id}`);
  await page.getByRole('button', { name: 'Pot is on' }).click();
  // The key means the next thing once the pot is known to be on.
  await expect(page.getByRole('heading', { name: 'Melt ready in' })).toBeVisible();
  await page.keyboard.press('g');
  await expect(page.getByText('Shot 1 of')).toBeVisible();
  await expect(page.getByRole('status')).toHaveCount(0);
  const url = await empty.restart();
  await page.goto(`${url}/pour/${pour.id}`);
  await expect(page.getByText('Shot 1 of')).toBeVisible();
});
