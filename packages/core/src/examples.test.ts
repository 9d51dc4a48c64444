import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as core from './index.ts';
import * as oven from './test/bake.ts';
import * as things from './test/examples.ts';
import { solver } from './test/solve.ts';
import * as workshop from './test/workshop.ts';

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

let solve: unknown;
beforeAll(async () => {
  solve = await solver();
});

async function run({ file, expression }: Example): Promise<unknown> {
  const scope = await scopeOf(file);
  return (new Function(...Object.keys(scope), `return (${expression});`) as (...all: unknown[]) => unknown)(
    ...Object.values(scope),
  );
}

/** What core shows, what a file shows within core, and the small workshop of `test/` that examples speak of. */
const scopeOf = async (file: string): Promise<Record<string, unknown>> => ({
  ...core,
  ...((await import(join(folder, file))) as Record<string, unknown>),
  ...{ ...oven, ...workshop, ...things, solve },
});
const examples = files.flatMap(examplesIn);
/** What is written with a name of its own (`law`, `trial`) shows a shape, and cannot be run. */
const shape = (error: unknown) => error instanceof ReferenceError || error instanceof SyntaxError;

// These values came from the functions themselves: they say when one gives something else than before, and nothing of
// whether it is right. That is checked beside each model, against what docs/models.md names.
describe('change detectors: what docstrings show is what comes today', () => {
  let shapes = 0;

  test.each(examples.map((each) => [each.expression, each] as const))('%s', async (_, each) => {
    const { prints } = each;
    let value: unknown;
    try {
      value = await run(each);
    } catch (error) {
      if (shape(error)) {
        shapes += 1;
        return;
      }
      throw error;
    }
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
      const plain = (text = 'undefined') => text.replaceAll(/['"\s]/g, '').replaceAll(/,([}\]])/g, '$1');
      const rounded = JSON.stringify(value, (_key, each: unknown) =>
        typeof each === 'number' ? Number(each.toPrecision(4)) : each,
      );
      // An ellipsis leaves out what is not the point.
      const [start, end = ''] = plain(prints).split('…');
      expect(plain(rounded).startsWith(start!)).toBe(true);
      expect(plain(rounded).endsWith(end)).toBe(true);
    }
  });

  test('nearly all examples can be run', () => {
    expect(examples.length - shapes).toBeGreaterThan(400);
    expect(shapes / examples.length).toBeLessThan(0.1);
  });
});
