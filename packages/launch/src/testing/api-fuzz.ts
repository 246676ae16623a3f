import { dice } from './dice.ts';

/** A description of the API, as far as the fuzzer reads it. */
interface Description {
  paths: Record<string, Record<string, Operation>>;
}
interface Operation {
  parameters?: { name: string; in: 'query' | 'path'; required: boolean; schema: Schema }[];
  requestBody?: { content: Record<string, { schema: Schema }> };
}
interface Schema {
  type?: string;
  enum?: unknown[];
  properties?: Record<string, Schema>;
  items?: Schema;
  minimum?: number;
  default?: unknown;
}

export interface FuzzOptions {
  seed: number;
  /** Bad values that are tried at each place. */
  each: number;
  /** An answer that takes longer is a fault, in milliseconds. */
  longest: number;
  /** Values that name something that is there, by the name of a parameter. */
  real: Readonly<Record<string, readonly string[]>>;
}
export interface Fuzzed {
  calls: number;
  slowestMs: number;
  byStatus: Record<number, number>;
  faults: { call: string; fault: string }[];
}

const TEXTS = [
  '', ' ', '\0', 'a\0b', "'", '"', '\\', '%', '%%%', '../../etc/passwd', '<script>alert(1)</script>', "'; drop table record; --", '${7*7}', '{{7*7}}', '\u202e\u0000', '😀', 'ſK', 'a,b,,c', ',',
  '-1', '0', '1e15', '1e309', '-1e309', 'NaN', 'Infinity', '2147483648', '9007199254740993', '0x10', '1.5', 'null', 'true', '[]', '{}', '__proto__', 'constructor', 'toString',
  '2026-02-30T00:00:00Z', '2026-13-01', '+275760-09-13T00:00:00Z', '-271821-04-20T00:00:00Z', '0000-01-01', '9999-12-31T23:59:60Z', 'yesterday', '2026-11-24T10:00:00+99:99',
  'where (', "where message like '%_%_%_%_%Z'", "where message matches '('", "where message matches '(a|aa)+$'", 'where level = error and', "where a in ('", `where ${'('.repeat(60)}`, `where ${'not '.repeat(300)}level = error`,
  '1-1', '9999999999999999-9999999999999999', '0~0', 'NaN~NaN', 'order:', ':x', 'order@:x', 'order:'.repeat(50), 'x'.repeat(300), 'y'.repeat(9000),
] as const; // prettier-ignore
const VALUES: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  1.5,
  2 ** 53,
  '',
  '\0',
  'x'.repeat(5000),
  [],
  [[]],
  [null],
  {},
  { a: { b: {} } },
  { __proto__: 1 },
  '😀\ud83d',
  'where (',
  '2026-99-99',
];
/** What no answer may tell: places in the code, statements, addresses of the database. */
const INSIDE = /node_modules|\bat (?:async )?[\w.<>]+ \(|\.ts:\d+|postgres:\/\/|syntax error at|violates|relation "|column "|invalid input syntax/;
/** Read of an answer. What streams without end is left then. */
const MOST = 1 << 20;
const UNTOUCHED = new Set(['delete /api/demo', 'post /api/demo']);

/** Calls each route with bad values at each place of its address and body; nothing may be a fault of the server, take long or tell of its inside. */
export async function fuzzApi(url: string, { seed, each, longest, real }: FuzzOptions): Promise<Fuzzed> {
  const random = dice(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const description = (await (await fetch(`${url}/api/openapi.json`)).json()) as Description;
  const result: Fuzzed = { calls: 0, slowestMs: 0, byStatus: {}, faults: [] };

  const sensible = (name: string, schema: Schema): string =>
    real[name]
      ? pick(real[name])
      : String(schema.default ?? schema.enum?.[0] ?? (schema.type === 'string' ? '2026-11-24T10:00:00Z' : (schema.minimum ?? 1)));
  async function call(
    method: string,
    path: string,
    operation: Operation,
    bad: { place: string; value: string } | null,
    body: unknown,
  ): Promise<void> {
    const query = new URLSearchParams();
    let address = path;
    for (const parameter of operation.parameters ?? []) {
      const value = bad?.place === parameter.name ? bad.value : sensible(parameter.name, parameter.schema);
      if (parameter.in === 'path') address = address.replace(`{${parameter.name}}`, encodeURIComponent(value));
      else if (parameter.required || bad?.place === parameter.name || random() < 0.2) query.set(parameter.name, value);
    }
    if (bad?.place === '?') query.set(bad.value.slice(0, 50), bad.value);
    const told = `${method.toUpperCase()} ${address.slice(0, 200)}?${query.toString().slice(0, 300)} ${body === undefined ? '' : String(JSON.stringify(body)).slice(0, 300)}`;
    const began = performance.now();
    const stop = new AbortController();
    const late = setTimeout(() => stop.abort(), longest * 2);
    try {
      const response = await fetch(`${url}${address}?${query}`, {
        method: method.toUpperCase(),
        signal: stop.signal,
        ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      });
      const type = response.headers.get('content-type') ?? '';
      const text = type.startsWith('text/event-stream') ? '' : await beginning(response);
      result.byStatus[response.status] = (result.byStatus[response.status] ?? 0) + 1;
      if (response.status >= 500) result.faults.push({ call: told, fault: `${response.status}: ${text.slice(0, 200)}` });
      else if (response.status >= 400 && (!type.startsWith('application/problem+json') || INSIDE.test(text)))
        result.faults.push({ call: told, fault: `${response.status} tells of the inside, or is no problem document: ${text.slice(0, 200)}` });
    } catch (error) {
      result.faults.push({ call: told, fault: (error as Error).message });
    } finally {
      clearTimeout(late);
      stop.abort();
    }
    const took = performance.now() - began;
    result.calls++;
    result.slowestMs = Math.max(result.slowestMs, took);
    if (took > longest) result.faults.push({ call: told, fault: `took ${Math.round(took)} ms` });
  }

  for (const [path, operations] of Object.entries(description.paths))
    for (const [method, operation] of Object.entries(operations)) {
      if (UNTOUCHED.has(`${method} ${path}`)) continue;
      const schema = operation.requestBody?.content['application/json']?.schema;
      const body = (): unknown => (schema ? made(schema, pick) : undefined);
      for (const place of [...(operation.parameters ?? []).map((one) => one.name), '?'])
        for (let i = 0; i < each; i++) await call(method, path, operation, { place, value: pick(TEXTS) }, body());
      if (!schema) continue;
      for (let i = 0; i < each * 2; i++) await call(method, path, operation, null, spoilt(body(), random, pick));
      await call(method, path, operation, null, pick(VALUES));
    }
  return result;
}

async function beginning(response: Response): Promise<string> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of (response.body ?? []) as AsyncIterable<Uint8Array>) {
    chunks.push(chunk);
    if ((size += chunk.length) > MOST) break;
  }
  return Buffer.concat(chunks).toString();
}

type Pick = <T>(from: readonly T[]) => T;
/** A body as a schema wants it, about. */
function made(schema: Schema, pick: Pick): unknown {
  if (schema.default !== undefined) return schema.default;
  if (schema.enum) return pick(schema.enum);
  if (schema.type === 'object') return Object.fromEntries(Object.entries(schema.properties ?? {}).map(([name, own]) => [name, made(own, pick)]));
  if (schema.type === 'array') return schema.items ? [made(schema.items, pick)] : [];
  if (schema.type === 'boolean') return true;
  if (schema.type === 'number' || schema.type === 'integer') return schema.minimum ?? 1;
  return 'fuzz-1';
}
/** A body with one of its values replaced, taken away, or one added. */
function spoilt(body: unknown, random: () => number, pick: Pick): unknown {
  if (Array.isArray(body)) return body.length > 0 && random() < 0.8 ? [spoilt(body[0], random, pick)] : pick(VALUES);
  if (typeof body !== 'object' || body === null) return pick(VALUES);
  const entries = Object.entries(body);
  if (entries.length === 0 || random() < 0.1) return { ...body, [String(pick(TEXTS)).slice(0, 40)]: pick(VALUES) };
  const [name, value] = pick(entries);
  if (random() < 0.15) return Object.fromEntries(entries.filter(([other]) => other !== name));
  return { ...body, [name]: spoilt(value, random, pick) };
}
