// npm start: serves an empty workshop; npm run demo: the demo workshop, made once (--fresh makes it anew).
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, must, root } from './lib.mjs';

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Schmelz needs Node 20.19 or newer; this is ${process.version}.`);
  process.exit(1);
}

const demo = process.argv.includes('--demo');
const fresh = process.argv.includes('--fresh');
const data = process.env.SCHMELZ_DATA || join(root, 'data', demo ? 'demo' : 'workshop');
const env = { ...process.env, SCHMELZ_DATA: data };
// The demo workshop has probes: the simulated logger that ships with it.
if (demo) env.SCHMELZ_LOGGER ??= 'simulated';

ensureInstalled();
ensureBuilt();
if (demo && (fresh || !existsSync(join(data, 'demo-made')))) {
  console.log('Making the demo workshop: a year of orders, pours, bakes and purchases …');
  must(process.execPath, [join(root, 'apps/server/dist/demo/main.js')], { env });
} else if (fresh) {
  console.error('--fresh goes with the demo only: your own workshop is never thrown away by a command.');
  process.exit(1);
}

const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], { env, stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (status) => process.exit(status ?? 0));
