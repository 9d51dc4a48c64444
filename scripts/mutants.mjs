// npm run mutants core/plan: plants mistakes in a folder, one at a time, and counts those that its own tests notice.
// Without a folder all are taken in turn, which takes hours.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { bin, ensureInstalled, root, run } from './lib.mjs';

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
const wanted = process.argv.slice(2);
const all = wanted.length ? wanted : Object.keys(SOURCES).flatMap(folders);

for (const each of all) {
  const [area, folder = '**'] = each.split('/');
  const source = SOURCES[area];
  if (!source)
    throw new Error(`${each} is none of: ${Object.keys(SOURCES).join(', ')}, with a folder such as core/plan`);
  // The services of the server are tested over its routes: all of its tests are asked there.
  const tests = area === 'core' || area === 'web' ? `${source}/${folder}/**/*.test.ts*` : `${source}/**/*.test.ts`;
  console.log(`\n— ${each}`);
  const files = `${source}/${folder}/**/*.ts,!**/*.test.ts,!**/index.ts`;
  const env = { ...process.env, SCHMELZ_TESTS: tests };
  run(bin('stryker'), ['run', '--mutate', files], { env });
}
