// npm run bench: medians of what a maker waits for. Nothing here is asserted: machines differ.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureBuilt();
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const worst = (values) => Math.max(...values);
const nineteenOfTwenty = (values) => [...values].sort((a, b) => a - b)[Math.floor(0.95 * (values.length - 1))];
const report = (what, values, bar) =>
  console.log(
    `${what}: median ${median(values).toFixed(1)} ms, 95 % ${nineteenOfTwenty(values).toFixed(1)} ms, worst ${worst(values).toFixed(1)} ms of ${values.length}${bar ? ` (bar: ${bar} ms)` : ''}`,
  );

const folder = mkdtempSync(join(tmpdir(), 'schmelz-bench-'));
const server = (name) => join(root, 'apps', 'server', 'dist', name);
const env = { ...process.env, SCHMELZ_DATA: folder, SCHMELZ_PORT: '0' };
spawnSync(process.execPath, [server('demo/main.js')], { env, stdio: 'inherit' });

async function start() {
  const began = performance.now();
  const child = spawn(process.execPath, [server('main.js')], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const url = await new Promise((resolve) =>
    child.stdout.on('data', (data) => {
      const found = /ready: (\S+)/.exec(String(data));
      if (found) resolve(found[1]);
    }),
  );
  return { child, url, ms: performance.now() - began };
}
const stop = ({ child }) => new Promise((resolve) => (child.once('exit', resolve), child.kill('SIGTERM')));

const starts = [];
for (let i = 0; i < 3; i++) {
  const running = await start();
  starts.push(running.ms);
  await stop(running);
}
report('server start with a year of records', starts, 5000);

const running = await start();
const { url } = running;
const call = async (method, path, body) => {
  const answer = await fetch(`${url}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  });
  const text = await answer.text();
  if (answer.status >= 500) throw new Error(`${method} ${path}: ${answer.status} ${text}`);
  return text ? JSON.parse(text) : null;
};
const timed = async (times, work) => {
  const taken = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    await work(i);
    taken.push(performance.now() - began);
  }
  return taken;
};

// A session of four hours: the pot second by second, the mold shot by shot.
const core = await import(join(root, 'packages', 'core', 'dist', 'index.js'));
const night = {
  sessions: Array.from({ length: 30 }, (_, i) => ({
    id: `b${i}`,
    name: `b${i}`,
    heads: 20,
    colourIds: [`c${i}`, `c${(i * 7) % 30}`],
  })),
  colours: Array.from({ length: 30 }, (_, i) => ({
    id: `c${i}`,
    name: `c${i}`,
    lightness: ((i * 11) % 30) / 29,
    gloss: i % 5 ? 'gloss' : 'metallic',
  })),
  spareCups: 0,
};
report('the order of 30 recipes in 30 colours', await timed(9, () => core.colourOrder(night)), 100);
const fourHours = () => {
  const shots = Array.from({ length: 240 }, (_, i) => ({ atS: 60 * i + 1200, kind: 'take', kg: 0.02 }));
  core.simulatePot({
    pot: { powerW: 700, lossWPerK: 0.55 },
    leadKg: 8,
    fromC: 20,
    roomC: 20,
    setC: 374,
    seconds: 14_400,
    events: shots,
  });
  core.moldSession({
    block: { bodyKg: 0.6 },
    steps: shots.map(() => core.shotStep({ kg: 0.08, metalC: 371, cycleS: 60 })),
  });
};
report('a session of four hours simulated', await timed(30, fourHours), 20);

// What the fits are worth on things that they do not know, and what an evening's plan takes and proves.
await import('./bench-fits.mjs');
await import('./bench-tonight.mjs');

// A pour of two molds and 5,000 taps, folded from nothing: a setup of its own each time, of which nothing is kept.
const foldSetup = {
  molds: ['a', 'b'].map((moldId) => ({ moldId, plannedBlanks: 5, plannedShots: 400, openS: 5, inspectS: 3, loadS: 8 })),
  atOnce: 2,
  loads: ['a', 'b'].flatMap((moldId) =>
    [1, 2, 3, 4, 5].map((position) => ({
      moldId,
      position,
      cavityId: moldId + position,
      ticketIds: [moldId],
      hookMaterialId: 'h',
      inserts: [],
      leadKg: 0.01,
      hookKg: 0.001,
      sprueKg: 0.003,
      yieldShare: 0.94,
    })),
  ),
  needs: { a: 11_000, b: 11_000 },
  hooksOut: { h: 30_000 },
};
const foldLog = Array.from({ length: 5000 }, (_, i) =>
  i % 5 === 4
    ? { id: `r${i}`, at: 1000 * i, kind: 'reject', shotId: `s${i - 1}`, position: 1 + (i % 4), cause: 'short' }
    : { id: `s${i}`, at: 1000 * i, kind: 'shot', moldId: i % 2 ? 'a' : 'b', positions: [1, 2, 3, 4, 5] },
);
report('a pour folded from 5,000 taps', await timed(30, () => core.pourState({ ...foldSetup }, foldLog)), 10);

const open = (await call('GET', '/orders')).find((order) => order.status === 'open');
report('plan of an order', await timed(20, () => call('GET', `/orders/${open.id}/plan`)));
report('the line', await timed(20, () => call('GET', '/line')));
report('a year of tickets', await timed(5, () => call('GET', '/tickets')));

// What would keep a page or the server waiting: odd records, and as much as a schema lets through.
const label = [{ metalC: 177, seconds: 1200 }];
const cure = (readings) => () =>
  call('POST', '/compute/cure-from-log', { label, headLagS: 120, limitC: 175, readings });
const DAY_MS = 24 * 3600 * 1000;
const minutes = Array.from({ length: 40 }, (_, i) => ({ at: 365 * DAY_MS + i * 60_000, celsius: 177 }));
report(
  'a bake from a log whose first row has the wrong year',
  await timed(9, cure([{ at: 0, celsius: 20 }, ...minutes])),
  200,
);
report(
  'a bake from two readings a year apart',
  await timed(9, cure([0, 365 * DAY_MS].map((at) => ({ at, celsius: 177 })))),
  200,
);
const forgotten = {
  label,
  headLagS: 120,
  airC: 177,
  ovenLagS: 200,
  preheated: true,
  loadedAt: 0,
  now: 30 * DAY_MS,
  doors: [],
  readings: [],
};
report('a load forgotten for 30 days', await timed(9, () => call('POST', '/compute/running-bake', forgotten)), 200);
const most = {
  rack: { bars: 40, barM: 2, clearM: 0.01 },
  groups: Array.from({ length: 60 }, (_, i) => ({
    id: `g${i}`,
    program: `p${i % 8}`,
    heads: 10_000,
    widthM: 0.02,
    hangsM: 0.02,
  })),
};
report('oven loads, as many as are taken', await timed(5, () => call('POST', '/compute/oven-loads', most)), 200);

const ticket = (await call('GET', '/line')).tickets.find((each) => each.poured === 0);
const [pot] = await call('GET', '/pots');
const mold = (await call('GET', '/molds')).find((each) => each.name === 'Pebble five');
const pour = await call('POST', '/pours', { moldIds: [mold.id], atOnce: 1, potId: pot.id, ticketIds: [ticket.id] });
const say = (entry) => call('POST', `/pours/${pour.id}/entries`, { id: crypto.randomUUID(), at: Date.now(), ...entry });
await say({ kind: 'charge', massKg: 2, potC: 20 });
report(
  'a tap from request to disk (fsync, acknowledged)',
  await timed(60, () => say({ kind: 'blank', moldId: mold.id })),
  100,
);

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const painted = (await call('GET', '/line')).tickets.find((each) => each.poured > 0 && each.log.length === 0);
await page.goto(`${url}/trim/${painted.id}`, { waitUntil: 'networkidle' });
await page.getByText('Left to trim').waitFor();
await page.waitForTimeout(500);
// From the key going down to the frame after the number has changed.
const tapTimes = async () => {
  const taken = [];
  for (let i = 0; i < 20; i++) {
    const number = document.querySelector('h1 + p');
    const before = number.textContent;
    const began = performance.now();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
    while (number.textContent === before) await new Promise((resolve) => requestAnimationFrame(resolve));
    taken.push(performance.now() - began);
    await new Promise((resolve) => setTimeout(resolve, 120));
  }
  return taken;
};
report('a tap on screen', await page.evaluate(tapTimes), 50);
// A tablet: its processor is about four times slower.
const devtools = await page.context().newCDPSession(page);
await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 });
report('a tap on the screen of a tablet', await page.evaluate(tapTimes), '50, 95 % under 120');
await devtools.send('Emulation.setCPUThrottlingRate', { rate: 1 });

// A fit of 500 shots in its worker, and how the page draws meanwhile.
const SHOTS = 500;
const from = Date.now() - 25_000 * 1000;
const long = await call('POST', '/orders', {
  customer: 'Bench',
  dueOn: null,
  note: '',
  lines: [{ productId: open.lines[0].productId, quantity: 2000 }],
});
const [big] = await call('POST', `/orders/${long.id}/release`, {});
const fry = (await call('GET', '/molds')).find((each) =>
  each.cavities.some((cavity) => cavity.style === 'ball' && cavity.nominalMassKg === 0.01),
);
await say({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 2 });
const session = await call('POST', '/pours', { moldIds: [fry.id], atOnce: 1, potId: pot.id, ticketIds: [big.id] });
const tell = (entry) => call('POST', `/pours/${session.id}/entries`, { id: crypto.randomUUID(), ...entry });
await tell({ kind: 'charge', massKg: 8, potC: 20, at: from });
const positions = session.setup.loads.filter((load) => load.ticketIds.length).map((load) => load.position);
for (let i = 0; i < SHOTS; i++) await tell({ kind: 'shot', moldId: fry.id, positions, at: from + 60_000 * i + 30_000 });
const probe = core.backAtReadings(
  {
    block: { bodyKg: fry.bodyKg },
    // As the session was begun with, or the fit sees another mold than the page's.
    closedS: session.setup.molds.find(({ moldId }) => moldId === fry.id).openS,
    roomC: 20,
    readings: Array.from({ length: 3000 }, (_, i) => ({ atS: 10 * i, temperatureC: 20 })),
    shots: Array.from({ length: SHOTS }, (_, i) => ({ atS: 60 * i + 30, kg: 0.06, metalC: 371 })),
  },
  { bodyKg: fry.bodyKg, lossWPerK: 0.6 },
);
const csv = ['s,mold C', ...probe.map((celsius, i) => `${10 * i},${celsius.toFixed(1)}`)].join('\n');
const mapping = {
  name: 'bench',
  timeColumn: 's',
  timeIs: 'seconds',
  startAt: from,
  columns: [{ column: 'mold C', place: 'mold', unit: 'C' }],
};
await fetch(`${url}/api/readings/import?mapping=${encodeURIComponent(JSON.stringify(mapping))}`, {
  method: 'POST',
  headers: { 'content-type': 'text/csv' },
  body: csv,
});
await page.goto(`${url}/molds/${fry.id}/warm`);
await page.getByText('shots among them').waitFor();
const fits = [];
const frames = [];
for (let i = 0; i < 5; i++) {
  const { ms, gaps } = await page.evaluate(async () => {
    const button = [...document.querySelectorAll('button')].find((each) => each.textContent.startsWith('Fit loss'));
    const gaps = [];
    let last = performance.now();
    let going = true;
    const frame = () => {
      const now = performance.now();
      gaps.push(now - last);
      last = now;
      if (going) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
    const settled = new Promise((resolve) => {
      let ran = false;
      new MutationObserver(() => {
        if (button.disabled) ran = true;
        else if (ran) resolve();
      }).observe(button, { attributes: true });
    });
    const began = performance.now();
    button.click();
    await settled;
    going = false;
    return { ms: performance.now() - began, gaps };
  });
  // A fit that found nothing takes another time than one that did.
  await page.getByText('It loses').waitFor();
  fits.push(ms);
  frames.push(...gaps.slice(1));
}
report(`a fit of ${SHOTS} shots and ${probe.length} readings in its worker`, fits, 1000);
report('a frame of the page meanwhile', frames, 16.7);

await browser.close();
await stop(running);

// Ten million readings: room and time to draw.
const { openStore } = await import(server('store/store.js'));
const { addLog } = await import(server('services/readings.js'));
const many = 10_000_000;
const before = statSync(join(folder, 'schmelz.sqlite')).size;
const store = await openStore(folder);
const wobble = (i) => 371 + 6 * Math.sin(i / 97) + 0.8 * Math.sin(i * 12.9898);
const [{ id: channel }] = await addLog(store, 'ten million', [
  {
    place: 'pot',
    name: 'pot',
    readings: Array.from({ length: many }, (_, i) => ({ at: 1000 * i + 1, celsius: wobble(i) })),
  },
]);
await store.close();
const bytes = (statSync(join(folder, 'schmelz.sqlite')).size - before) / many;
console.log(`a reading on disk: ${bytes.toFixed(1)} bytes (bar: 20 bytes)`);
const again = await start();
const chart = (query) =>
  fetch(`${again.url}/api/readings?channel=${channel}&points=800&${query}`).then((answer) => answer.json());
report('a chart of 10 million readings', await timed(10, () => chart(`from=0&to=${many * 1000}`)), 200);
report('a chart of one hour out of them', await timed(10, () => chart('from=5000000000&to=5003600000')), 200);
await stop(again);
rmSync(folder, { recursive: true, force: true });
