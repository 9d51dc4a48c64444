// npm run mutants core/plan: plants mistakes in a folder, one by one, and counts those that its own tests notice; what
// those let pass is planted once more and asked of every test of its area that does not take minutes by itself.
// Without a folder all are taken in turn, for hours: `--sample 0.1` plants them in a tenth of the lines, drawn by
// SCHMELZ_SEED, and adds up what was noticed.
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { bin, capture, ensureAnswers, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureAnswers();
const SOURCES = {
  core: 'packages/core/src',
  contract: 'packages/contract/src',
  server: 'apps/server/src',
  web: 'apps/web/src',
};

// What makes the demo is a tale of its own: it is looked at, not tested.
const folders = (area) =>
  readdirSync(join(root, SOURCES[area]), { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && !['test', 'demo'].includes(entry.name))
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

/** Tests that take minutes, floods and processes of their own: they are asked by `npm test`, not after each mistake. */
const LONG =
  /(histories|devices\/devices|faults|failing-disk|mutations|long-history|safety|compute|aside|paint\/colour-order|unlike-\w+|fuzz|together|demo\/demo)\.test/;
const REPORT = join(root, '.cache/mutants.json');

/** Plants mistakes in stretches of the sources and asks tests of them: each with its place and what became of it. */
async function plant(mutate, tests) {
  rmSync(REPORT, { force: true });
  const env = { ...process.env, SCHMELZ_TESTS: tests.join(',') };
  const { status } = await capture(bin('stryker'), ['run', '--mutate', mutate.join(',')], { env });
  if (!existsSync(REPORT)) {
    if (status !== 0) throw new Error('the tester ended without a report');
    // Nothing to plant there, or no test that runs through it: said by the tester, who then writes nothing down.
    return [];
  }
  const { files } = JSON.parse(readFileSync(REPORT, 'utf8'));
  return Object.entries(files).flatMap(([file, { mutants }]) =>
    mutants
      .filter(({ status }) => !['Ignored', 'CompileError', 'RuntimeError'].includes(status))
      .map(({ mutatorName, replacement, location: { start, end }, status }) => ({
        place: `${file}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`,
        mistake: `${mutatorName}: ${replacement}`,
        noticed: status === 'Killed' || status === 'Timeout',
      })),
  );
}

const testsBelow = (folder) =>
  readdirSync(join(root, folder), { recursive: true })
    .filter((name) => /\.test\.tsx?$/.test(name) && !LONG.test(name))
    .map((name) => join(folder, name));

const sums = {};
for (const each of all) {
  const [area, folder] = each.split('/');
  const source = SOURCES[area];
  if (!source)
    throw new Error(`${each} is none of: ${Object.keys(SOURCES).join(', ')}, with a folder such as core/plan`);
  const mutate = stretches(`${source}/${folder}`);
  if (mutate.length === 0) continue;
  console.log(`\n— ${each}`);
  const wide = testsBelow(source);
  // The services of the server are tested over its routes: all of its tests are asked there at once.
  const own = area === 'server' ? [] : wide.filter((name) => name.startsWith(`${source}/${folder}/`));
  const first = own.length ? await plant(mutate, own) : undefined;
  const left = first?.filter(({ noticed }) => !noticed);
  const again = left?.length === 0 ? [] : await plant(left?.map(({ place }) => place) ?? mutate, wide);
  const key = ({ place, mistake }) => `${place} ${mistake}`;
  const late = new Set(again.filter(({ noticed }) => noticed).map(key));
  const planted = first ?? again;
  const survived = planted.filter((one) => !one.noticed && !late.has(key(one)));
  for (const { place, mistake } of survived) console.log(`${place} ${mistake}`);
  const noticed = planted.length - survived.length;
  const byOwn = first ? `, ${first.length - left.length} by the folder's own tests` : '';
  console.log(`${each}: ${noticed} of ${planted.length} noticed${byOwn}`);
  const sum = (sums[area] ??= { noticed: 0, planted: 0 });
  sum.noticed += noticed;
  sum.planted += planted.length;
}
for (const [area, { noticed, planted }] of Object.entries(sums)) {
  console.log(`${area}: ${noticed} of ${planted} noticed, ${Math.round((100 * noticed) / planted)} %`);
}
