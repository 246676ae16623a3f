import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request, Response } from 'express';
import { EventStream } from './event-stream.ts';

/** An answer that comes piece by piece, in any number. */
export class Pieces {
  constructor(
    readonly pieces: AsyncIterable<Buffer | string>,
    readonly type: string,
    readonly headers: Readonly<Record<string, string>> = {},
  ) {}
}
/** An answer that goes on until who asked leaves: server-sent events. */
export class Telling {
  constructor(readonly tell: (stream: EventStream) => Promise<void>) {}
}

/**
 * The one door by which answers leave the server: nothing else is given the response. What is to be kept from somebody, whatever call it is asked by, is kept from them here.
 *
 * @param answer what an endpoint came to: a value (JSON), pieces, events, or undefined for nothing
 * @param status of an answer that is a value, where it is not 200
 */
export async function leave(answer: unknown, status: number | undefined, request: Request, response: Response): Promise<void> {
  if (answer instanceof Pieces) {
    response.type(answer.type).set(answer.headers);
    await pipeline(Readable.from(answer.pieces), response).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE' || !request.destroyed) throw error;
    });
  } else if (answer instanceof Telling) {
    await answer.tell(new EventStream(request, response));
    response.end();
  } else if (answer === undefined) response.status(status ?? 204).end();
  else response.status(status ?? 200).json(answer);
}
