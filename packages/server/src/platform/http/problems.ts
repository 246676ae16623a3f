import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Problem } from '@fadenweg/api';
import { isDatabaseAway, isFull } from '../../database/failures.ts';

/** A refusal that tells the caller what is wrong and what to do (RFC 9457). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly action?: string,
    /** What is told beside. */
    readonly more: Pick<Problem, 'choices'> = {},
  ) {
    super(detail);
  }
}
/** What was asked for stands under another address now, for good. */
export class Elsewhere extends Error {
  constructor(readonly address: string) {
    super(`it stands at ${address}`);
  }
}
export const notFound = (what: string): Refusal =>
  new Refusal(404, 'Not found', `${what} does not exist.`, 'It may have been taken out, or the address may be cut off.');

export const unknownPath: RequestHandler = (request) => {
  throw new Refusal(404, 'Not found', `There is no ${request.method} ${request.path}.`, 'The whole API is described at /api/openapi.json.');
};

/** SQLSTATE of a statement that was stopped. */
const TOO_LONG = '57014';

export const problemHandler =
  (log: Logger): ErrorRequestHandler =>
  (error: Error & { code?: string; type?: string; status?: number }, request, response, next) => {
    if (response.destroyed) return; // whoever asked has left
    if (response.headersSent) {
      next(error);
      return;
    }
    if (error instanceof Elsewhere) {
      response.redirect(308, error.address);
      return;
    }
    let problem: Problem;
    if (error instanceof Refusal)
      problem = {
        type: 'about:blank',
        title: error.title,
        status: error.status,
        detail: error.message,
        ...(error.action ? { action: error.action } : {}),
        ...error.more,
      };
    else if (isFull(error)) {
      problem = {
        type: 'about:blank',
        title: 'The disk is full',
        status: 507,
        detail: 'The database has no room left on its disk. Nothing that is stored is lost; running imports go on by themselves once there is room.',
        action: 'Make room on the disk that holds the data folder, or take an import out.',
      };
    } else if (isDatabaseAway(error)) {
      problem = {
        type: 'about:blank',
        title: 'The database does not answer',
        status: 503,
        detail: 'Nothing that is stored is lost; running imports go on by themselves once it is back.',
        action: 'Wait a moment, then try again. If it lasts, start the application anew.',
      };
    } else if (error.code === TOO_LONG)
      problem = {
        type: 'about:blank',
        title: 'It took too long',
        status: 503,
        detail: 'The database was at it for longer than a call may take, and was stopped. Nothing was changed.',
        action: 'Narrow the window or the search, then try again.',
      };
    else if (error.status !== undefined && error.status >= 400 && error.status < 500)
      problem = { type: 'about:blank', title: 'The request cannot be read', status: error.status, detail: error.message };
    else {
      log.error({ err: error, path: request.path, request: request.id }, 'request failed');
      problem = {
        type: 'about:blank',
        title: 'Something went wrong in the server',
        status: 500,
        detail: `The fault is written to the server’s log, as that of request ${String(request.id)}.`,
        action: 'Try again; if it stays, report it with this number.',
      };
    }
    if (request.id !== undefined) problem.request = String(request.id);
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
