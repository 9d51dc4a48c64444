// npm run bench: medians of what a maker waits for. Nothing here is asserted: machines differ.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureBuilt();
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const worst = (values) => Math.max(...values);
const report = (what, values, bar) =>
  console.log(`${what}: median ${median(values).toFixed(1)} ms, worst ${worst(values).toFixed(1)} ms of ${values.length}${bar ? ` (bar: ${bar} ms)` : ''}`); // prettier-ignore

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
  const answer = await fetch(`${url}/api${path}`, { method, headers: { 'content-type': 'application/json' }, body: body && JSON.stringify(body) }); // prettier-ignore
  const text = await answer.text();
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

const open = (await call('GET', '/orders')).find((order) => order.status === 'open');
report('plan of an order', await timed(20, () => call('GET', `/orders/${open.id}/plan`)));
report('the line', await timed(20, () => call('GET', '/line')));
report('a year of tickets', await timed(5, () => call('GET', '/tickets')));

const ticket = (await call('GET', '/line')).tickets.find((each) => each.poured === 0);
const [pot] = await call('GET', '/pots');
const mold = (await call('GET', '/molds')).find((each) => each.name === 'Pebble five');
const pour = await call('POST', '/pours', { moldId: mold.id, potId: pot.id, batchIds: [ticket.id] });
const say = (entry) => call('POST', `/pours/${pour.id}/entries`, { id: crypto.randomUUID(), at: Date.now(), ...entry });
await say({ kind: 'charge', massKg: 2, potC: 20 });
report('a tap from request to disk (fsync, acknowledged)', await timed(60, () => say({ kind: 'blank' })), 100);

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
const taps = await page.evaluate(async () => {
  const taken = [];
  for (let i = 0; i < 30; i++) {
    const number = document.querySelector('h1 + p');
    const before = number.textContent;
    const began = performance.now();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
    while (number.textContent === before) await new Promise((resolve) => requestAnimationFrame(resolve));
    taken.push(performance.now() - began);
    await new Promise((resolve) => setTimeout(resolve, 120));
  }
  return taken;
});
report('a tap on screen', taps, 50);

await browser.close();
await stop(running);
rmSync(folder, { recursive: true, force: true });
