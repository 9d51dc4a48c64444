import { expect, test } from './workshop.ts';
import { aTicketToBake } from './things.ts';

test.describe('the oven', () => {
  test('its clock is on every screen, survives a reload, and loading can be undone', async ({ page, empty }) => {
    const ticket = await aTicketToBake(empty.url);
    await page.goto(`${empty.url}/bake/${ticket}`);
    await expect(page.getByRole('heading', { name: 'Hang up and load' })).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'Take out in' })).toBeVisible();
    const shelf = page.getByRole('group', { name: 'Clock shelf' });
    await expect(shelf.getByText(/Bake, load 1/)).toBeVisible();
    await page.getByRole('link', { name: 'Stock', exact: true }).click();
    await expect(shelf.getByText(/Bake, load 1/)).toBeVisible();
    await page.reload();
    await shelf.getByRole('link', { name: /Bake, load 1/ }).click();
    await expect(page.getByRole('heading', { name: 'Take out in' })).toBeVisible();
    await expect(page.getByText(/At the end of this program \d+ % of a full cure/)).toBeVisible();
    await page.keyboard.press('z');
    await expect(page.getByRole('heading', { name: 'Hang up and load' })).toBeVisible();
    await expect(shelf.getByText(/Bake, load/)).toHaveCount(0);
  });

  test('a ticket that was closed too early is opened again, and its stock with it', async ({ page, empty }) => {
    const ticket = await aTicketToBake(empty.url);
    await page.goto(`${empty.url}/bake/${ticket}`);
    await expect(page.getByRole('heading', { name: 'Hang up and load' })).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'Take out in' })).toBeVisible();
    // Nothing is cured yet: it asks.
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: /Taken out all the same, at 0 %/ })).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'Out, to look at' })).toBeVisible();
    await page.keyboard.press('1');
    await page.keyboard.press('g');
    await page.getByRole('link', { name: 'On to finish' }).click();
    await expect(page.getByRole('heading', { name: 'Left to finish' })).toBeVisible();
    await page.keyboard.press('g');
    await page.getByRole('link', { name: 'Look and close the ticket' }).click();
    // One of them is missing, and that is said.
    await expect(page.getByText(/1 missing/)).toBeVisible();
    await page.getByRole('button', { name: 'Close it, 1 short' }).click();
    await page.getByRole('button', { name: '1 missing: open it again and cast for it' }).click();
    await expect(page.getByRole('button', { name: 'Close it, 1 short' })).toBeVisible();
    // One head ran at the bake: its lead and its hook are back, 5 of 6 hooks are gone.
    const materials = await (await page.request.get(`${empty.url}/api/materials`)).json();
    const hooks = materials.find((each: { kind: string }) => each.kind === 'hook');
    expect(hooks.quantity).toBe(20 - 5);
  });
});
