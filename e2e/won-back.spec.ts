import { randomUUID } from 'node:crypto';
import jsQR from 'jsqr';
import { aLead, post } from './things.ts';
import { expect, test } from './workshop.ts';

const SETS_S = 15;

/** Worn hair jigs taken from a template, tied again, sealed a mix at a time, bagged, labelled, traced. */
test('a product from a template: finished step by step, nothing bagged before its glue is set, labelled true to size', async ({
  page,
  empty,
}) => {
  const send = post(empty.url);
  const get = async (path: string) => (await fetch(`${empty.url}/api${path}`)).json();
  await aLead(send);
  await page.clock.install();
  await page.goto(`${empty.url}/products/templates`);
  await page.getByRole('button', { name: 'This one: Hair jig won back' }).click();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('heading', { name: 'Products, drawn to one scale' })).toBeVisible();

  const [product] = await get('/products');
  // A glue that is quick enough for a test.
  const { id, createdAt: _at, archived: _away, ...own } = product;
  const route = own.route.map((step: { key: string }) =>
    step.key === 'seal' ? { ...step, wait: { name: 'glue sets', seconds: SETS_S } } : step,
  );
  await send(`/products/${id}`, { ...own, route }, 'PUT');
  const shelf = (await get('/materials')) as { id: string; kind: string; name: string }[];
  expect(shelf.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['thread', 'hair', 'glue', 'used jig']));
  const worn = shelf.find(({ kind }) => kind === 'used jig')!;
  await send(`/materials/${worn.id}/receipts`, { quantity: 4, priceMinor: 100, on: '2026-01-05', lot: 'box' });
  const order = { customer: 'Stall', dueOn: null, note: '', lines: [{ productId: product.id, quantity: 4 }] };
  const [ticket] = await send(`/orders/${(await send('/orders', order)).id}/release`, {});

  // Taken off the shelf, cut off, and three of them tied and sealed.
  const say = (said: object) => send(`/tickets/${ticket.id}/entries`, { id: randomUUID(), at: Date.now(), ...said });
  await say({ kind: 'take', count: 4 });
  await say({ kind: 'good', step: 'strip', count: 4 });
  await say({ kind: 'good', step: 'tie', count: 3 });
  await say({ kind: 'good', step: 'seal', count: 3 });
  const done = async (step: string) => {
    const { log } = (await get(`/tickets/${ticket.id}`)) as { log: { kind: string; step: string; count: number }[] };
    return log.reduce((sum, each) => sum + (each.kind === 'good' && each.step === step ? each.count : 0), 0);
  };

  // The last is tied by keyboard, and sealed in a mix of its own.
  await page.goto(`${empty.url}/finish/${ticket.id}/tie`);
  await expect(page.getByRole('heading', { name: 'Tie the tail' })).toBeVisible();
  await expect(page.getByText('Pull on it: nothing slides')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('link', { name: 'On to seal the thread' })).toBeVisible();
  await expect.poll(() => done('tie')).toBe(4);
  await page.clock.fastForward(1000 * SETS_S);
  await page.goto(`${empty.url}/finish`);
  await expect(page.getByText('1 heads wait')).toBeVisible();
  await page.getByRole('button', { name: 'It is mixed: begin' }).click();
  await expect(page.getByRole('heading', { name: 'Left in this mix' })).toBeVisible();
  await expect(page.getByRole('timer')).toContainText('Can be worked for');
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: /^All have their/ })).toBeVisible();
  await page.keyboard.press('Space');
  await page.getByRole('link', { name: 'What waits at the finish' }).click();

  // Three are set and bagged; the fourth is refused with a word.
  await page.goto(`${empty.url}/finish/${ticket.id}`);
  await expect(page.getByText(/^Not yet: the last ones are ready in/)).toBeVisible();
  for (let head = 0; head < 4; head++) await page.keyboard.press('Space');
  await expect(page.getByText(/the others are not set: glue sets/).first()).toBeVisible();
  await expect.poll(() => done('finish')).toBe(3);

  // Labels lie where the sheet has them: 96 CSS pixels are an inch.
  await page.goto(`${empty.url}/finish/labels/${ticket.id}`);
  await page.getByLabel('First free label of the sheet').fill('5');
  await page.emulateMedia({ media: 'print' });
  const mm = (pixels: number) => (pixels * 25.4) / 96;
  const box = (await page.locator('[data-label="1"]').boundingBox())!;
  expect(mm(box.width)).toBeCloseTo(70, 1);
  expect(mm(box.height)).toBeCloseTo(36, 1);
  expect(mm(box.x)).toBeCloseTo(70, 1);
  expect(mm(box.y)).toBeCloseTo(4.5 + 36, 1);
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  const [, width, height] = /MediaBox\s*\[\s*0 0 ([\d.]+) ([\d.]+)/.exec(pdf)!;
  // A point is 1/72 inch; a printer's page is whole points.
  expect(Math.abs((Number(width) * 25.4) / 72 - 210)).toBeLessThan(0.4);
  expect(Math.abs((Number(height) * 25.4) / 72 - 297)).toBeLessThan(0.4);
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1);
  await page.emulateMedia({ media: 'screen' });

  // An outside reader finds the way from the code to what is in the bag.
  const pixels = await page
    .getByRole('img', { name: /^Code of ticket/ })
    .first()
    .evaluate(async (svg) => {
      const image = new Image();
      image.src = `data:image/svg+xml,${encodeURIComponent(new XMLSerializer().serializeToString(svg))}`;
      await image.decode();
      const canvas = Object.assign(document.createElement('canvas'), { width: 300, height: 300 });
      const context = canvas.getContext('2d')!;
      context.drawImage(image, 0, 0, 300, 300);
      return [...context.getImageData(0, 0, 300, 300).data];
    });
  const read = jsQR(Uint8ClampedArray.from(pixels), 300, 300);
  expect(read?.data).toBe(`${empty.url}/trace/${ticket.number}`);
  await page.goto(read!.data);
  await expect(page.getByText('Worn jigs')).toBeVisible();
  await page.getByRole('link', { name: 'who else has it' }).first().click();
  await expect(page.getByRole('cell', { name: /for Stall, order/ })).toBeVisible();
});
