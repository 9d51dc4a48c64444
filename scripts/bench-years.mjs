// npm run bench:years [one year] [ten years]: what ten years of records do to the pages, against the year of the demo.
// Folders that are not there are made. Nothing is asserted.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { performance } from 'node:perf_hooks';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';
import { makeTenYears } from './ten-years.mjs';
import { serve } from './workshops.mjs';

ensureInstalled();
ensureBuilt();
const server = (name) => join(root, 'apps', 'server', 'dist', name);
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const RUNS = 5;

/** Peak and present memory of a process, MB. */
function memoryOf(pid) {
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  const of = (name) => Math.round(Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)[1]) / 1024);
  return { peak: of('VmHWM'), now: of('VmRSS') };
}

/** Each page with what shows that its figures are there. */
const PAGES = [
  ['Books', '/books', 'h2'],
  ['Past bakes', '/bake/past', 'h2, table'],
  ['Pour desk', '/pour', 'h2'],
  ['Orders', '/orders', 'h2, table'],
  ['Jars', '/paint/jars', 'h2'],
  ['Stock', '/stock', 'h2'],
  ['The line', '/', 'h2'],
  ['Quality', '/books/quality', 'h2'],
  ['Metal', '/books/metal', 'h2'],
  ['Sales', '/books/sales', 'h2'],
  ['Months', '/books/months', 'h2'],
  ['From paper', '/books/paper', 'h2'],
  ['Finished heads', '/stock/goods', 'h2'],
  ['Tonight', '/tonight', 'h2'],
  ['What to buy', '/stock/buy', 'h2'],
  ['Lots of lead', '/lead', 'h2'],
  ['Lots', '/trace', 'h2'],
  ['What it costs', '/books/cost', 'h2'],
  ['Setup', '/setup', 'h2'],
];
/** How often each question of a page is asked again, for the time that nineteen of twenty take. */
const ASKED = 20;

/** Every question that the pages asked, asked by itself: ms for nineteen of twenty, and bytes as they are sent. */
async function questions(paths, url) {
  const found = [];
  for (const path of paths) {
    const taken = [];
    let bytes = 0;
    for (let i = 0; i < ASKED; i++) {
      const began = performance.now();
      const answer = await fetch(url + path, { headers: { 'accept-encoding': 'identity' } });
      bytes = (await answer.arrayBuffer()).byteLength;
      taken.push(performance.now() - began);
    }
    taken.sort((a, b) => a - b);
    found.push({ path: path.replaceAll(/[0-9a-f-]{36}/g, ':id'), ms: taken[Math.floor(0.95 * (ASKED - 1))], bytes });
  }
  return found;
}

async function measure(folder) {
  const running = await serve(folder);
  const figures = {};
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const asked = new Set();
  page.on('request', (request) => {
    const { pathname, search } = new URL(request.url());
    const streams = pathname === '/api/readings/stream';
    if (request.method() === 'GET' && pathname.startsWith('/api/') && !streams) asked.add(pathname + search);
  });
  for (const [name, path, shows] of PAGES) {
    const taken = [];
    for (let i = 0; i < RUNS; i++) {
      const began = performance.now();
      await page.goto(running.url + path);
      await page.locator(`main :is(${shows})`).first().waitFor();
      await page.waitForLoadState('networkidle');
      taken.push(performance.now() - began - 500); // networkidle waits for half a second of silence
    }
    figures[name] = median(taken);
  }
  const began = performance.now();
  const answer = await fetch(`${running.url}/api/export`);
  let bytes = 0;
  for await (const part of answer.body) bytes += part.length;
  figures['Everything as JSON'] = performance.now() - began;
  const memory = memoryOf(running.pid);
  await browser.close();
  const answers = await questions(asked, running.url);
  await running.stop();
  return { figures, bytes, status: answer.status, memory, answers };
}

const temporary = () => mkdtempSync(join(tmpdir(), 'schmelz-years-'));
const [demo, years] = process.argv.slice(2).map((folder) => resolve(folder));
const one = demo ?? temporary();
if (!existsSync(join(one, 'schmelz.sqlite'))) {
  const env = { ...process.env, SCHMELZ_DATA: one };
  spawnSync(process.execPath, [server('demo/main.js')], { env, stdio: 'inherit' });
}
const ten = years ?? temporary();
if (!existsSync(join(ten, 'schmelz.sqlite'))) console.log(JSON.stringify(await makeTenYears(ten)));
const [short, long] = [await measure(one), await measure(ten)];
for (const [name, ms] of Object.entries(short.figures)) {
  const other = long.figures[name];
  console.log(`${name}: ${ms.toFixed(0)} ms, in ten years ${other.toFixed(0)} ms, ${(other / ms).toFixed(1)} times`);
}
for (const { path, ms, bytes } of [...long.answers].sort((a, b) => b.ms - a.ms)) {
  const over = ms > 100 || bytes > 100_000 ? ' <- over' : '';
  console.log(
    `ten years, ${path}: 95 % ${ms.toFixed(0)} ms, ${(bytes / 1000).toFixed(1)} kB${over} (bar: 100 ms, 100 kB)`,
  );
}
const megabytes = (bytes) => (bytes / 1e6).toFixed(1);
for (const [name, { bytes, status, memory }] of [
  ['one year', short],
  ['ten years', long],
]) {
  console.log(
    `${name}: export ${status}, ${megabytes(bytes)} MB; server ${memory.now} MB, at its peak ${memory.peak} MB`,
  );
}
