import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What `scripts/lib.mjs` says of files: it is a module of Node's own, asked as the commands ask it. */
function fingerprint(folder: string, names: string[]): string {
  const lib = JSON.stringify(join(__dirname, 'lib.mjs'));
  const paths = JSON.stringify(names.map((name) => join(folder, name)));
  const script = `const { fingerprint } = await import(${lib}); console.log(fingerprint(${paths}, ${JSON.stringify(folder)}));`;
  const { status, stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', script], {
    encoding: 'utf8',
  });
  expect([status, stderr]).toEqual([0, '']);
  return stdout.trim();
}

test('what a build makes beside the sources is none of them', () => {
  const folder = mkdtempSync(join(tmpdir(), 'schmelz-sources-'));
  mkdirSync(join(folder, 'dist'));
  const made = ['dist/a.js', 'tsconfig.tsbuildinfo', 'answers.json', 'a.test.ts'];
  for (const name of [...made, 'a.ts', 'b.css']) writeFileSync(join(folder, name), '');
  const lib = JSON.stringify(join(__dirname, 'lib.mjs'));
  const script = `const { files } = await import(${lib}); console.log(JSON.stringify(files(${JSON.stringify(folder)})));`;
  const { stdout } = spawnSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' });
  expect((JSON.parse(stdout) as string[]).map((path) => path.slice(folder.length + 1)).sort()).toEqual([
    'a.ts',
    'b.css',
  ]);
});

describe('the fingerprint that says whether something is to be built anew', () => {
  const folder = mkdtempSync(join(tmpdir(), 'schmelz-print-'));
  const names = ['a.ts', 'b/c.ts'];
  mkdirSync(join(folder, 'b'));
  writeFileSync(join(folder, 'a.ts'), 'one');
  writeFileSync(join(folder, 'b', 'c.ts'), 'two');
  const print = fingerprint(folder, names);

  test('is the same where the folder was moved or copied to, at whatever time', () => {
    const moved = mkdtempSync(join(tmpdir(), 'schmelz-moved-'));
    cpSync(folder, moved, { recursive: true });
    utimesSync(join(moved, 'a.ts'), new Date(0), new Date(0));
    expect(fingerprint(moved, names)).toBe(print);
    expect(fingerprint(moved, [...names].reverse())).toBe(print);
  });
  test('is another one where a file says something else, or lies elsewhere', () => {
    const changed = mkdtempSync(join(tmpdir(), 'schmelz-changed-'));
    cpSync(folder, changed, { recursive: true });
    writeFileSync(join(changed, 'a.ts'), 'One');
    expect(fingerprint(changed, names)).not.toBe(print);
    writeFileSync(join(changed, 'a.ts'), 'one');
    cpSync(join(changed, 'a.ts'), join(changed, 'b', 'a.ts'));
    expect(fingerprint(changed, ['b/a.ts', 'b/c.ts'])).not.toBe(print);
  });
});
