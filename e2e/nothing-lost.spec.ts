import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect, createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { Page } from '@playwright/test';
import { aPour } from './things.ts';
import { expect, test } from './workshop.ts';

interface LogEntry {
  id: string;
  kind: string;
}
const logOf = async (page: Page, url: string, id: string): Promise<LogEntry[]> =>
  (await (await page.request.get(`${url}/api/pours/${id}`)).json()).log;

/** Opens a pour's bench with the pot on and the first shot poured, so that B and Z can be tapped at any moment. */
async function bench(page: Page, url: string, id: string) {
  await page.goto(`${url}/pour/${id}`);
  await page.getByRole('button', { name: 'Pot is on' }).click();
  await page.getByRole('button', { name: 'Go on with hooks' }).click();
  await expect(page.getByText('Shot 1 of')).toBeVisible();
}

const main = resolve(import.meta.dirname, '..', 'apps', 'server', 'dist', 'main.js');

/** A port that is held as long as the test goes on; what comes in is handed to whichever server is behind it. */
async function door() {
  let behind = 0;
  const held = createServer((coming) => {
    const going = connect(behind, '127.0.0.1');
    for (const [one, other] of [
      [coming, going],
      [going, coming],
    ] as const) {
      one.pipe(other);
      one.on('error', () => other.destroy());
      one.on('close', () => other.destroy());
    }
  });
  await new Promise<void>((done) => held.listen(0, '127.0.0.1', done));
  const { port } = held.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}`,
    leadsTo: (server: number) => void (behind = server),
    shut: () => new Promise((done) => held.close(done)),
  };
}

/** A server that can be killed without warning and started again on the same folder; its address stays. */
async function mortalServer(folder: string) {
  let password = '';
  const front = await door();
  const start = async (): Promise<ChildProcess> => {
    const own = { SCHMELZ_DATA: folder, SCHMELZ_PORT: '0', SCHMELZ_HOST: '', SCHMELZ_PASSWORD: password };
    const child = spawn(process.execPath, [main], {
      env: { ...process.env, ...own },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const port = await new Promise<number>((done, failed) => {
      let said = '';
      child.stdout!.on('data', (data) => {
        const found = /ready: http:\/\/\S+:(\d+)/.exec((said += String(data)));
        if (found) done(Number(found[1]));
      });
      child.once('exit', () => failed(new Error('the server stopped before it was ready')));
    });
    front.leadsTo(port);
    return child;
  };
  let child = await start();
  const ended = (signal: NodeJS.Signals) => {
    const gone = new Promise((done) => child.once('exit', done));
    child.kill(signal);
    return gone;
  };
  return {
    url: front.url,
    async kill() {
      await ended('SIGKILL');
      child = await start();
    },
    /** From the next start on it asks for a password. */
    lock(word: string) {
      password = word;
    },
    async stop() {
      await ended('SIGTERM');
      await front.shut();
    },
  };
}

test.describe('nothing is lost', () => {
  // SCHMELZ_KILLS=30 is for an evening by hand: every kill is a start and the wait of the outbox before it.
  test('the server is killed again and again while the maker taps on', async ({ page }) => {
    const kills = Number(process.env.SCHMELZ_KILLS ?? 8);
    test.setTimeout(120_000 + kills * 20_000);
    const folder = mkdtempSync(join(tmpdir(), 'schmelz-kill-'));
    const server = await mortalServer(folder);
    const { url } = server;
    const pour = await aPour(url);
    await bench(page, url, pour.id);
    // A seeded hand: the same moments in every run.
    let seed = 7;
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    let taps = 0;
    for (let kill = 0; kill < kills; kill++) {
      const burst = 1 + Math.floor(random() * 4);
      // It dies while a tap is on its way there, or just when one has been answered.
      const isTap = (each: { url(): string }) => each.url().endsWith('/entries');
      const moment = kill % 2 ? page.waitForEvent('request', isTap) : page.waitForEvent('response', isTap);
      for (let i = 0; i < burst; i++, taps++) await page.keyboard.press('m');
      await moment;
      const dying = server.kill();
      await page.keyboard.press('m');
      taps += 1;
      await dying;
    }
    await expect(page.getByRole('status')).toHaveCount(0, { timeout: 60_000 });
    const log = await logOf(page, url, pour.id);
    expect(log.filter((entry) => entry.kind === 'smoked')).toHaveLength(taps);
    expect(new Set(log.map((entry) => entry.id)).size).toBe(log.length);
    await page.reload();
    await expect(page.getByText('Shot 1 of')).toBeVisible();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  test('200 taps without a network, a reload among them, then all are there, once, in order', async ({
    page,
    empty,
    context,
  }) => {
    test.setTimeout(180_000);
    const pour = await aPour(empty.url);
    await bench(page, empty.url, pour.id);
    await expect(page.getByRole('status')).toHaveCount(0);
    await context.setOffline(true);
    for (let tap = 0; tap < 200; tap++) await page.keyboard.press(tap % 2 ? 'z' : 'm');
    await expect(page.getByRole('status')).toContainText('200 taps are kept here');
    const kept = await page.evaluate(
      () =>
        new Promise<string[]>((done, failed) => {
          const opening = indexedDB.open('schmelz');
          opening.onerror = () => failed(opening.error);
          opening.onsuccess = () => {
            const all = opening.result.transaction('taps').objectStore('taps').getAll();
            all.onsuccess = () => done(all.result.map((row: { entry: { id: string } }) => row.entry.id));
          };
        }),
    );
    expect(kept).toHaveLength(200);
    await context.setOffline(false);
    await page.reload();
    await expect(page.getByText('Shot 1 of')).toBeVisible();
    await expect(page.getByRole('status')).toHaveCount(0, { timeout: 60_000 });
    const log = await logOf(page, empty.url, pour.id);
    expect(log.slice(-200).map((entry) => entry.id)).toEqual(kept);
  });

  test('taps that were left behind at the bench are sent from any page', async ({ page, empty, context }) => {
    const pour = await aPour(empty.url);
    await bench(page, empty.url, pour.id);
    await expect(page.getByRole('status')).toHaveCount(0);
    await context.setOffline(true);
    for (let tap = 0; tap < 5; tap++) await page.keyboard.press('m');
    await expect(page.getByRole('status')).toContainText('5 taps');
    await context.setOffline(false);
    await page.goto(`${empty.url}/stock`);
    await expect(async () => {
      const log = await logOf(page, empty.url, pour.id);
      expect(log.filter((entry) => entry.kind === 'smoked')).toHaveLength(5);
    }).toPass({ timeout: 20_000 });
  });

  test('what a closed page left is sent by the one that is still open, and told there', async ({
    page,
    empty,
    context,
  }) => {
    const pour = await aPour(empty.url);
    const stays = await context.newPage();
    await stays.goto(`${empty.url}/stock`);
    await expect(stays.getByRole('link', { name: 'Stock' })).toHaveAttribute('aria-current', 'page');
    await bench(page, empty.url, pour.id);
    await expect(page.getByRole('status')).toHaveCount(0);
    await context.route('**/entries', (route) => route.abort());
    for (let tap = 0; tap < 5; tap++) await page.keyboard.press('m');
    await expect(page.getByRole('status')).toContainText('5 taps');
    await page.close();
    await context.unroute('**/entries');
    await expect(async () => {
      const log = await logOf(stays, empty.url, pour.id);
      expect(log.filter((entry) => entry.kind === 'smoked')).toHaveLength(5);
    }).toPass({ timeout: 20_000 });
    await expect(stays.getByText(/taps? that a closed page had left here/)).toBeVisible();
  });

  test('two pages on one pour come to the same', async ({ page, empty, browser }) => {
    const pour = await aPour(empty.url);
    await bench(page, empty.url, pour.id);
    const other = await (await browser.newContext()).newPage();
    await other.goto(`${empty.url}/pour/${pour.id}`);
    await expect(other.getByText('Shot 1 of')).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Shots to go', exact: true })).toBeVisible();
    await page.keyboard.press('Space');
    await other.keyboard.press('2');
    await expect(page.getByRole('button', { name: /Cavity 2: 1 good/ })).toBeVisible();
    for (const each of [page, other]) {
      await expect(each.getByText('Shot 2 of')).toBeVisible({ timeout: 10_000 });
      await expect(each.getByRole('button', { name: /^Cavity 2: 1 good/ })).toBeVisible({ timeout: 10_000 });
    }
    await other.close();
  });

  test('a server that asks for a password meanwhile, and one that does not know the pour: no tap leaves unseen', async ({
    page,
    context,
  }) => {
    const folder = mkdtempSync(join(tmpdir(), 'schmelz-locked-'));
    const server = await mortalServer(folder);
    const { url } = server;
    const pour = await aPour(url);
    await bench(page, url, pour.id);
    await expect(page.getByRole('status')).toHaveCount(0);
    await context.setOffline(true);
    for (let tap = 0; tap < 4; tap++) await page.keyboard.press('m');
    await expect(page.getByRole('status')).toContainText('4 taps');
    server.lock('lead and tin');
    await server.kill();
    await context.setOffline(false);
    await page.getByLabel('Password of this workshop').fill('lead and tin');
    await page.getByRole('button', { name: 'Come in' }).click();
    await expect(async () => {
      const log = await logOf(page, url, pour.id);
      expect(log.filter((entry) => entry.kind === 'smoked')).toHaveLength(4);
    }).toPass({ timeout: 30_000 });
    // A tap for a pour that this data folder has never heard of stays until it was seen.
    await page.evaluate(async () => {
      const opening = indexedDB.open('schmelz');
      await new Promise((done) => (opening.onsuccess = done));
      const writing = opening.result.transaction('taps', 'readwrite');
      const entry = { id: '11111111-2222-4333-8444-555555555556', at: Date.now(), kind: 'feed', massKg: 1 };
      writing.objectStore('taps').add({ path: '/pours/11111111-2222-4333-8444-555555555555', entry });
      await new Promise((done) => (writing.oncomplete = done));
    });
    await page.goto(url);
    await page.getByRole('button', { name: '1 tap did not count' }).click();
    await expect(page.getByText(/Did not count, because: There is no pour/)).toBeVisible();
    await page.reload();
    await page.getByRole('button', { name: '1 tap did not count' }).click();
    await page.getByRole('button', { name: 'Seen, clear it' }).click();
    await expect(page.getByText(/did not count/)).toHaveCount(0);
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  test('60 taps in half a minute ask for less than 120 requests and 200 kB', async ({ page, empty }) => {
    const pour = await aPour(empty.url);
    await page.clock.install();
    await bench(page, empty.url, pour.id);
    await expect(page.getByRole('status')).toHaveCount(0);
    let requests = 0;
    const sizes: Promise<number>[] = [];
    page.on('requestfinished', (request) => {
      if (!request.url().includes('/api/') || request.url().includes('/stream')) return;
      requests += 1;
      sizes.push(request.sizes().then(({ responseBodySize }) => responseBodySize));
    });
    for (let tap = 0; tap < 60; tap++) {
      await page.keyboard.press('m');
      await page.clock.runFor(490);
    }
    await expect(page.getByRole('status')).toHaveCount(0);
    const bytes = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
    console.log(`60 taps: ${requests} requests, ${Math.round(bytes / 1000)} kB`);
    expect(requests).toBeLessThan(120);
    expect(bytes).toBeLessThan(200_000);
  });

  test('a page whose script or whose figures do not come says so, asks again, and comes once the server is back', async ({
    page,
    empty,
  }) => {
    await page.goto(`${empty.url}/setup`);
    await expect(page.getByRole('heading', { name: 'House ways' })).toBeVisible();
    await page.route(/assets\/BooksPage/, (route) => route.abort());
    await page.route(/api\/health/, (route) => route.abort());
    await page.getByRole('link', { name: 'Books', exact: true }).click();
    await expect(page.getByText('This page did not arrive.')).toBeVisible();
    await page.unrouteAll();
    await expect(page.getByRole('link', { name: 'Everything as JSON' })).toBeVisible();
    await page.route(/api\/imports|api\/materials/, (route) => route.abort());
    await page.goto(`${empty.url}/stock`);
    await expect(page.getByText(/does not answer/).first()).toBeVisible({ timeout: 30_000 });
    await page.unrouteAll();
    await expect(page.getByRole('button', { name: 'New material' })).toBeVisible({ timeout: 30_000 });
  });
});
