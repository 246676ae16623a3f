import type { Request, Response, Router } from 'express';
import type Joi from 'joi';
import { Refusal } from './problems.ts';

/** One call of the API: what it takes, and what it does. The description of the whole is made from these. */
export interface Endpoint<Query = unknown, Params = unknown, Body = unknown> {
  method: 'get' | 'post' | 'put' | 'delete';
  /** As in OpenAPI: `/strands/{id}`. */
  path: string;
  summary: string;
  query?: Joi.ObjectSchema;
  params?: Joi.ObjectSchema;
  body?: Joi.Schema;
  status?: number;
  /** The body is read by the handler itself (multipart). */
  multipart?: boolean;
  /** What to answer; undefined when the handler has answered by itself. */
  run(input: { query: Query; params: Params; body: Body; who: string; signal: AbortSignal }, request: Request, response: Response): Promise<unknown>;
}
// An endpoint is checked where it is written; a list of them holds endpoints of any input.
export type AnyEndpoint = Endpoint<never, never, never>;
export const endpoint = <Query = unknown, Params = unknown, Body = unknown>(definition: Endpoint<Query, Params, Body>): AnyEndpoint =>
  definition as unknown as AnyEndpoint;

/** Whoever asked has left: nobody waits for an answer. */
export class AskerGone extends Error {
  constructor() {
    super('nobody waits for the answer any more');
  }
}

/** Until there is sign-in, whoever reaches the server is this administrator. */
const LOCAL = 'local administrator';

/** Hangs endpoints into a router: validates, runs, answers. */
export function mount(router: Router, endpoints: readonly AnyEndpoint[]): void {
  for (const one of endpoints) {
    router[one.method](one.path.replace(/\{(\w+)\}/g, ':$1'), async (request, response) => {
      const query = checked(one.query, request.query, 'The address');
      const params = checked(one.params, request.params, 'The address');
      const body = one.multipart ? undefined : checked(one.body, request.body as unknown, 'The body');
      const gone = new AbortController();
      response.once('close', () => {
        if (!response.writableFinished) gone.abort(new AskerGone());
      });
      const answer: unknown = await one.run({ query, params, body, who: LOCAL, signal: gone.signal } as never, request, response);
      if (answer !== undefined) response.status(one.status ?? 200).json(answer);
      else if (!response.headersSent && !response.writableEnded) response.status(one.status ?? 204).end();
    });
  }
}

/** No text of ours holds a zero byte, and the database takes none: it is refused here, wherever it stands. */
function holdsZero(value: unknown): boolean {
  if (typeof value === 'string') return value.includes('\0');
  if (Array.isArray(value)) return value.some(holdsZero);
  return typeof value === 'object' && value !== null && Object.entries(value).some(([name, part]) => name.includes('\0') || holdsZero(part));
}

function checked(schema: Joi.Schema | undefined, value: unknown, where: string): unknown {
  if (holdsZero(value)) throw new Refusal(400, 'The request is not as it should be', `${where} holds a zero byte (U+0000), which is no text.`);
  if (!schema) {
    if (value && typeof value === 'object' && where === 'The address' && Object.keys(value).length > 0)
      throw new Refusal(400, 'Unknown parameter', `${where} holds “${Object.keys(value)[0]}”, which this call does not know.`);
    return value;
  }
  const { error, value: clean } = schema.validate(value ?? {}, { convert: true, abortEarly: true }) as { error?: Error; value: unknown };
  if (error)
    throw new Refusal(400, 'The request is not as it should be', `${where}: ${error.message}.`, 'The whole API is described at /api/openapi.json.');
  return clean;
}
