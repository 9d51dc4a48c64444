import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

// Commands are modules of Node's own: they are asked as the shell asks them.
const script = (name: string) => join(__dirname, name);
const node = (args: string[], env: Record<string, string> = {}) =>
  spawnSync(process.execPath, args, { encoding: 'utf8', env: { ...process.env, ...env } });
/** Runs a piece of code that has `lib` at hand. */
const withLib = (code: string) =>
  node([
    '--input-type=module',
    '-e',
    `const lib = await import(${JSON.stringify(script('lib.mjs'))}); const node = process.execPath; ${code}`,
  ]);

/** Waits until a process has ended; one that was ended and not yet cleared away is a zombie, and no more. */
async function ended(pid: string): Promise<void> {
  const stat = `/proc/${pid}/stat`;
  const goesOn = () => existsSync(stat) && readFileSync(stat, 'utf8').split(') ')[1]![0] !== 'Z';
  while (goesOn()) await new Promise((resolve) => setTimeout(resolve, 50));
}

describe('a program that a command runs', () => {
  test('has its output passed on, both of its streams, and its status told', () => {
    const code = `console.log('said'); console.error('warned'); process.exit(3);`;
    const { stdout, stderr } = withLib(
      `console.log(JSON.stringify(await lib.capture(node, ['-e', ${JSON.stringify(code)}])));`,
    );
    const told = JSON.parse(stdout.split('\n').find((line) => line.startsWith('{'))!) as object;
    expect(told).toMatchObject({ status: 3 });
    expect((told as { output: string }).output.split('\n').filter(Boolean).sort()).toEqual(['said', 'warned']);
    expect(stdout).toMatch(/^said$/m);
    expect(stderr).toContain('warned');
  });

  test('that takes too long is ended with all that it has started, and has failed', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'schmelz-long-'));
    const pids = join(folder, 'pids');
    const child = 'setInterval(() => undefined, 1000)';
    const parent = `const { spawn } = require('node:child_process');
      const one = spawn(process.execPath, ['-e', ${JSON.stringify(child)}]);
      require('node:fs').writeFileSync(${JSON.stringify(pids)}, process.pid + ' ' + one.pid);
      setInterval(() => undefined, 1000);`;
    const { stdout, stderr } = withLib(
      `const { status } = await lib.capture(node, ['-e', ${JSON.stringify(parent)}], { limitMinutes: 0.05 });
       console.log('status ' + status);`,
    );
    expect(stdout).toContain('status 1');
    expect(stderr).toContain('took longer than 0.05 minutes');
    expect(existsSync(pids)).toBe(true);
    for (const pid of readFileSync(pids, 'utf8').split(' ')) await ended(pid);
  });

  test('that must not fail ends the command with its own status', () => {
    const { status, stdout } = withLib(`lib.must(node, ['-e', 'process.exit(7)']); console.log('went on');`);
    expect([status, stdout]).toEqual([7, '']);
  });
});

describe('npm run histories', () => {
  test('takes every test that draws its cases, and no other', () => {
    const { stdout } = node([
      '--input-type=module',
      '-e',
      `const { drawn } = await import(${JSON.stringify(script('histories.mjs'))}); console.log(JSON.stringify(drawn()));`,
    ]);
    const paths = JSON.parse(stdout) as string[];
    expect(paths).toEqual(
      expect.arrayContaining([
        'packages/core/src/run/histories.test.ts',
        'apps/server/src/long-history.test.ts',
        'apps/server/src/mutations.test.ts',
      ]),
    );
    expect(paths).not.toContain('apps/server/src/books.test.ts');
    for (const path of paths) expect([path, existsSync(join(__dirname, '..', path))]).toEqual([path, true]);
  });

  test.each(['none', '0', '1.5'])('refuses %s seeds, before anything is run', (seeds) => {
    const { status, stderr } = node([script('histories.mjs'), seeds]);
    expect(status).not.toBe(0);
    expect(stderr).toContain(`seeds is ${seeds}; allowed: a whole number from 1`);
  });

  test('cases that nobody asked to be new are the same ones: the seed stands in the configuration', () => {
    const print = `const { default: jest } = await import(${JSON.stringify(script('../jest.config.mjs'))});
      console.log(jest.projects.length, process.env.SCHMELZ_SEED);`;
    const seedOf = (seed?: string) =>
      node(['--input-type=module', '-e', print], seed ? { SCHMELZ_SEED: seed } : { SCHMELZ_SEED: '' });
    expect(seedOf('77').stdout.trim()).toBe('2 77');
  });
});

describe('npm run mutants', () => {
  test.each([
    [['core/plan', '--sample', '2'], '--sample 2: a share from 0 to 1'],
    [['kitchen/sink'], 'kitchen/sink is none of: core, contract, server, web'],
  ])('%j is refused in words', (args, says) => {
    const { status, stderr } = node([script('mutants.mjs'), ...args]);
    expect(status).not.toBe(0);
    expect(stderr).toContain(says);
  });
});
