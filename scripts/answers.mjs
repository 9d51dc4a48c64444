// Makes the schemas of all answers, for the OpenAPI document, from the types that the compiler holds the code to.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import * as typesToSchema from 'typescript-json-schema';
import { root } from './lib.mjs';

const source = join(root, 'apps/server/src/openapi/answer-types.ts');
const options = {
  ...{ strict: true, skipLibCheck: true, allowImportingTsExtensions: true, noEmit: true, types: ['node'] },
  ...{ target: 'es2023', lib: ['lib.es2023.d.ts'], module: 'nodenext', moduleResolution: 'nodenext' },
};
const program = typesToSchema.getProgramFromFiles([source], options, root);
// It notes every answer that is worked out rather than written down: here that is all of them.
const { warn } = console;
console.warn = (said, ...more) => (/initializer/.test(String(said)) ? undefined : warn(said, ...more));
const schema = typesToSchema.generateSchema(program, 'Answers', {
  ...{ required: true, strictNullChecks: true, ignoreErrors: true, noExtraProps: false },
});
if (!schema) throw new Error(`No schema could be made from the types of ${source}.`);

/** Types are named by their last name: `import("…").Plan` is Plan; what has none, by its number. */
const names = new Map();
const short = (long) => {
  if (!names.has(long)) {
    const plain = /(?:^|\.)([A-Za-z]\w*)$/.exec(long)?.[1] ?? 'Shape';
    const taken = new Set(names.values());
    let name = plain;
    for (let n = 2; taken.has(name); n += 1) name = `${plain}${n}`;
    names.set(long, name);
  }
  return names.get(long);
};
const PREFIX = '#/definitions/';
/** References by their short names, to where the document keeps schemas. */
function renamed(value) {
  if (Array.isArray(value)) return value.map(renamed);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, each]) => [
      key,
      key === '$ref' && typeof each === 'string' && each.startsWith(PREFIX)
        ? `#/components/schemas/${short(decodeURIComponent(each.slice(PREFIX.length)))}`
        : renamed(each),
    ]),
  );
}

const answers = { routes: renamed(schema.properties), definitions: {} };
for (const [long, definition] of Object.entries(schema.definitions ?? {})) {
  answers.definitions[short(long)] = renamed(definition);
}
writeFileSync(join(root, 'apps/server/src/openapi/answers.json'), JSON.stringify(answers));
console.log(`${Object.keys(answers.routes).length} answers, ${Object.keys(answers.definitions).length} shapes.`);
