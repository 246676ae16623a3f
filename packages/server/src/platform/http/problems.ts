import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Problem } from '@fadenweg/api';

/** A refusal that tells the caller what is wrong and what to do (RFC 9457). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly action?: string,
  ) {
    super(detail);
  }
}
export const notFound = (what: string): Refusal =>
  new Refusal(404, 'Not found', `${what} does not exist.`, 'It may have been taken out, or the address may be cut off.');

const database = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', '57P01', '57P02', '57P03', '08006', '08001', '08003', '53300']);
/** Whether an error says that the database is away rather than that a query is wrong. */
function databaseAway(error: Error & { code?: string; name: string }): boolean {
  return (
    (error.code !== undefined && database.has(error.code)) ||
    error.name === 'KnexTimeoutError' ||
    /Connection terminated|timeout acquiring a connection|ECONNREFUSED/i.test(error.message)
  );
}

export const unknownPath: RequestHandler = (request) => {
  throw new Refusal(404, 'Not found', `There is no ${request.method} ${request.path}.`, 'The whole API is described at /api/openapi.json.');
};

export const problemHandler =
  (log: Logger): ErrorRequestHandler =>
  (error: Error & { code?: string; type?: string; status?: number }, request, response, next) => {
    if (response.headersSent) {
      next(error);
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
      };
    else if (databaseAway(error)) {
      problem = {
        type: 'about:blank',
        title: 'The database does not answer',
        status: 503,
        detail: 'Nothing that is stored is lost; running imports go on by themselves once it is back.',
        action: 'Wait a moment, then try again. If it lasts, start the application anew.',
      };
    } else if (error.status !== undefined && error.status >= 400 && error.status < 500)
      problem = { type: 'about:blank', title: 'The request cannot be read', status: error.status, detail: error.message };
    else {
      log.error({ err: error, path: request.path }, 'request failed');
      problem = {
        type: 'about:blank',
        title: 'Something went wrong in the server',
        status: 500,
        detail: 'The fault is written to the server’s log.',
        action: 'Try again; if it stays, report it with the time of day.',
      };
    }
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
