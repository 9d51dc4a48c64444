import { parseWith, type PathPart, type Period, type Route } from '@schmelz/contract';
import type { Context } from 'koa';
import type * as yup from 'yup';
import { notFound, Refused } from '../services/errors.ts';

/** A part of a path, as its route reads it; what can be none names nothing. @throws Refused */
export function parsePart({ parts }: Route, name: string, given: string): string | number {
  const part = (parts as Record<string, PathPart> | undefined)?.[name];
  const none = (what: string) => notFound(what, JSON.stringify(given.slice(0, 64)));
  switch (part?.is) {
    case 'number':
      if (!/^\d{1,12}$/.test(given)) throw none(part.what);
      return Number(given);
    case 'choice':
      if (!part.of.includes(given)) throw none(part.what);
      return given;
    default:
      if (!/^[\w-]{1,64}$/.test(given)) throw none('record');
      return given;
  }
}

/** What the device's clock said when it sent this, ms since 1970; null where it does not say. */
export function clockOf(ctx: Context): number | null {
  const said = ctx.get('schmelz-clock');
  return /^\d{1,15}$/.test(said) ? Number(said) : null;
}

/** The query of an address, with numbers where its schema wants them; what is no number is refused in words. */
export function queryOf(ctx: Context, schema: yup.AnySchema): unknown {
  const { fields } = schema.describe() as yup.SchemaObjectDescription;
  const read = (field: string, given: unknown) =>
    fields[field]?.type === 'number' && typeof given === 'string' && given.trim() !== '' && !Number.isNaN(Number(given))
      ? Number(given)
      : given;
  return parseWith(
    schema,
    Object.fromEntries(Object.entries(ctx.query).map(([field, given]) => [field, read(field, given)])),
  );
}

/** The period that is asked for; null where everything is. */
export const periodOf = ({ from, to }: { from?: number; to?: number }): Period | null =>
  from === undefined && to === undefined ? null : { from: from ?? 0, to: to ?? Number.MAX_SAFE_INTEGER };

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
