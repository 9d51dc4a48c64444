import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import { openApiDocument } from '../openapi/document.ts';

interface Document {
  paths: Record<
    string,
    Record<string, { responses?: Record<string, { content?: Record<string, { schema: object }> }> }>
  >;
  components: object;
}

const document = openApiDocument() as unknown as Document;
const ajv = new Ajv2020({ strict: false });
const judges = new Map<string, ValidateFunction>();

/**
 * Whether an answer is what the document says of its route: null, or what is wrong with it. An independent validator
 * judges; the schemas come from the types, the answer from the server.
 * @param path as in the document, with its parameters in braces
 */
export function answersHold(method: string, path: string, status: number, said: unknown): string | null {
  const key = `${method} ${path}`;
  const content = document.paths[path]?.[method.toLowerCase()]?.responses?.[status]?.content;
  if (!content)
    return status === 204 && (said === null || said === undefined)
      ? null
      : `${key} answers ${status}, which the document does not know`;
  const schema = content['application/json']?.schema;
  if (!schema) return null;
  const judge = judges.get(key) ?? ajv.compile({ ...schema, components: document.components });
  judges.set(key, judge);
  return judge(said) ? null : `${key}: ${ajv.errorsText(judge.errors)}`;
}
