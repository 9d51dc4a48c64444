import { InvalidInput } from '../problem.ts';

// The ends of numbers, texts and lists, for tests that try them: what lies at an end is taken, what lies just beyond it
// is refused, by the name of its field.
export const id = '00000000-0000-4000-8000-000000000001';
export const other = '00000000-0000-4000-8000-000000000002';
export const text = (length: number): string => 'x'.repeat(length);
export const times = <T>(of: T, count: number): T[] => Array.from({ length: count }, () => of);

export type Doc = Record<string, unknown>;
/** A field by its path, with what is just too little, the least, the most, and just too much; null: no such end. */
export type Ends = [path: string, below: unknown, least: unknown, most: unknown, above: unknown];

const setAt = (doc: unknown, path: string, value: unknown): unknown => {
  const copy = structuredClone(doc) as Doc;
  const keys = path.split('.');
  let at: Doc = copy;
  for (const key of keys.slice(0, -1)) at = at[key] as Doc;
  at[keys.at(-1)!] = value;
  return copy;
};
/** `cavities.0.style` as errors name it. */
const named = (path: string) => path.replaceAll(/\.(\d+)/g, '[$1]');

function refusals(judge: (value: unknown) => unknown, value: unknown): string[] {
  try {
    judge(value);
    return [];
  } catch (error) {
    if (error instanceof InvalidInput) return error.fields.map(({ field }) => field);
    throw error;
  }
}

/** Tries both ends of each field of a document. */
export function tryEnds(judge: (value: unknown) => unknown, doc: unknown, ends: readonly Ends[]): void {
  expect(refusals(judge, doc)).toEqual([]);
  for (const [path, below, least, most, above] of ends) {
    for (const good of [least, most]) {
      if (good !== null) expect([path, good, refusals(judge, setAt(doc, path, good))]).toEqual([path, good, []]);
    }
    for (const bad of [below, above]) {
      if (bad === null) continue;
      const fields = refusals(judge, setAt(doc, path, bad));
      expect([path, bad, fields.length > 0]).toEqual([path, bad, true]);
      // Across fields the whole may be named; a field is named by its place.
      const isNear = (field: string) => field.startsWith(named(path)) || named(path).startsWith(field);
      const near = fields.some((field) => isNear(field) || field === 'the request');
      expect([path, bad, fields, near]).toEqual([path, bad, fields, true]);
    }
  }
}
