import ICAL from 'ical.js';
import { readFileSync } from 'node:fs';
import { aFullShelf, pourIt, post } from './things.ts';
import { atTheBench, benchesOf } from './walk.ts';
import { expect, test } from './workshop.ts';

/** Two orders and a bare one: planned together, one thing left out, one put off; poured, painted, baked, finished. */
test('an evening: planned, printed, taken to the pot, and planned anew from where things stand', async ({
  browser,
  empty,
}) => {
  test.setTimeout(180_000);
  await aFullShelf(empty.url);
  const send = post(empty.url);
  const get = async (path: string) => (await fetch(`${empty.url}/api${path}`)).json();
  const [[hook], [program]] = [
    (await get('/materials')).filter(({ kind }: { kind: string }) => kind === 'hook'),
    await get('/bake-programs'),
  ];
  const recipes = (await get('/recipes')) as { id: string }[];
  const product = (name: string, recipeId: string | null) =>
    send('/products', {
      ...{ name, style: 'ball', nominalMassKg: 0.01, hookId: hook.id, recipeId, priceMinor: null },
      bakeProgramId: recipeId ? program.id : null,
    });
  const made = [await product('Ball, white', recipes[0]!.id), await product('Ball, bare', null)];
  for (const [at, { id }] of made.entries()) {
    await send('/orders', { customer: `Stall ${at}`, dueOn: null, note: '', lines: [{ productId: id, quantity: 3 }] });
  }
  const page = await browser.newPage({ baseURL: empty.url, acceptDownloads: true });
  await page.clock.install();
  // An evening that is still to come, whatever hour it is where this runs.
  const hour = (ahead: number) => `${String((new Date().getHours() + ahead) % 24).padStart(2, '0')}:00`;
  const evening = JSON.stringify({ from: hour(1), to: hour(5) });
  await page.addInitScript((kept) => localStorage.setItem('schmelz.evening', kept), evening);
  await page.goto('/');
  await page.getByRole('link', { name: 'Tonight' }).click();
  await expect(page.getByRole('heading', { name: 'and all that is open is done' })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/Nine evenings in ten by/)).toBeVisible({ timeout: 30_000 });
  const strip = page.getByRole('group', { name: 'The evening along its hours' });
  const bar = (name: RegExp) => strip.getByRole('button', { name });
  await expect(bar(/^Pour Three/).first()).toBeVisible();
  await expect(bar(/^In the oven: Ball, white/)).toBeVisible();
  // Two blanks alike are poured together: six heads and what may be lost of them, on three cavities.
  await expect(page.getByText(/cavities 1, 2, 3: \d+ × Ball/)).toBeVisible();

  // One is left for another day, and comes back.
  const bare = page.getByRole('checkbox', { name: 'Ball, bare for Stall 1, tonight' });
  await bare.uncheck();
  await expect(page.getByText('another day')).toBeVisible();
  await expect(bar(/Ball, bare/)).toHaveCount(0);
  await bare.check();
  await expect(bar(/Ball, bare/).first()).toBeVisible();

  // One thing otherwise: both evenings are drawn on the same hours, with what they take.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'A helper' })
    .getByRole('button', { name: 'side by side' })
    .first()
    .click();
  const two = page.getByRole('region', { name: 'Two plans side by side' });
  await expect(two.getByRole('figure', { name: 'The evening: As planned' })).toBeVisible();
  await expect(two.getByRole('figure', { name: 'The evening: A helper' })).toContainText('Helper');
  const row = (name: RegExp) => two.getByRole('row', { name });
  await expect(row(/^Hands at work/)).toBeVisible();
  await expect(row(/^Over at \d\d:\d\d \d\d:\d\d/)).toBeVisible();
  await expect(row(/^Over by .* in a hundred .* in a hundred/)).toBeVisible();
  await two.getByRole('button', { name: 'Put it away' }).click();
  await expect(two).toHaveCount(0);

  // Put off by hand: it begins then, and the rest is solved around it.
  // By keyboard: a bar of a minute is narrow.
  await bar(/^Trim: Ball, bare/).press('Enter');
  const before = await bar(/^Trim: Ball, bare/).getAttribute('aria-label');
  await page.getByRole('button', { name: '15 min later' }).click();
  await expect(bar(/^Trim: Ball, bare.*pinned/)).toBeVisible();
  await expect(bar(/^Trim: Ball, bare.*pinned/)).not.toHaveAttribute('aria-label', before!);
  await page.getByRole('button', { name: 'Let it go' }).click();
  await expect(bar(/^Trim: Ball, bare.*pinned/)).toHaveCount(0);

  // A helper is seen before he is asked.
  await expect(page.getByText('A helper', { exact: true })).toBeVisible({ timeout: 30_000 });

  // As a calendar: an outside reader finds the pour and the oven with its alarm.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'As a calendar' }).click(),
  ]);
  const calendar = new ICAL.Component(ICAL.parse(readFileSync(await download.path(), 'utf8')));
  const events = calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each));
  expect(events.map(({ summary }) => summary)).toEqual(
    expect.arrayContaining(['Pour Three', 'In the oven: Ball, white']),
  );

  // On paper: black on white, a box of four millimetres for every task, within the page.
  await page.emulateMedia({ media: 'print' });
  const sheet = page.getByRole('article', { name: 'Run sheet' });
  await expect(sheet).toBeVisible();
  const boxes = sheet.locator('li > span.border-black');
  expect(await boxes.count()).toBeGreaterThanOrEqual(events.length);
  const box = (await boxes.first().boundingBox())!;
  expect((box.width * 25.4) / 96).toBeCloseTo(4, 1);
  const pdf = (await page.pdf({ format: 'A4' })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b/g)!.length).toBeLessThanOrEqual(2);
  await page.emulateMedia({ media: 'screen' });

  // To the pot: both orders are tickets, and the pour stands on the molds of the plan.
  await page.getByRole('button', { name: 'To the pot: Three' }).click();
  await expect(page).toHaveURL(/\/pour\/[0-9a-f-]+$/);
  const line = await get('/line');
  expect(line.tickets).toHaveLength(2);
  const pour = line.pours[0] as { id: string };
  const say = (said: object) => send(`/pours/${pour.id}/entries`, { id: crypto.randomUUID(), at: Date.now(), ...said });
  const [mold] = await get('/molds');
  await say({ kind: 'charge', massKg: 1, potC: 20 });
  // One shot goes wrong: the heads of one ticket are there, of the other they are missing.
  await say({ kind: 'shot', moldId: mold.id, positions: [1, 2, 3] });
  await say({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0.01, heelKg: 0.9 });
  await page.goto('/tonight');
  await expect(page.getByText(/3 on the way/).first()).toBeVisible();
  await expect(page.getByText(/[1-9] to cast/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'To the pot: Three' })).toBeVisible({ timeout: 30_000 });
  // What went otherwise is said, and the line goes by the plan.
  await expect(page.getByText(/^Since the plan of \d\d:\d\d: .*Ball, \w+: \d+ still to cast/)).toBeVisible();
  await page.goto('/');
  await expect(page.getByText('Next, by tonight’s plan')).toBeVisible();
  await pourIt(empty.url);

  // Everything else at the benches, as far as the bag.
  for (const ticket of (await get('/line')).tickets as { id: string }[]) {
    await page.goto(`/tickets/${ticket.id}`);
    for (const bench of await benchesOf(page)) await atTheBench(page, bench);
    await page.goto(`/tickets/${ticket.id}`);
    await page.getByRole('button', { name: 'Close the ticket' }).click();
    await expect(page.getByText('stock has moved', { exact: false })).toBeVisible();
  }
  await page.goto('/tonight');
  await expect(page.getByText('No order is open and no ticket is under way.')).toBeVisible();
  await page.close();
});
