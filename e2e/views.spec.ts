import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { gzipSync } from 'node:zlib';
import type { Page, Response } from '@playwright/test';
import { expect, test } from './workshop.ts';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Every view of the demo workshop, with the ids of what stands on its line. */
async function views(url: string): Promise<[string, string][]> {
  const get = async (path: string) => (await fetch(`${url}/api${path}`)).json();
  const [orders, line, pours] = [await get('/orders'), await get('/line'), await get('/pours')];
  const tickets = await get('/tickets');
  const mold = (await get('/molds')).find((each: { name: string }) => each.name === 'Pebble ladder').id;
  const open = orders.find((order: { status: string }) => order.status === 'open');
  const at = (station: string) =>
    line.tickets.find((ticket: { log: { step?: string }[]; poured: number }) => {
      const seen = ticket.log.map((entry) => entry.step);
      const before: Record<string, string | null> = { trim: null, paint: 'trim', bake: 'paint', finish: 'bake' };
      return (
        ticket.poured > 0 &&
        !seen.includes(station) &&
        (before[station] === null ? seen.length === 0 : seen.includes(before[station]!))
      );
    });
  const closed = tickets.find((ticket: { closedAt: number | null }) => ticket.closedAt !== null);
  const trace = await get(`/trace/tickets/${closed.number}`);
  return [
    ['line', '/'],
    ['orders', '/orders'],
    ['new order', '/orders/new'],
    ['order by grid', '/orders/grid'],
    ['products by grid', '/products/grid'],
    ['plan', `/orders/${open.id}`],
    ['products', '/products'],
    ['products to start from', '/products/templates'],
    ['lead', '/lead'],
    ['molds', '/molds'],
    ['melting', '/lead/melt'],
    ['dial', '/lead/dial'],
    ['what it casts', '/lead/cast'],
    ['probes', '/lead/probes'],
    ['parts', '/molds/parts'],
    ...['', '/hooks', '/warm', '/fill', '/care'].map((room): [string, string] => [
      `mold${room}`,
      `/molds/${mold}${room}`,
    ]),
    ['pour', '/pour'],
    ['pour, closed', `/pour/${pours[0].id}`],
    ['trim', '/trim'],
    ['trim bench', `/trim/${at('trim').id}`],
    ['paint bench', `/paint/${at('paint').id}`],
    ['bake', '/bake'],
    ['heads on the scale', '/trim/sample'],
    ['ways of trim', '/trim/ways'],
    ['recipes', '/paint/recipes'],
    ['jars', '/paint/jars'],
    ['ways of paint', '/paint/ways'],
    ['oven loads', '/bake/loads'],
    ['oven and racks', '/bake/oven'],
    ['paint', '/paint'],
    ['seconds of heat', '/paint/heat'],
    ['order of colours', '/paint/order'],
    ['which program', '/bake/program'],
    ['past bakes', '/bake/past'],
    ['bake from a log', '/bake/log'],
    ['bake bench', `/bake/${at('bake').id}`],
    ['finish bench', `/finish/${at('finish').id}`],
    ['finish', '/finish'],
    ['ticket', `/tickets/${closed.id}`],
    ['labels', `/finish/labels/${closed.id}`],
    ['tonight', '/tonight'],
    ['finished heads', '/stock/goods'],
    ['trace a bag', '/trace'],
    ['what is in a bag', `/trace/${closed.number}`],
    ['who has a lot', `/trace/lot/${trace.lots[0].lotId}`],
    ['stock', '/stock'],
    ['a count', '/stock/count'],
    ['a parcel', '/stock/parcel'],
    ['to buy', '/stock/buy'],
    ['what can be made', '/stock/make'],
    ['books', '/books'],
    ['cost and price', '/books/cost'],
    ['where the metal went', '/books/metal'],
    ['what came out bad', '/books/quality'],
    ['month by month', '/books/months'],
    ['who and what', '/books/sales'],
    ['from paper', '/books/paper'],
    ['setup', '/setup'],
    ['first steps', '/start'],
  ];
}

async function seriousFindings(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    // @ts-expect-error axe is put into the page above
    const { violations } = await window.axe.run(document, { resultTypes: ['violations'] });
    return (violations as { id: string; impact: string; nodes: { target: string[]; failureSummary: string }[] }[])
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(
        ({ id, nodes }) =>
          `${id}: ${nodes
            .map((node) => `${node.target.join(' ')} ${node.failureSummary}`)
            .slice(0, 3)
            .join(' | ')}`,
      );
  });
}

/** Things that stick out of the window, and labels or buttons that lie on each other. */
async function misplaced(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    if (document.documentElement.scrollWidth > window.innerWidth + 1)
      found.push(`page is ${document.documentElement.scrollWidth} px wide`);
    const scrolls = (element: Element | null): boolean => {
      for (let up = element; up; up = up.parentElement)
        if (['auto', 'scroll'].includes(getComputedStyle(up).overflowX)) return true;
      return false;
    };
    const targets = [
      ...document.querySelectorAll('main button, main a, main input, main select, header a, header button, nav a'),
    ]
      .filter((element) => element.getClientRects().length > 0)
      .map((element) => ({
        element,
        box: element.getBoundingClientRect(),
        name: (element.getAttribute('aria-label') ?? element.textContent ?? element.tagName).slice(0, 40),
      }));
    for (const { element, box, name } of targets) {
      if (
        (box.right > window.innerWidth + 1 || box.left < -1) &&
        !scrolls(element.parentElement) &&
        !element.classList.contains('sr-only')
      )
        found.push(`${name} sticks out`);
    }
    for (const [i, a] of targets.entries()) {
      for (const b of targets.slice(i + 1)) {
        if (a.element.contains(b.element) || b.element.contains(a.element)) continue;
        if (a.element.closest('.sticky') !== b.element.closest('.sticky')) continue;
        const w = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
        const h = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
        if (w > 3 && h > 3) found.push(`${a.name} lies on ${b.name}`);
      }
    }
    return found;
  });
}

/** Names that the demo's maker gave, longest first: what a name says stays as it is. */
async function namesIn(url: string): Promise<string[]> {
  const lists = await Promise.all(
    ['products', 'bake-programs', 'materials', 'parts'].map(async (list) => (await fetch(`${url}/api/${list}`)).json()),
  );
  const names = (lists.flat() as { name: string }[]).flatMap(({ name }) => [name, name.split(',')[0]!]);
  return names.sort((a, b) => b.length - a.length);
}

/** Text, read out or seen, that is in grams, millimetres or °C; a caution and Setup may name both. */
async function metricIn(page: Page, names: readonly string[]): Promise<string[]> {
  const texts = await page.evaluate(() =>
    [...document.querySelectorAll('body *:not(script):not(style)')].flatMap((element) => {
      const own = [...element.childNodes].some((node) => node.nodeType === 3 && node.textContent!.trim());
      return [own ? element.textContent! : '', element.getAttribute('aria-label') ?? ''];
    }),
  );
  return texts
    .map((text) => names.reduce((left, name) => left.split(name).join('~'), text))
    .filter((text) => /\d[\d.,]*\s?(kg|g|mg|mm|cm|°C|K|W\/K)\b|\/kg\b|g\/cm/.test(text) && !/°C \(|°C or/.test(text))
    .map((text) => `metric: ${text.slice(0, 80)}`);
}

for (const [width, height] of [
  [1280, 800],
  [820, 1180],
  [390, 844],
] as const) {
  test(`every view at ${width}x${height}: nothing cut off, nothing overlaps, ${width === 820 ? 'all in ounces and °F' : 'nothing serious from axe'}`, async ({
    page,
    demo,
  }) => {
    test.setTimeout(300_000);
    await page.setViewportSize({ width, height });
    const problems: string[] = [];
    page.on('pageerror', (error) => problems.push(`page error: ${error.message}`));
    page.on('console', (message) => {
      if (message.type() === 'error') problems.push(`console: ${message.text()}`);
    });
    // What axe finds on the large and the small screen it finds on the one between them, which is another maker's.
    const names = await namesIn(demo.url);
    if (width === 820) {
      // In the page itself: a request that is caught outside of it takes the browser's cache away.
      await page.addInitScript(() => {
        const ask = window.fetch.bind(window);
        window.fetch = async (...call) => {
          const answer = await ask(...call);
          if (!/\/api\/settings$/.test(answer.url)) return answer;
          return Response.json({ ...(await answer.json()), massUnit: 'oz', temperatureUnit: 'F' });
        };
      });
    }
    for (const [name, path] of await views(demo.url)) {
      await page.goto(demo.url + path, { waitUntil: 'networkidle' });
      await expect(page.getByRole('heading', { level: 1 }).first(), [name, ...problems].join('; ')).toBeVisible();
      const metric = name === 'setup' ? [] : await metricIn(page, names);
      const findings = width === 820 ? metric : await seriousFindings(page);
      for (const each of [...(await misplaced(page)), ...findings]) problems.push(`${name}: ${each}`);
    }
    expect(problems).toEqual([]);
  });
}

test('axe in the theme that each place does not have by itself', async ({ page, demo }) => {
  test.setTimeout(300_000);
  const problems: string[] = [];
  await page.goto(demo.url);
  for (const [name, path] of await views(demo.url)) {
    const theme = name.includes('bench') ? 'light' : 'dark';
    await page.evaluate((choice) => localStorage.setItem('schmelz-theme', choice), theme);
    await page.goto(demo.url + path);
    await expect(page.getByRole('heading', { level: 1 }).first(), [name, ...problems].join('; ')).toBeVisible();
    await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
    for (const each of await seriousFindings(page)) problems.push(`${name}, ${theme}: ${each}`);
  }
  expect(problems).toEqual([]);
});

test('the first page loads less than 200 kB of script, and nothing from elsewhere', async ({ page, demo }) => {
  const scripts: Promise<Buffer>[] = [];
  const foreign: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(demo.url) && !request.url().startsWith('data:')) foreign.push(request.url());
  });
  const listen = (response: Response) => {
    if (response.url().endsWith('.js')) scripts.push(response.body());
  };
  page.on('response', listen);
  await page.goto(demo.url);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  // What the page stands on; what is fetched for later, once it stands, comes after.
  const standing = [...scripts];
  page.off('response', listen);
  await page.waitForLoadState('networkidle');
  expect(foreign).toEqual([]);
  // Added up once all have come: a sum kept beside an await loses what arrives meanwhile.
  const bytes = (await Promise.all(standing)).reduce((sum, body) => sum + gzipSync(body).length, 0);
  expect(bytes).toBeGreaterThan(10_000);
  expect(bytes).toBeLessThan(200_000);
});

test('by keyboard alone: find a ticket, ask a figure why, start the next thing', async ({ page, demo }) => {
  await page.goto(demo.url, { waitUntil: 'networkidle' });
  // A page that is drawn listens to keys.
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.keyboard.press('Slash');
  await expect(page.getByRole('combobox')).toBeFocused();
  await page.keyboard.type('orders');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/orders$/);
  const [, plan] = (await views(demo.url)).find(([name]) => name === 'plan')!;
  await page.goto(demo.url + plan, { waitUntil: 'networkidle' });
  await page.getByRole('button', { name: /^Lead to charge/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('charge = casts');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto(demo.url, { waitUntil: 'networkidle' });
  // A page that is drawn listens to keys.
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.keyboard.press('Space');
  await expect(page).toHaveURL(/\/(finish|bake|paint|trim|pour|tickets)/);
});
