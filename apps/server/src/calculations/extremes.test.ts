import { QuantityError } from '@schmelz/core';
import { jsonSchema } from '../openapi/json-schema.ts';
import { InvalidInput, parseWith } from '@schmelz/contract';
import type { Calculation } from './calculation.ts';
import { CALCULATIONS as BY_NAME } from './index.ts';

const CALCULATIONS = BY_NAME as object as Record<string, Calculation>;

interface Json {
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  oneOf?: Json[];
  properties?: Record<string, Json>;
  items?: Json;
  minItems?: number;
  maxItems?: number;
  minimum?: number;
  maximum?: number;
  pattern?: string;
}
/** Which end of every range, and how long the lists. */
interface End {
  high: boolean;
  most: number;
}

/** A text that its pattern allows: ids, colours and days. */
function textFor(pattern = ''): string {
  if (pattern.includes('{36}')) return '00000000-0000-4000-8000-000000000001';
  if (pattern.includes('#')) return '#a1b2c3';
  return pattern.includes('{4}-') ? '2026-05-31' : 'x';
}

/** Entries of a list differ by what names them, and follow each other in time. */
function entry(made: unknown, i: number): unknown {
  if (typeof made !== 'object' || made === null || Array.isArray(made)) return made;
  const own = { ...(made as Record<string, unknown>) };
  for (const name of ['id', 'materialId', 'name']) if (typeof own[name] === 'string') own[name] = `x${i}`;
  if (typeof own['position'] === 'number') own['position'] = (i % 12) + 1;
  for (const time of ['at', 'atS']) {
    const at = own[time];
    if (typeof at === 'number') own[time] = at > 1e6 ? at - 1e6 + i : at + i * 1000;
  }
  return own;
}

/** A value at one end of all that a schema allows. */
function extreme(schema: Json, end: End): unknown {
  const of = schema.enum?.filter((each) => each !== null);
  if (schema.const !== undefined) return schema.const;
  if (of?.length) return end.high ? of.at(-1) : of[0];
  if (schema.oneOf) return extreme(end.high ? schema.oneOf.at(-1)! : schema.oneOf[0]!, end);
  const type = [schema.type].flat().find((each) => each !== 'null');
  if (type === 'object') {
    return Object.fromEntries(
      Object.entries(schema.properties ?? {}).map(([name, each]) => [name, extreme(each, end)]),
    );
  }
  if (type === 'array') {
    const length = Math.max(schema.minItems ?? 0, Math.min(schema.maxItems ?? 3, end.most));
    return Array.from({ length }, (_, i) => entry(extreme(schema.items ?? {}, end), i));
  }
  if (type === 'number' || type === 'integer') return end.high ? (schema.maximum ?? 1) : (schema.minimum ?? 0);
  if (type === 'boolean') return end.high;
  return type === 'string' ? textFor(schema.pattern) : null;
}

/** What becomes of a calculation: done, refused in words, or what must not be. */
function outcome(name: string, input: unknown): string {
  const { input: schema, run } = CALCULATIONS[name]!;
  try {
    const result = run(parseWith(schema, input) as never);
    return result === undefined ? 'nothing came of it' : 'done';
  } catch (error) {
    if (error instanceof InvalidInput || error instanceof QuantityError) {
      return error.message.length > 10 ? 'refused' : `refused without words: ${error.message}`;
    }
    return String(error);
  }
}

describe('every calculation at the extremes of its schema ends, done or refused in words', () => {
  const ends: [string, End][] = [
    ['least of all', { high: false, most: 1 }],
    ['most of all', { high: true, most: 1 }],
    ['long lists of the least', { high: false, most: 2000 }],
    ['long lists of the most', { high: true, most: 2000 }],
  ];
  const cases = Object.keys(CALCULATIONS).flatMap((name) => ends.map(([says, end]) => [name, says, end] as const));
  test.each(cases)('%s, %s', (name, _says, end) => {
    const input = extreme(jsonSchema(CALCULATIONS[name]!.input) as Json, end);
    expect(['done', 'refused']).toContain(outcome(name, input));
  });

  test('most of them are calculated, not refused', () => {
    const done = Object.keys(CALCULATIONS).filter((name) => {
      const schema = jsonSchema(CALCULATIONS[name]!.input) as Json;
      return ends.some(([, end]) => end.most === 1 && outcome(name, extreme(schema, end)) === 'done');
    });
    expect(done.length).toBeGreaterThan(0.7 * Object.keys(CALCULATIONS).length);
  });

  test('a list of wrong rows is told by its first twenty', () => {
    const rows = Array.from({ length: 5000 }, () => ({ at: -1, kg: 'much', reason: '' }));
    expect(() => parseWith(CALCULATIONS['trace-lots']!.input, { lots: [], flows: rows })).toThrow(InvalidInput);
    try {
      parseWith(CALCULATIONS['trace-lots']!.input, { lots: [], flows: rows });
    } catch (error) {
      expect((error as InvalidInput).fields).toHaveLength(20);
    }
  });
});
