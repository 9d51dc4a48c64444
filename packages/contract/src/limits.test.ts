import * as yup from 'yup';
import { ROUTES } from './routes.ts';

// Whatever comes in over the wire has an end: every number its range and unit, every text its longest, every list its
// most, every object no unknown fields. Asked of every field of every route, so that none can be forgotten.
type Field = yup.SchemaDescription & {
  fields?: Record<string, Field>;
  innerType?: Field;
  tests: { name?: string; params?: Record<string, unknown> }[];
  meta?: { unit?: string; allowed?: string };
};

const schemas = (): [string, yup.AnySchema][] =>
  Object.entries(ROUTES).flatMap(([route, given]) => {
    const { body, query } = given as {
      body?: { schema?: yup.AnySchema; schemas?: Record<string, unknown> };
      query?: yup.AnySchema;
    };
    const found: [string, yup.AnySchema][] = [];
    const walk = (name: string, value: unknown) => {
      if (yup.isSchema(value)) found.push([name, value as yup.AnySchema]);
      else if (value && typeof value === 'object') {
        for (const [key, inner] of Object.entries(value)) walk(`${name} ${key}`, inner);
      }
    };
    walk(`${route} query`, query);
    walk(`${route} body`, body);
    return found;
  });

/** Every field below a schema that is no object or list itself, and every object and list. */
function* fieldsOf(name: string, field: Field): Generator<[string, Field]> {
  yield [name, field];
  for (const [key, inner] of Object.entries(field.fields ?? {})) yield* fieldsOf(`${name}.${key}`, inner);
  if (field.innerType) yield* fieldsOf(`${name}[]`, field.innerType);
}
const has = (field: Field, test: string) => field.tests.some(({ name }) => name === test);

const FIELDS = schemas().flatMap(([name, schema]) => [...fieldsOf(name, schema.describe() as Field)]);
const of = (type: string) => FIELDS.filter(([, field]) => field.type === type);

test('there is something to ask: hundreds of fields over the routes that take any', () => {
  expect(of('number').length).toBeGreaterThan(150);
  expect(of('string').length).toBeGreaterThan(100);
  expect(of('array').length).toBeGreaterThan(15);
});

test('every number has its range and its unit', () => {
  const loose = of('number').filter(([, field]) => {
    const listed = (field.oneOf ?? []).length > 0;
    return field.meta?.unit === undefined || (!listed && !(has(field, 'min') && has(field, 'max')));
  });
  expect(loose.map(([name]) => name)).toEqual([]);
});

test('every text has an end: a longest, a list of words, or a pattern that says what is allowed', () => {
  const loose = of('string').filter(([, field]) => {
    const listed = (field.oneOf ?? []).length > 0;
    const patterned = has(field, 'matches') && field.meta?.allowed !== undefined;
    return !listed && !patterned && !has(field, 'max');
  });
  expect(loose.map(([name]) => name)).toEqual([]);
});

test('every list has a most, every object refuses what it does not know', () => {
  expect(of('array').flatMap(([name, field]) => (has(field, 'max') ? [] : [name]))).toEqual([]);
  const open = of('object').filter(
    ([, field]) => Object.keys(field.fields ?? {}).length > 0 && !has(field, 'noUnknown'),
  );
  expect(open.map(([name]) => name)).toEqual([]);
  const empty = of('object').filter(([, field]) => Object.keys(field.fields ?? {}).length === 0);
  expect(empty.map(([name]) => name)).toEqual([]);
});
