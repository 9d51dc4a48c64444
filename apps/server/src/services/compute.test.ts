import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { InvalidInput } from '@schmelz/contract';
import { calculate, computing, type Computing } from './compute.ts';

/** The built worker: a thread of Node's own takes no TypeScript. */
const SCRIPT = join(__dirname, '..', '..', 'dist', 'compute-worker.js');
const made: Computing[] = [];
const start = (script: string | null, limitMs?: number) => {
  const one = computing(script, limitMs);
  made.push(one);
  return one;
};
afterAll(() => Promise.all(made.map((one) => one.stop())));

describe.each([
  ['in a thread of its own', SCRIPT],
  ['in the server’s thread, where none is built', null],
])('a calculation %s', (_where, script) => {
  test('gives what core gives, for each who asks, however many ask at once', async () => {
    const { run } = start(script);
    const inputs = [1, 2, 3, 4, 5].map((good) => ({ good, casts: 10 * good }));
    const answers = await Promise.all(inputs.map((input) => run('yield', input)));
    expect(answers).toEqual(inputs.map((input) => calculate('yield', input)));
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(5);
  });

  test('is refused by its field, where the schema or core refuses', async () => {
    const { run } = start(script);
    await expect(run('yield', { good: -1, casts: 1 })).rejects.toThrow(/good is -1; allowed: a whole number/);
    await expect(run('yield', { good: 1 })).rejects.toThrow(InvalidInput);
    await expect(run('yield', { good: 9, casts: 1 })).rejects.toThrow(/allowed/);
    // One that was refused holds up none behind it.
    expect(await run('yield', { good: 1, casts: 2 })).toEqual(calculate('yield', { good: 1, casts: 2 }));
  });
});

describe('the limit', () => {
  const LIMIT_MS = 150;
  /** A worker that takes longer to start than the limit, answers with the name it was asked by, and may be stuck. */
  const slow = join(mkdtempSync(join(tmpdir(), 'schmelz-worker-')), 'slow.mjs');
  writeFileSync(
    slow,
    `import { parentPort } from 'node:worker_threads';
     const begun = performance.now();
     while (performance.now() - begun < ${2 * LIMIT_MS});
     parentPort.postMessage('ready');
     parentPort.on('message', ({ id, name }) => {
       if (name === 'stuck') for (;;);
       parentPort.postMessage({ id, result: name });
     });`,
  );

  test('is of one calculation, and not of the start of its thread', async () => {
    const { run } = start(slow, LIMIT_MS);
    expect(await Promise.all([run('one', {}), run('two', {})])).toEqual(['one', 'two']);
  });
  test('ends one that takes too long, and tells it; those behind it are asked anew', async () => {
    const { run } = start(slow, LIMIT_MS);
    const asked = ['one', 'stuck', 'two', 'three'].map((name) => run(name, {}));
    const answers = await Promise.allSettled(asked);
    expect(answers.map((each) => (each.status === 'fulfilled' ? each.value : (each.reason as Error).message))).toEqual([
      'one',
      expect.stringMatching(/^This takes longer than 0.15 s to work out/),
      'two',
      'three',
    ]);
    expect(await run('four', {})).toBe('four');
  });
});
