// npm run bench:pages [folder …]: what a page costs the browser, in each folder: from a key to the picture at every
// bench, as it is and with the processor slowed four times; the long tasks of Tonight while it refines; and what the
// first load of a page fetches. Nothing is asserted. Without a folder it is the demo's year, and the ten years of
// `npm run ten-years` where they were made.
import { randomUUID } from 'node:crypto';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureInstalled } from './lib.mjs';
import { begun, folders, part, serve } from './workshops.mjs';

ensureInstalled();
ensureBuilt();
const SLOWED = 4;
const KEYS = 24;
const TONIGHT_MS = 15_000;

/** Benches of the line with heads that wait there, a pour that has begun, and a load that has just gone in. */
async function benchesOf(call) {
  const { tickets } = await call('GET', '/line');
  const { wanted } = await call('GET', '/tonight');
  const waiting = tickets.flatMap(({ id, route }) => {
    const left = wanted.find((each) => each.id === id)?.left ?? {};
    return route.flatMap(({ key, station }) => (left[key] > 0 ? [{ id, key, station, heads: left[key] }] : []));
  });
  const at = (station) => waiting.find((each) => each.station === station);
  const counted = ['trim', 'paint', 'bake', 'finish'].filter(at).map((station) => `/${station}/${at(station).id}`);
  const { pour } = await begun(call);
  const said = (entry) => ({ id: randomUUID(), at: Date.now(), ...entry });
  await call('POST', `/pours/${pour.id}/entries`, said({ kind: 'charge', massKg: 4, potC: 20 }));
  const hung = at('bake');
  const load = randomUUID();
  if (hung) {
    const heads = [{ ticketId: hung.id, step: hung.key, count: Math.min(hung.heads, 20) }];
    const entry = { kind: 'load', ovenId: null, setC: 177, seconds: 1680, preheated: true, heads };
    await call('POST', `/runs/oven/${load}/entries`, said(entry));
  }
  return [...counted, `/pour/${pour.id}`, ...(hung ? [`/bake/load/${load}`] : [])];
}

/** From keys that are pressed, pause and on again, to the picture after each, ms. */
async function keys(page) {
  await page.evaluate(() => {
    window.taken = [];
    window.addEventListener(
      'keydown',
      () => {
        const began = performance.now();
        // The frame that is drawn next, and the moment after it: by then it is on the screen.
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => window.taken.push(performance.now() - began);
          channel.port2.postMessage(null);
        });
      },
      { capture: true },
    );
  });
  for (let nth = 0; nth < KEYS; nth++) {
    await page.keyboard.press('p');
    await page.waitForFunction((count) => window.taken.length > count, nth);
  }
  return page.evaluate(() => window.taken);
}

for (const folder of folders()) {
  console.log(`\n${folder}`);
  const { url, call, stop } = await serve(folder);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const benches = await benchesOf(call);
  for (const path of benches) {
    const figures = [];
    for (const rate of [1, SLOWED]) {
      const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
      await page.goto(url + path);
      await page.getByRole('group', { name: 'What happened' }).waitFor();
      const devtools = await page.context().newCDPSession(page);
      await devtools.send('Emulation.setCPUThrottlingRate', { rate });
      const taken = await keys(page);
      figures.push(`${rate === 1 ? '' : `slowed ${rate} times `}${part(taken, 0.95).toFixed(0)} ms`);
      await page.context().close();
    }
    console.log(`a key at ${path.replace(/\/[0-9a-f-]{36}.*/, '')}, 95 %: ${figures.join(', ')}`);
  }
  {
    const page = await (await browser.newContext()).newPage();
    await page.addInitScript(() => {
      window.long = [];
      new PerformanceObserver((list) =>
        list.getEntries().forEach(({ startTime, duration }) => window.long.push({ startTime, duration })),
      ).observe({ entryTypes: ['longtask'] });
    });
    await page.goto(`${url}/tonight`);
    await page.waitForTimeout(TONIGHT_MS);
    const long = await page.evaluate(() => window.long);
    const later = long.filter(({ startTime }) => startTime > 2000).map(({ duration }) => duration);
    const most = later.length ? `, the longest ${Math.max(...later).toFixed(0)} ms` : '';
    console.log(`Tonight: ${long.length} long tasks, ${later.length} of them after its first two seconds${most}`);
  }
  for (const path of ['/', '/orders', '/tonight', '/stock', ...benches]) {
    const page = await (await browser.newContext()).newPage();
    const devtools = await page.context().newCDPSession(page);
    await devtools.send('Network.enable');
    const paths = new Map();
    const sizes = {};
    devtools.on('Network.responseReceived', ({ requestId, response }) => paths.set(requestId, response.url));
    devtools.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
      const kind = /\.(js|css)$/.test(paths.get(requestId) ?? '') ? 'scripts and styles' : 'the rest';
      sizes[kind] = (sizes[kind] ?? 0) + encodedDataLength;
    });
    await page.goto(url + path);
    await page.waitForTimeout(2500);
    const said = Object.entries(sizes).map(([kind, bytes]) => `${kind} ${Math.round(bytes / 1000)} kB`);
    console.log(`first load of ${path.replace(/\/[0-9a-f-]{36}.*/, '/…')}: ${said.join(', ')}`);
    await page.context().close();
  }
  await browser.close();
  await stop();
}
