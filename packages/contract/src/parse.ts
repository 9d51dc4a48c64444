import { isSaid, quantityText, rangeText } from '@schmelz/core';
import * as yup from 'yup';
import { InvalidInput, type FieldProblem } from './problem.ts';

const TYPE_WORDS: Record<string, string> = {
  number: 'a number',
  string: 'text',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
};

/** What a schema allows, in words, from its own tests. */
export function allowedBy(described: yup.SchemaFieldDescription): string {
  if (!('tests' in described)) return 'something else';
  const meta = 'meta' in described ? described.meta : undefined;
  if (meta?.allowed) return meta.allowed;
  if ('oneOf' in described && described.oneOf.length) return described.oneOf.map(String).join(', ');
  const param = (name: string) => described.tests.find((test) => test.name === name)?.params?.[name];
  const integer = described.tests.some((test) => test.name === 'integer');
  const [min, max] = [param('min'), param('max')];
  if (described.type === 'number') {
    const unit = meta?.unit ?? '';
    const range = min !== undefined && max !== undefined ? ` from ${rangeText(min, max, unit)}` : unit && ` ${unit}`;
    return `${integer ? 'a whole number' : 'a number'}${range}`;
  }
  if (described.type === 'array') return `${String(min ?? 0)} to ${String(max ?? 'any number of')} entries`;
  if (described.type === 'string') return max !== undefined ? `text of 1 to ${String(max)} characters` : 'text';
  return TYPE_WORDS[described.type] ?? described.type;
}

const describeAt = (schema: yup.AnySchema, path: string): yup.SchemaFieldDescription | null => {
  if (!path) return schema.describe();
  try {
    return (yup.reach(schema, path) as yup.AnySchema).describe();
  } catch {
    return null;
  }
};

/** Values are quoted back, but not at any length. */
const quoted = (value: unknown): unknown => {
  if (typeof value === 'string' && value.length > 120) return `${value.slice(0, 120)}…`;
  return typeof value === 'object' && value !== null ? `${Array.isArray(value) ? 'a list' : 'an object'}` : value;
};

/** A list of ten thousand wrong rows is told by its first ones. */
const MOST_PROBLEMS = 20;

/** The fields that a failed validation refused, the first of them where there are many. */
export function fieldProblems(error: yup.ValidationError, schema: yup.AnySchema): FieldProblem[] {
  const inner = error.inner.length ? error.inner : [error];
  return inner.slice(0, MOST_PROBLEMS).map((each) => {
    const path = each.path ?? '';
    const described = describeAt(schema, path);
    const unit = described && 'meta' in described ? (described.meta?.unit ?? '') : '';
    const unknown = each.type === 'noUnknown';
    const custom = each.errors[0] ?? 'is not allowed';
    // What the core refuses, and what is asked across fields, has its own words.
    const own = /^(core|across) |^noUnknown$/.test(each.type ?? '');
    const words = unknown ? custom.replace(/^(this|\S+) field /, '') : custom;
    const allowed = own || !described ? words : allowedBy(described);
    const value = unknown ? each.params?.unknown : quoted(each.params?.originalValue ?? each.value);
    const name = path || 'the request';
    const given = value === undefined ? 'missing' : quantityText(JSON.stringify(value), isSaid(unit) ? unit : '');
    const message = own ? `${name} ${words}` : `${name} is ${given}; allowed: ${allowed}`;
    return { field: name, value, unit, allowed, message };
  });
}

/** Returns `value` typed when it fits, strictly (nothing is converted), else throws {@link InvalidInput}. */
export function parseWith<S extends yup.AnySchema>(schema: S, value: unknown): yup.InferType<S> {
  try {
    return schema.validateSync(value, { strict: true, abortEarly: false, disableStackTrace: true }) as yup.InferType<S>;
  } catch (error) {
    if (error instanceof yup.ValidationError) throw new InvalidInput(fieldProblems(error, schema));
    throw error;
  }
}

/** The entry of a log, judged by the schema of its own kind, so that a refusal names the field that is wrong. */
export function parseEntry<S extends Record<string, yup.AnySchema>>(
  schemas: S,
  value: unknown,
): { [K in keyof S]: yup.InferType<S[K]> }[keyof S] {
  const kinds = Object.keys(schemas);
  const { kind } = parseWith(yup.object({ kind: yup.string().required().oneOf(kinds) }).required(), value);
  return parseWith(schemas[kind]!, value);
}
