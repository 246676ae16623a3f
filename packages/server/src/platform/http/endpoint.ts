import type { Request, Router } from 'express';
import type Joi from 'joi';
import { Access, type Guarded } from '../access.ts';
import { leave } from './leaving.ts';
import { receiveFiles, type Uploaded, type UploadLimits } from './multipart.ts';
import { Refusal } from './problems.ts';

/** What a call is given: its checked input, and who asks. */
export interface Input<Query, Params, Body> {
  query: Query;
  params: Params;
  body: Body;
  access: Access;
  /** Aborted when nobody waits for the answer any more. */
  signal: AbortSignal;
  /** Takes the files of a multipart upload in, one after the other; see `receiveFiles`. */
  receive(limits: UploadLimits, take: (file: Uploaded) => Promise<void>): Promise<void>;
  /** The last event that one who was fed before has received. */
  lastEvent: string | undefined;
}

export type AnyInput = Input<unknown, unknown, unknown>;

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
  /** What to answer: a value, `Pieces`, `Telling`, or undefined for nothing. */
  run(input: Input<Query, Params, Body>): Promise<unknown>;
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

/** Who asks: until there is sign-in, whoever reaches the server. */
const accessOf = (_request: Request): Access => Access.localAdministrator;

/** Endpoints as they are described and hung up; each call is run by those of whoever asks. */
export const described = (rooms: readonly Guarded<readonly AnyEndpoint[]>[]): AnyEndpoint[] =>
  rooms.flatMap((room) => room.by(Access.localAdministrator));

/** Hangs the endpoints of rooms into a router: validates, runs, answers. */
export function mount(router: Router, rooms: readonly Guarded<readonly AnyEndpoint[]>[]): void {
  for (const room of rooms) for (const place of room.by(Access.localAdministrator).keys()) hangUp(router, room, place);
}
function hangUp(router: Router, room: Guarded<readonly AnyEndpoint[]>, place: number): void {
  const one = room.by(Access.localAdministrator)[place]!;
  router[one.method](one.path.replace(/\{(\w+)\}/g, ':$1'), async (request, response) => {
    const query = checked(one.query, request.query, 'The address');
    const params = checked(one.params, request.params, 'The address');
    const body = one.multipart ? undefined : checked(one.body, request.body as unknown, 'The body');
    const gone = new AbortController();
    response.once('close', () => {
      if (!response.writableFinished) gone.abort(new AskerGone());
    });
    const access = accessOf(request);
    const input: AnyInput = {
      query,
      params,
      body,
      access,
      signal: gone.signal,
      receive: (limits, take) => receiveFiles(request, limits, take),
      lastEvent: request.get('Last-Event-ID'),
    };
    // what is changed or asked to be done is noted with whoever did; what a call reads is not
    if (one.method !== 'get') request.log?.info({ who: access.who }, `${request.method} ${request.path}`);
    await leave(await room.by(access)[place]!.run(input as never), one.status, request, response);
  });
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
