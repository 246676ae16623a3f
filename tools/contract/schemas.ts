import { createGenerator } from 'ts-json-schema-generator';
import type { Answered } from './answered.ts';
import { STREAMS } from './answered.ts';

type Schema = Record<string, unknown>;

/** `Page<JobRuns>` is no name in an address: `Page.JobRuns`. */
const tidyName = (name: string): string => decodeURIComponent(name).replaceAll(/[^A-Za-z0-9_]+/g, '.').replace(/^\.|\.$/g, ''); // prettier-ignore

/** As OpenAPI has it: references by tidy names, tuples in the words of JSON Schema 2020-12. */
function asDescribed(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(asDescribed);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, part]) => {
      if (key === '$ref') return [[key, `#/components/schemas/${tidyName((part as string).replace('#/definitions/', ''))}`]];
      if (key === 'items' && Array.isArray(part)) return [['prefixItems', asDescribed(part)], ['items', false]]; // prettier-ignore
      return [[key, asDescribed(part)]];
    }),
  );
}

/**
 * The schemas of all answers (JSON Schema 2020-12, as OpenAPI 3.1 takes it), from the types that `calls` names.
 *
 * @returns JSON: `schemas` by name, and `answers` by call: a schema, whether it may be nothing, and the media type where it is no value
 */
export function schemasOf(calls: string, tsconfig: string, answered: readonly Answered[]): string {
  const whole = createGenerator({ path: calls, tsconfig, type: 'Answers', skipTypeCheck: true, topRef: false, encodeRefs: true }).createSchema(
    'Answers',
  );
  const schemas = Object.fromEntries(
    Object.entries(whole.definitions ?? {})
      .map(([name, schema]) => [tidyName(name), asDescribed(schema)] as const)
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );
  const answers: Record<string, Schema> = {};
  for (const { name, type } of answered) {
    if (type !== null && STREAMS.has(type)) answers[name] = { media: type === 'Telling' ? 'text/event-stream' : '*/*' };
    else if (type === null) answers[name] = { nothing: true };
    else answers[name] = { schema: asDescribed(whole.properties![name]), ...(/\| undefined$/.test(type) ? { nothing: true } : {}) };
  }
  return `${JSON.stringify({ schemas, answers }, null, 1)}\n`;
}
