import { convertSchema } from '@sodaru/yup-to-json-schema';
import type * as yup from 'yup';

export type Json = { [key: string]: unknown };

/** JSON Schema of a Yup schema, closed to unknown fields, with units as `x-unit`. */
export function jsonSchema(schema: yup.AnySchema): Json {
  return annotate(convertSchema(schema) as Json, schema.describe());
}

function annotate(json: Json, described: yup.SchemaFieldDescription): Json {
  // The converter gives every object an empty default, which would not be valid.
  const { default: _unused, ...kept } = json;
  const unit = 'meta' in described ? described.meta?.unit : undefined;
  if (unit) kept['x-unit'] = unit;
  if ('fields' in described && kept['properties']) {
    const properties = kept['properties'] as Record<string, Json>;
    kept['properties'] = Object.fromEntries(
      Object.entries(properties).map(([name, each]) => [name, annotate(each, described.fields[name]!)]),
    );
    kept['additionalProperties'] = false;
  }
  if ('innerType' in described && described.innerType && !Array.isArray(described.innerType) && kept['items']) {
    kept['items'] = annotate(kept['items'] as Json, described.innerType as yup.SchemaFieldDescription);
  }
  if (kept['enum'] && Array.isArray(kept['type'])) kept['enum'] = [...(kept['enum'] as unknown[]), null];
  return kept;
}
