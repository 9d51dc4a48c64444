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

test('one that takes too long is ended and told so; those behind it are asked anew', async () => {
  // No thread begins within a millisecond.
  const { run } = start(SCRIPT, 1);
  const answers = await Promise.allSettled([1, 2].map((good) => run('yield', { good, casts: 10 })));
  const words = answers.map((answer) => answer.status === 'rejected' && (answer.reason as Error).message);
  expect(words).toEqual([expect.stringMatching(/^This takes longer than .* s to work out/), expect.anything()]);
});
