// Shared by the benchmarks: workshops to measure in, served from copies, so that nothing of them changes.
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './lib.mjs';

const server = (name) => join(root, 'apps', 'server', 'dist', name);

/** The value that so large a share of all lie below. */
export const part = (values, share) => [...values].sort((a, b) => a - b)[Math.floor(share * (values.length - 1))];

/** Folders that were named; else the demo's year, and the ten years of `npm run ten-years` where they were made. */
export function folders() {
  if (process.argv.length > 2) return process.argv.slice(2);
  const demo = mkdtempSync(join(tmpdir(), 'schmelz-bench-'));
  const env = { ...process.env, SCHMELZ_DATA: demo };
  spawnSync(process.execPath, [server('demo/main.js')], { env, stdio: 'inherit' });
  const ten = join(root, 'data', 'ten-years');
  return existsSync(ten) ? [demo, ten] : [demo];
}

/** Serves a copy of a folder. */
export async function serve(folder) {
  const data = mkdtempSync(join(tmpdir(), 'schmelz-taps-'));
  cpSync(folder, data, { recursive: true, preserveTimestamps: true });
  const env = { ...process.env, SCHMELZ_DATA: data, SCHMELZ_PORT: '0', SCHMELZ_REQUESTS_A_MINUTE: '1000000' };
  const child = spawn(process.execPath, [server('main.js')], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const url = await new Promise((resolve) =>
    child.stdout.on('data', (said) => {
      const found = /ready: (\S+)/.exec(String(said));
      if (found) resolve(found[1]);
    }),
  );
  const call = async (method, path, body) => {
    const headers = body ? { 'content-type': 'application/json' } : {};
    const answer = await fetch(`${url}/api${path}`, { method, headers, body: body && JSON.stringify(body) });
    const text = await answer.text();
    if (answer.status >= 400) throw new Error(`${method} ${path}: ${answer.status} ${text.slice(0, 300)}`);
    return text && answer.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text;
  };
  const stop = () => new Promise((resolve) => child.once('exit', resolve) && child.kill('SIGTERM'));
  return { url, call, pid: child.pid, stop: () => stop().then(() => rmSync(data, { recursive: true })) };
}

/** A ticket that a mold of the house can cast, with its pour. */
export async function begun(call) {
  const products = (await call('GET', '/products')).filter((each) => !each.archived && each.hookId && !each.fromId);
  const molds = (await call('GET', '/molds')).filter((each) => !each.archived);
  const [pot] = await call('GET', '/pots');
  for (const product of products) {
    for (const mold of molds) {
      try {
        const lines = [{ productId: product.id, quantity: 200 }];
        const order = await call('POST', '/orders', { customer: 'Bench', dueOn: null, note: '', lines });
        const [ticket] = await call('POST', `/orders/${order.id}/release`, {});
        const wanted = { moldIds: [mold.id], atOnce: 1, potId: pot.id, ticketIds: [ticket.id] };
        return { ticket, pour: await call('POST', '/pours', wanted) };
      } catch (error) {
        if (!/: 422 /.test(error.message)) throw error; // this mold does not cast it
      }
    }
  }
  throw new Error('No product of the house can be cast.');
}
