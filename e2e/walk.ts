import type { Page } from '@playwright/test';
import { expect } from './workshop.ts';

/** Heads of a ticket that is walked through all of its steps. */
export const HEADS = 3;

/** Its option by the whole label, or by how that begins. */
export async function choose(page: Page, field: string, label: string | RegExp, nth = 0) {
  const select = page.getByLabel(field, { exact: true }).nth(nth);
  const options = await select.locator('option').allTextContents();
  const found = options.find((option) => (typeof label === 'string' ? option === label : label.test(option)));
  await select.selectOption({ label: found ?? String(label) });
}

/** Orders so many of a product and releases it, by the forms. */
export async function order(page: Page, name: string, heads = HEADS) {
  await page.goto('/orders/new');
  await page.getByLabel('For whom').fill('Stall');
  await choose(page, 'Product', name);
  await page.getByLabel('Heads').fill(String(heads));
  await page.getByRole('button', { name: 'See the plan' }).click();
  await page.getByRole('button', { name: 'Release to the line' }).click();
  await expect(page).not.toHaveURL(/\/orders/);
}

/** One step at its bench: all of its heads are good; what is baked goes in and comes out first. */
export async function atTheBench(page: Page, path: string, heads = HEADS) {
  await page.goto(path);
  const take = page.getByText('Take off the shelf');
  const load = page.getByRole('heading', { name: 'Hang up and load' });
  const left = page.getByText('0 good', { exact: true });
  await expect(take.or(load).or(left).first()).toBeVisible();
  if (await take.isVisible()) {
    await page.keyboard.press('Space');
    await expect(load.or(left).first()).toBeVisible();
    await expect(take).toHaveCount(0);
  }
  if (await load.isVisible()) {
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'Take out in' })).toBeVisible();
    await page.clock.fastForward(29 * 60_000);
    await expect(page.getByRole('heading', { name: 'Take them out' })).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: /All the rest are good/ })).toBeVisible();
  }
  await page.keyboard.press('g');
  await expect(page.getByRole('img', { name: `${heads} good, 0 rejected, 0 left` })).toBeVisible();
  // With the server before anybody goes on.
  await expect(page.getByRole('status')).toHaveCount(0, { timeout: 20_000 });
}

/** What lies on the shelf, by name. */
export async function shelf(page: Page): Promise<Map<string, number>> {
  const materials = (await (await page.request.get('/api/materials')).json()) as { name: string; quantity: number }[];
  return new Map(materials.map(({ name, quantity }) => [name, quantity]));
}

/** Benches of a ticket whose page is open, step by step as it lists them. */
export async function benchesOf(page: Page): Promise<string[]> {
  const links = page.getByRole('table').first().locator('tbody a');
  await expect(links.first()).toBeVisible();
  return links.evaluateAll((all) => all.map((each) => each.getAttribute('href')!));
}
