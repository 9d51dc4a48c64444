// npm run histories [seeds]: the tests that draw their cases, with so many new seeds, one after another (1 where none
// is named). `npm test` draws the same cases each time; a seed that finds something is printed, and SCHMELZ_SEED=<seed>
// tries it again.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bin, capture, ensureAnswers, ensureBuilt, ensureInstalled, root } from './lib.mjs';

const DRAWS = /fc\.assert|SCHMELZ_SEED/;

/** Tests that draw cases, as paths from the root. */
export function drawn() {
  const below = (folder) =>
    readdirSync(join(root, folder), { recursive: true })
      .filter((name) => /\.test\.tsx?$/.test(name) && !/node_modules|dist/.test(name))
      .map((name) => join(folder, name));
  return ['packages', 'apps'].flatMap(below).filter((path) => DRAWS.test(readFileSync(join(root, path), 'utf8')));
}

async function main() {
  const seeds = Number(process.argv[2] ?? 1);
  if (!Number.isInteger(seeds) || seeds < 1) {
    throw new Error(`seeds is ${process.argv[2]}; allowed: a whole number from 1`);
  }
  ensureInstalled();
  ensureAnswers();
  ensureBuilt();
  const found = [];
  for (let nth = 1; nth <= seeds; nth++) {
    const seed = String(Math.floor(Math.random() * 2 ** 31));
    console.log(`\n— seed ${seed}, ${nth} of ${seeds}`);
    const env = { ...process.env, SCHMELZ_SEED: seed };
    const { status } = await capture(bin('jest'), ['--testTimeout', '900000', '--maxWorkers', '2', ...drawn()], {
      env,
    });
    if (status !== 0) found.push(seed);
  }
  console.log(
    found.length ? `\nSomething was found by: ${found.join(', ')}` : `\nNothing was found by ${seeds} seeds.`,
  );
  process.exit(found.length ? 1 : 0);
}

if (process.argv[1] === import.meta.filename) await main();
