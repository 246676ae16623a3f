import { createRequire } from 'node:module';
import type Joi from 'joi';
import type { AnyEndpoint } from './endpoint.ts';

/** What endpoints answer, made from their types (`npm run contract`). */
const { schemas, answers } = createRequire(import.meta.url)('@fadenweg/api/answers.json') as {
  schemas: Record<string, object>;
  answers: Record<string, { schema?: object; nothing?: boolean; media?: string }>;
};

interface Described {
  type?: string;
  flags?: { presence?: string; only?: boolean; default?: unknown; description?: string };
  allow?: unknown[];
  rules?: { name: string; args?: { limit?: number } }[];
  keys?: Record<string, Described>;
  items?: Described[];
  matches?: { schema?: Described; then?: Described; otherwise?: Described; switch?: { then?: Described; otherwise?: Described }[] }[];
  patterns?: { rule: Described }[];
}

/** A Joi schema in the words of JSON Schema, as far as the API's own schemas go. */
function jsonSchema(described: Described): Record<string, unknown> {
  const { type = 'any', flags, allow, rules = [], keys, items, matches, patterns } = described;
  const limit = (name: string): number | undefined => rules.find((rule) => rule.name === name)?.args?.limit;
  const schema: Record<string, unknown> = {};
  if (type === 'number')
    Object.assign(schema, {
      type: rules.some((rule) => rule.name === 'integer') ? 'integer' : 'number',
      minimum: limit('min'),
      maximum: limit('max'),
    });
  else if (type === 'string') Object.assign(schema, { type: 'string', minLength: limit('min'), maxLength: limit('max') });
  else if (type === 'boolean') schema.type = 'boolean';
  else if (type === 'array') Object.assign(schema, { type: 'array', maxItems: limit('max'), items: items?.[0] ? jsonSchema(items[0]) : {} });
  else if (type === 'object') {
    const required = Object.entries(keys ?? {})
      .filter(([, key]) => key.flags?.presence === 'required')
      .map(([name]) => name);
    Object.assign(schema, {
      type: 'object',
      properties: Object.fromEntries(Object.entries(keys ?? {}).map(([name, key]) => [name, jsonSchema(key)])),
      required: required.length > 0 ? required : undefined,
      additionalProperties: patterns?.[0] ? jsonSchema(patterns[0].rule) : !keys,
    });
  } else if (type === 'alternatives') schema.anyOf = (matches ?? []).flatMap(schemasWithin).map(jsonSchema);
  if (flags?.only && allow) schema.enum = allow.filter((value) => value !== null);
  if (allow?.includes(null) && type !== 'any') return { anyOf: [tidied(schema, flags), { type: 'null' }] };
  return tidied(schema, flags);
}
type Match = NonNullable<Described['matches']>[number];
/** What one part of an alternative may be: itself, or either branch where it hangs on something else. */
function schemasWithin({ schema, then, otherwise, switch: cases = [] }: Match): Described[] {
  return [schema, then, otherwise, ...cases.flatMap((one) => [one.then, one.otherwise])].filter((one) => one !== undefined);
}
function tidied(schema: Record<string, unknown>, flags: Described['flags']): Record<string, unknown> {
  if (flags?.default !== undefined && typeof flags.default !== 'object') schema.default = flags.default;
  if (flags?.description) schema.description = flags.description;
  return Object.fromEntries(Object.entries(schema).filter(([, value]) => value !== undefined));
}
const describe = (schema: Joi.Schema): Described => schema.describe() as unknown as Described;
/** What a call takes, in the words of JSON Schema. */
export const inputSchema = (schema: Joi.Schema): Record<string, unknown> => jsonSchema(describe(schema));

/** Answers of a call that went well, by status. */
function responsesOf(one: AnyEndpoint): Record<string, object> {
  const { schema, nothing, media } = answers[`${one.method} ${one.path}`] ?? {};
  const found: Record<string, object> = {};
  if (schema) found[String(one.status ?? 200)] = { description: 'Done', content: { 'application/json': { schema } } };
  if (media) found[String(one.status ?? 200)] = { description: 'Done', content: { [media]: {} } };
  if (nothing) found[schema ? '204' : String(one.status ?? 204)] = { description: 'Done; there is nothing to tell' };
  return found;
}

/** The description of the whole API (OpenAPI 3.1), made from its endpoints. */
export function openApi(endpoints: readonly AnyEndpoint[], version: string): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const one of endpoints) {
    const parameters = [
      ...Object.entries(one.params ? (describe(one.params).keys ?? {}) : {}).map(([name, key]) => ({
        name,
        in: 'path',
        required: true,
        schema: jsonSchema(key),
      })),
      ...Object.entries(one.query ? (describe(one.query).keys ?? {}) : {}).map(([name, key]) => ({
        name,
        in: 'query',
        required: key.flags?.presence === 'required',
        schema: jsonSchema(key),
      })),
    ];
    const problem = {
      description: 'A problem, with what to do',
      content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
    };
    (paths[`/api${one.path}`] ??= {})[one.method] = {
      summary: one.summary,
      ...(parameters.length > 0 ? { parameters } : {}),
      ...(one.body ? { requestBody: { required: true, content: { 'application/json': { schema: jsonSchema(describe(one.body)) } } } } : {}),
      ...(one.multipart
        ? {
            requestBody: {
              required: true,
              content: {
                'multipart/form-data': {
                  schema: { type: 'object', properties: { file: { type: 'array', items: { type: 'string', format: 'binary' } } } },
                },
              },
            },
          }
        : {}),
      responses: { ...responsesOf(one), default: problem },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Fadenweg',
      version,
      description:
        'Follows single transactions, jobs and calls through the logs of many systems. Lists are paged by key: `limit` and `after`, answer `{items, next}`.',
    },
    paths,
    components: {
      schemas: {
        ...schemas,
        Problem: {
          type: 'object',
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            action: { type: 'string' },
          },
          required: ['type', 'title', 'status', 'detail'],
        },
      },
    },
  };
}
