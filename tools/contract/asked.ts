import { compile, type JSONSchema } from 'json-schema-to-typescript';
import type { AnyEndpoint } from '../../packages/server/src/platform/http/endpoint.ts';
import { inputSchema } from '../../packages/server/src/platform/http/openapi.ts';

/** Whatever an endpoint’s maker is handed while it is only described: it answers everything with itself, and nothing is run. */
const anything: unknown = new Proxy(function () {}, {
  get: (_, key) => (key === Symbol.iterator ? () => [][Symbol.iterator]() : key === Symbol.toPrimitive ? () => '' : anything),
  apply: () => anything,
  construct: () => anything as object,
});

/** The endpoints that files of routes make. */
export async function endpointsOf(files: readonly string[]): Promise<AnyEndpoint[]> {
  const found: AnyEndpoint[] = [];
  for (const file of files) {
    const made = (await import(file)) as Record<string, unknown>;
    for (const [name, make] of Object.entries(made))
      if (name.endsWith('Routes')) found.push(...(make as (...parts: unknown[]) => AnyEndpoint[])(...Array<unknown>(12).fill(anything)));
  }
  return found;
}

/** The type of what a call takes, on one line: `query`, `params` and `body`, those of them that it takes; `multipart` where it takes files. */
export async function askedType(one: AnyEndpoint): Promise<string> {
  const parts: string[] = [];
  for (const part of ['query', 'params', 'body'] as const) {
    const schema = one[part] && inputSchema(one[part]);
    // a query of which nothing must be given may be left out
    const optional = part === 'query' && !(schema?.required as string[] | undefined)?.length;
    if (schema) parts.push(`${part}${optional ? '?' : ''}: ${await typeOf(schema)}`);
  }
  if (one.multipart) parts.push('multipart: true');
  return parts.length > 0 ? `{ ${parts.join('; ')} }` : '{}';
}

async function typeOf(schema: object): Promise<string> {
  const text = await compile(structuredClone(schema) as JSONSchema, 'Asked', {
    bannerComment: '',
    format: false,
    ignoreMinAndMaxItems: true,
    unknownAny: true,
  });
  const hit = /^\s*export (?:interface Asked|type Asked =)\s*([\s\S]*?);?\s*$/.exec(text);
  if (!hit) throw new Error(`no type in ${text}`);
  return hit[1]!
    .replaceAll(/\/\*[\s\S]*?\*\//g, '')
    .replaceAll(/([^\s{(|,[;])\s*\n\s*(?![)|\]])/g, '$1; ')
    .replaceAll(/\s+/g, ' ');
}
