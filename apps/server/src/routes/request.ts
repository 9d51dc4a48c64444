import { parseWith, periodQuerySchema } from '@schmelz/contract';
import type { Context } from 'koa';
import { notFound, Refused } from '../services/errors.ts';

/** What was sent. */
export const bodyOf = (ctx: Context): unknown => ctx.request.body;

type WithParams = { params: Record<string, string | undefined> };

/** The id in a path; what can be none names nothing. */
export function idOf({ params }: WithParams): string {
  const id = params['id'] ?? '';
  if (!/^[\w-]{1,64}$/.test(id)) throw notFound('record', JSON.stringify(id.slice(0, 64)));
  return id;
}

/** What the device's clock said when it sent this, ms since 1970; null where it does not say. */
export function clockOf(ctx: Context): number | null {
  const said = ctx.get('schmelz-clock');
  return /^\d{1,15}$/.test(said) ? Number(said) : null;
}

/** A number in a path: of a lot, a movement, a channel. */
export function numberOf({ params }: WithParams, name: string, what: string): number {
  const given = params[name] ?? '';
  if (!/^\d{1,12}$/.test(given)) throw notFound(what, JSON.stringify(given.slice(0, 64)));
  return Number(given);
}

/** The query of an address, with numbers where they are meant. What is no number is left, and refused in words. */
export function numbersIn(ctx: Context, fields: readonly string[]): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(ctx.query).map(([field, given]) => {
      const isNumber = fields.includes(field) && typeof given === 'string' && given.trim() !== '';
      return [field, isNumber && !Number.isNaN(Number(given)) ? Number(given) : given];
    }),
  );
}

/** The period that is asked for; null where everything is. */
export function periodIn(ctx: Context): { from: number; to: number } | null {
  const { from, to } = parseWith(periodQuerySchema, numbersIn(ctx, ['from', 'to']));
  return from === undefined && to === undefined ? null : { from: from ?? 0, to: to ?? Number.MAX_SAFE_INTEGER };
}

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
