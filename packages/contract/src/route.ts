import type * as yup from 'yup';

/** What a part of a path names: the id of a record, the number of a row, or one of a few words. */
export type PathPart =
  { is: 'id' } | { is: 'number'; what: string } | { is: 'choice'; what: string; of: readonly string[] };
type ReadPart<P> = P extends { is: 'number' } ? number : P extends { of: readonly (infer T)[] } ? T : string;

/** Schemas of entries by their kind, and what any of them lets through. */
export type Schemas = Record<string, yup.AnySchema>;
type Through<S extends Schemas> = { [K in keyof S]: yup.InferType<S[K]> }[keyof S];

/** What is sent: judged by a schema, by the schema of its own kind, a file of separated values, or a whole workshop. */
export type Body<T> =
  | { is: 'json'; schema: yup.AnySchema; sent?: T }
  | { is: 'entry'; schemas: Schemas; sent?: T }
  | { is: 'entry of'; part: string; schemas: Record<string, Schemas>; sent?: T }
  | { is: 'csv'; sent?: T }
  | { is: 'document'; sent?: T };

/** What comes back; the type of it is known to the compiler alone, and from there to the document. */
export interface Answer<T> {
  status: 200 | 201 | 204;
  type: 'application/json' | 'text/csv' | 'text/event-stream';
  sent?: T;
}

/** One line of the table that router, document and client are made from. */
export interface Route<Parts = object, Query = unknown, Sent = unknown, Given = unknown> {
  /** Its name in the document. */
  operation: string;
  summary: string;
  description?: string;
  /** Parts of its path that are no plain id. */
  parts?: Parts;
  query?: yup.Schema<Query>;
  body?: Body<Sent>;
  /** The body names the version that it was made from. */
  versioned?: boolean;
  /** Answered to whoever asks, logged in or not. */
  open?: boolean;
  answer: Answer<Given>;
}

/** @internal what a route is asked with, beside what its path names */
export type QueryOf<R> = R extends { query: yup.Schema<infer Q> } ? Q : Record<never, never>;
export type BodyOf<R> = R extends { body: Body<infer T> }
  ? R extends { versioned: true }
    ? T & { version: number }
    : T
  : undefined;
export type AnswerOf<R> = R extends { answer: Answer<infer T> } ? T : never;

/** The names in a path: `id` and `receipt` in `/materials/:id/lots/:receipt`. */
type NamesIn<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;
export type ParamsOf<Key extends string, R> = {
  [Name in NamesIn<Key>]: R extends { parts: infer P } ? (Name extends keyof P ? ReadPart<P[Name]> : string) : string;
};

/** @internal */
export const json = <T = void>(): Answer<T> => ({ status: 200, type: 'application/json' });
export const made = <T>(): Answer<T> => ({ status: 201, type: 'application/json' });
export const nothing: Answer<void> = { status: 204, type: 'application/json' };
/** A file or a stream, as it comes. */
export const file = (type: Answer<unknown>['type']): Answer<unknown> => ({ status: 200, type });

export const body = <S extends yup.AnySchema>(schema: S): { is: 'json'; schema: S; sent?: yup.InferType<S> } => ({
  is: 'json',
  schema,
});
/** An entry of a log, judged by the schema of its own kind. */
export const entry = <S extends Schemas>(schemas: S): { is: 'entry'; schemas: S; sent?: Through<S> } => ({
  is: 'entry',
  schemas,
});
/** An entry of one of several logs: which, a part of the path says. */
export const entryBy = <S extends Record<string, Schemas>>(
  part: string,
  schemas: S,
): { is: 'entry of'; part: string; schemas: S; sent?: { [K in keyof S]: Through<S[K]> }[keyof S] } => ({
  is: 'entry of',
  part,
  schemas,
});
export const csv: { is: 'csv'; sent?: string } = { is: 'csv' };
/** A large JSON document as it lies in a file: whoever takes it in reads it. */
export const document: { is: 'document'; sent?: string } = { is: 'document' };

/** A part of a path that is the number of a row. */
export const row = <W extends string>(what: W) => ({ is: 'number', what }) as const;
export const oneOf = <T extends string>(what: string, of: readonly T[]) => ({ is: 'choice', what, of }) as const;
