import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { test as base } from '@playwright/test';

const root = resolve(import.meta.dirname, '..');
const main = (path: string) => join(root, 'apps', 'server', 'dist', path);

async function start(folder: string): Promise<{ url: string; child: ChildProcess }> {
  const env = { ...process.env, SCHMELZ_DATA: folder, SCHMELZ_PORT: '0', SCHMELZ_HOST: '', SCHMELZ_PASSWORD: '' };
  const child = spawn(process.execPath, [main('main.js')], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const url = await new Promise<string>((done, failed) => {
    let output = '';
    child.stdout!.on('data', (data) => {
      output += data;
      const found = /ready: (http:\/\/\S+)/.exec(output);
      if (found) done(found[1]!);
    });
    child.once('exit', () => failed(new Error('the server stopped before it was ready')));
  });
  return { url, child };
}

const stop = async ({ child }: { child: ChildProcess }) => {
  const gone = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  await gone;
};

export interface Workshop {
  url: string;
  /** Stops the server and starts it again on the same folder and port-independent address. */
  restart(): Promise<string>;
}

/**
 * `empty`: a new workshop for this test alone. `demo`: the demo workshop (four months of it), one a worker, which tests
 * look at but do not change.
 */
export const test = base.extend<{ empty: Workshop }, { demo: { url: string } }>({
  empty: async ({}, use) => {
    const folder = mkdtempSync(join(tmpdir(), 'schmelz-e2e-'));
    let server = await start(folder);
    await use({
      url: server.url,
      async restart() {
        await stop(server);
        server = await start(folder);
        return server.url;
      },
    });
    await stop(server);
    rmSync(folder, { recursive: true, force: true });
  },
  demo: [
    async ({}, use) => {
      const folder = mkdtempSync(join(tmpdir(), 'schmelz-demo-'));
      const env = { ...process.env, SCHMELZ_DATA: folder, SCHMELZ_DEMO_DAYS: '120' };
      const made = spawnSync(process.execPath, [main('demo/main.js')], { env, encoding: 'utf8' });
      if (made.status !== 0) throw new Error(made.stderr);
      const server = await start(folder);
      await use({ url: server.url });
      await stop(server);
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 120_000 },
  ],
});
export { expect } from '@playwright/test';
