import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as core from './index.ts';

/** What docstrings show: an expression, and behind it what it prints. */
interface Example {
  file: string;
  expression: string;
  prints: string;
}

const folder = __dirname;
const files = readdirSync(folder, { recursive: true })
  .map(String)
  .filter((name) => name.endsWith('.ts') && !/\.test\.|(^|\/)test\//.test(name));

/** Examples, a line or more each, to the end of their docstring or to the next tag. */
function examplesIn(file: string): Example[] {
  const text = readFileSync(join(folder, file), 'utf8');
  return [...text.matchAll(/@example ([\s\S]*?)(?=\*\/|\n\s*\* @)/g)].flatMap(([, body]) => {
    const plain = body!.replaceAll(/\n\s*\* */g, ' ').trim();
    const at = plain.lastIndexOf(' // ');
    return at < 0 ? [] : [{ file, expression: plain.slice(0, at), prints: plain.slice(at + 4) }];
  });
}

/** What is printed, as a value: numbers may be spaced by thousands, a colon or a word after it explains. */
function shown(prints: string): unknown {
  const number = /^(-?[\d ]+(\.\d+)?)(?=$|[:;,]? |:)/.exec(prints);
  if (number && !prints.startsWith('[') && !prints.startsWith('{')) return Number(number[1]!.replaceAll(' ', ''));
  return prints;
}

// What is written with a name of its own (`law`, `trial`) shows a shape, and cannot be run.
const examples = files.flatMap(examplesIn).flatMap((each) => {
  const names = Object.keys(core);
  try {
    const run = new Function(...names, `return (${each.expression});`) as (...values: unknown[]) => unknown;
    return [{ ...each, value: run(...Object.values(core)) }];
  } catch (error) {
    if (error instanceof ReferenceError || error instanceof SyntaxError) return [];
    throw new Error(`${each.file}: ${each.expression}`, { cause: error });
  }
});

test('there are examples that can be run', () => {
  expect(examples.length).toBeGreaterThan(25);
});

test.each(examples.map((each) => [each.expression, each] as const))('%s', (_, { value, prints }) => {
  const wanted = shown(prints);
  if (typeof value === 'number' && typeof wanted === 'number') {
    // To as many digits as are written.
    const digits = String(wanted).split('.')[1]?.length ?? 0;
    const step = Math.max(0.5 * 10 ** -digits, 1e-3 * Math.abs(wanted));
    expect(Math.abs(value - wanted)).toBeLessThanOrEqual(step);
    return;
  }
  if (typeof value === 'string') expect(prints.replaceAll(/^'|'$/g, '')).toBe(value);
  else {
    const plain = (text: string) => text.replaceAll(/['"\s]/g, '').replaceAll(/,([}\]])/g, '$1');
    const rounded = JSON.stringify(value, (_key, each: unknown) =>
      typeof each === 'number' ? Number(each.toPrecision(4)) : each,
    );
    // An ellipsis leaves out what is not the point.
    const [start, end = ''] = plain(prints).split('…');
    expect(plain(rounded).startsWith(start!)).toBe(true);
    expect(plain(rounded).endsWith(end)).toBe(true);
  }
});
