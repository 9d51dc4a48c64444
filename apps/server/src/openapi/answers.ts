import made from './answers.json' with { type: 'json' };
import type { Json } from './json-schema.ts';

const routes: Record<string, Json> = made.routes;

/** Schemas of all answers, made from their types by scripts/answers.mjs before anything is compiled. */
export const answers = {
  /** Of one route or calculation. @throws Error where none was made */
  of(key: string): Json {
    const schema = routes[key];
    if (!schema) throw new Error(`There is no schema of what ${key} answers.`);
    return schema;
  },
  definitions: made.definitions as Record<string, Json>,
};
