import { PRODUCT_TEMPLATES } from '@schmelz/core';
import { aFullShelf, aMold, pourIt, post } from './things.ts';
import { atTheBench, benchesOf, order } from './walk.ts';
import { expect, test } from './workshop.ts';

/** Taken as they are, one after another: lacquered, with a wire form, without paint, with ring and hook. */
const TAKEN = ['swimming', 'spinner', 'bare eyes', 'rigged ball'];

test(`templates taken and made: ${TAKEN.join(', ')}`, async ({ browser, empty }) => {
  test.setTimeout(180_000);
  await aFullShelf(empty.url);
  const send = post(empty.url);
  const page = await browser.newPage({ baseURL: empty.url });
  await page.clock.install();
  for (const id of TAKEN) {
    const template = PRODUCT_TEMPLATES.find((each) => each.id === id)!;
    const { name, style, nominalMassKg, hookSize, cast } = template;
    const pin = cast.pin ? { pin: { diameterM: 0.003175, lengthM: 0.008 } } : {};
    const shape = { style, nominalMassKg, hookSize: hookSize ?? '2/0', ...pin };
    const mold = await aMold(send, `For ${id}`, [shape, shape, shape]);
    await page.goto('/products/templates');
    await page.getByRole('button', { name: `This one: ${name}` }).click();
    await page.getByRole('button', { name: 'Take it' }).click();
    await expect(page.getByRole('heading', { name: 'Products, drawn to one scale' })).toBeVisible();
    // What sets and dries is quick enough for a test.
    const products = (await (await page.request.get('/api/products')).json()) as {
      [field: string]: unknown;
      id: string;
      name: string;
      route: { wait?: { name: string } | null }[];
    }[];
    const { id: productId, archived: _away, ...own } = products.find((each) => each.name === name)!;
    const route = own.route.map((step) => (step.wait ? { ...step, wait: { ...step.wait, seconds: 1 } } : step));
    await send(`/products/${productId}`, { ...own, route }, 'PUT');
    await order(page, name);
    await pourIt(empty.url, mold.id);
    const { tickets } = await (await page.request.get('/api/line')).json();
    await page.goto(`/tickets/${tickets[0].id}`);
    const benches = await benchesOf(page);
    expect(benches).toHaveLength(template.steps.length);
    for (const bench of benches) {
      await page.clock.fastForward(1100);
      await atTheBench(page, bench);
    }
    await page.goto(`/tickets/${tickets[0].id}`);
    await page.getByRole('button', { name: 'Close the ticket' }).click();
    await expect(page.getByText('stock has moved', { exact: false })).toBeVisible();
    await page.goto('/stock/goods');
    await expect(page.getByRole('checkbox', { name: `Take of ${name}` })).toBeVisible();
  }
  // All of them lie finished on the shelf; one is sold to whoever asks, and is traced to them.
  await expect(page.getByRole('checkbox')).toHaveCount(TAKEN.length);
  const spinner = PRODUCT_TEMPLATES.find(({ id }) => id === 'spinner')!.name;
  await page.getByRole('checkbox', { name: `Take of ${spinner}` }).check();
  await page.getByRole('button', { name: 'Sold, given, back' }).click();
  await page.getByLabel('Heads').fill('2');
  await page.getByLabel('Who has them now').fill('Ferry club');
  await page.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByText(`sold 2 × ${spinner}, to Ferry club`)).toBeVisible();
  await page.getByRole('link', { name: /^1\s*no\. \d+/ }).click();
  await expect(page.getByText('1 on the shelf')).toBeVisible();
  await expect(page.getByText(`2 sold to Ferry club`)).toBeVisible();
  await page.close();
});
