// npm run screenshots: one current PNG of each main view in docs/screenshots, from a demo workshop made for it.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureBuilt();
const folder = mkdtempSync(join(tmpdir(), 'schmelz-shots-'));
const server = (name) => join(root, 'apps', 'server', 'dist', name);
const env = { ...process.env, SCHMELZ_DATA: folder, SCHMELZ_PORT: '0' };
if (spawnSync(process.execPath, [server('demo/main.js')], { env, stdio: 'inherit' }).status !== 0) process.exit(1);
const child = spawn(process.execPath, [server('main.js')], {
  env: { ...env, SCHMELZ_LOGGER: 'simulated' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
const url = await new Promise((resolve) =>
  child.stdout.on('data', (data) => {
    const found = /ready: (\S+)/.exec(String(data));
    if (found) resolve(found[1]);
  }),
);

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB', baseURL: url });
const target = join(root, 'docs', 'screenshots');
mkdirSync(target, { recursive: true });
const shoot = async (name) => {
  await page.mouse.move(0, 0);
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(target, `${name}.png`) });
  console.log(`${name}.png`);
};
const go = async (path) => {
  await page.goto(path, { waitUntil: 'networkidle' });
  await page.getByRole('heading', { level: 1 }).first().waitFor();
};
const get = async (path) => (await page.request.get(`${url}/api${path}`)).json();

await go('/');
const open = (await get('/orders')).find((order) => order.status === 'open');
await go(`/orders/${open.id}`);
await shoot('plan');
for (const [path, name] of [
  ['/molds', 'molds'],
  ['/lead', 'lead'],
  ['/stock', 'stock'],
  ['/books/cost', 'cost'],
  ['/books/plans', 'plans'],
  ['/books/quality', 'quality'],
  ['/stock/goods', 'goods'],
]) {
  await go(path);
  await shoot(name);
}
const fry = (await get('/molds')).find((mold) => mold.name === 'Fry six');
for (const [path, name] of [
  ['/bake/past', 'past-bakes'],
  ['/products/templates', 'made'],
  [`/molds/${fry.id}/fill`, 'fill'],
]) {
  await go(path);
  await page.waitForTimeout(1500); // the probe's first reading, and the fit beside the page
  await shoot(name);
}
await go('/tonight');
await page.getByText(/Nine evenings in ten by/).waitFor({ timeout: 60_000 });
await shoot('tonight');
const closed = (await get('/tickets')).find((ticket) => ticket.closedAt !== null);
await go(`/tickets/${closed.id}`);
await shoot('ticket');
await go(`/finish/labels/${closed.id}`);
await shoot('labels');

// The bench: some heads painted, an oven that runs, a pour that is going on.
await go('/paint');
await page.getByRole('link', { name: /Begin with/ }).click();
await page.getByText('Left to paint').waitFor();
for (let i = 0; i < 17; i++) await page.keyboard.press('Space');
await page.keyboard.press('3');
await shoot('paint');
await go('/bake');
await page.getByRole('link', { name: /Begin with/ }).click();
await page.getByText('Hang up and load').waitFor();
await page.waitForTimeout(800);
await page.keyboard.press('Space');
await page.getByText('Take out in').waitFor();
await page.waitForTimeout(3000);
await shoot('bake');
await go('/pour');
await shoot('pour-desk');
await page.getByRole('button', { name: 'To the pot' }).click();
await page.getByRole('button', { name: 'Pot is on' }).click();
// Two molds in turn, gone on with hooks where blank shots would come first.
for (let shot = 1; shot < 13; shot++) {
  const onward = page.getByRole('button', { name: 'Go on with hooks' });
  await page.waitForFunction(() =>
    [...document.querySelectorAll('button')].some(
      (button) =>
        !button.disabled && /Go on with hooks|Space Poured/.test(button.textContent.replace('Space', 'Space ')),
    ),
  );
  const shown = page.getByText(`Shot ${shot} of`);
  // A key that comes before the mold is open is refused with a word: it is pressed again.
  for (let tries = 0; tries < 30 && !(await shown.isVisible()); tries++) {
    await page.keyboard.press((await onward.isVisible()) ? 'g' : 'Space');
    await page.waitForTimeout(700);
  }
  await shown.waitFor();
  if (shot === 6) await page.keyboard.press('2');
  if (shot === 8) {
    await page.keyboard.press('3');
    await page.keyboard.press('f');
  }
}
await shoot('pour');
await go('/');
await shoot('line');

await browser.close();
child.kill('SIGTERM');
await new Promise((resolve) => child.once('exit', resolve));
rmSync(folder, { recursive: true, force: true });
