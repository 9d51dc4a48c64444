import { parseWith } from '@schmelz/contract';
import type { Context } from 'koa';
import { Refused } from '../services/errors.ts';

/** What was sent. */
export const bodyOf = (ctx: Context): unknown => ctx.request.body;
export const idOf = (ctx: { params: Record<string, string | undefined> }) => ctx.params['id'] ?? '';

/** The version that a write was made from, and the rest of the body. */
export function versioned(body: unknown): { version: number; rest: Record<string, unknown> } {
  const { version, ...rest } = (body ?? {}) as Record<string, unknown>;
  if (!Number.isInteger(version) || (version as number) < 0) {
    const allowed = 'the version number that the record had when you read it';
    const message = `version is ${JSON.stringify(version) ?? 'missing'}; allowed: ${allowed}`;
    throw new Refused(422, 'Not allowed', message, {
      fields: [{ field: 'version', value: version, unit: '', allowed, message }],
    });
  }
  return { version: version as number, rest };
}

/** The entry of a log, checked by the schema of its own kind. */
export function entryIn<E>(
  schemas: Record<string, Parameters<typeof parseWith>[0]>,
  kindSchema: Parameters<typeof parseWith>[0],
  body: unknown,
): E {
  const { kind } = parseWith(kindSchema, body) as { kind: string };
  return parseWith(schemas[kind]!, body) as E;
}
