// npm run mutants core/plan: plants mistakes in a folder, one by one, and counts those that its own tests notice.
// Without a folder all are taken in turn, for hours: `--sample 0.1` plants them in a tenth of the lines, drawn by
// SCHMELZ_SEED, and adds up what was noticed.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { bin, capture, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
const SOURCES = {
  core: 'packages/core/src',
  contract: 'packages/contract/src',
  server: 'apps/server/src',
  web: 'apps/web/src',
};

const folders = (area) =>
  readdirSync(join(root, SOURCES[area]), { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && entry.name !== 'test')
    .map((entry) => `${area}/${entry.name}`);
const { values, positionals: wanted } = parseArgs({ options: { sample: { type: 'string' } }, allowPositionals: true });
const share = values.sample === undefined ? 1 : Number(values.sample);
if (!(share > 0 && share <= 1)) throw new Error(`--sample ${values.sample}: a share from 0 to 1`);
const all = (wanted.length ? wanted : Object.keys(SOURCES)).flatMap((each) =>
  each.includes('/') ? each : folders(each),
);

let seed = Number(process.env.SCHMELZ_SEED ?? Math.floor(Math.random() * 2 ** 31));
console.log(`SCHMELZ_SEED=${seed} draws the same lines again.`);
/** Park and Miller's minimal standard generator (Communications of the ACM 31, 1988): good enough to draw lines by. */
const draw = () => (seed = (seed * 48271) % 2147483647) / 2147483647;

const LINES = 4;
/** The sources below a folder, or stretches of a few lines of them. */
function stretches(folder) {
  const files = readdirSync(join(root, folder), { recursive: true })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.|(^|\/)index\.ts$|(^|\/)test\//.test(name))
    .map((name) => join(folder, name));
  if (share === 1) return files;
  return files.flatMap((file) => {
    const count = readFileSync(join(root, file), 'utf8').split('\n').length;
    const starts = Array.from({ length: Math.ceil(count / LINES) }, (_, index) => index * LINES + 1);
    return starts.filter(() => draw() < share).map((start) => `${file}:${start}-${start + LINES - 1}`);
  });
}

const sums = {};
for (const each of all) {
  const [area, folder] = each.split('/');
  const source = SOURCES[area];
  if (!source)
    throw new Error(`${each} is none of: ${Object.keys(SOURCES).join(', ')}, with a folder such as core/plan`);
  // The services of the server are tested over its routes: all of its tests are asked there.
  const tests = area === 'core' || area === 'web' ? `${source}/{${folder}/**/,}*.test.ts*` : `${source}/**/*.test.ts`;
  const mutate = stretches(`${source}/${folder}`);
  if (mutate.length === 0) continue;
  console.log(`\n— ${each}`);
  const env = { ...process.env, SCHMELZ_TESTS: tests };
  const { output } = await capture(bin('stryker'), ['run', '--mutate', mutate.join(',')], { env });
  // The last row of its table: score in all, of what is covered, killed, timed out, survived, not covered, errors.
  const row = /^All files\s*\|(.*)$/m.exec(output)?.[1].split('|').map(Number);
  if (!row) continue;
  const [, , killed, late, survived, uncovered] = row;
  const sum = (sums[area] ??= { noticed: 0, planted: 0 });
  sum.noticed += killed + late;
  sum.planted += killed + late + survived + uncovered;
}
for (const [area, { noticed, planted }] of Object.entries(sums)) {
  console.log(`${area}: ${noticed} of ${planted} noticed, ${Math.round((100 * noticed) / planted)} %`);
}
