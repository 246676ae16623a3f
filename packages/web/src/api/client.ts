import type { Problem } from '@fadenweg/api';
import { useConnection } from '../stores/connection.ts';
import { addressOf, type Answer, type Given, type Input, type Method, type PathOf } from './calls.ts';

/** A problem as the server tells it, or as the browser sees it when the server is silent. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}
const SILENT: Problem = {
  type: 'about:blank',
  title: 'The server does not answer',
  status: 0,
  detail: 'Nothing is lost: this page asks again by itself.',
  action: 'If it lasts, start the application anew with bin/demo.',
};

async function request(method: Method, path: string, input: Input, signal?: AbortSignal): Promise<unknown> {
  const connection = useConnection();
  let response: Response;
  try {
    response = await fetch(addressOf(path, input), { method: method.toUpperCase(), signal, ...bodyOf(input.body) });
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    connection.up = false;
    throw new ApiError(SILENT);
  }
  connection.up = response.status !== 503;
  if (response.status === 204) return undefined;
  const text = await response.text();
  const answer = (text === '' ? undefined : JSON.parse(text)) as unknown;
  if (!response.ok) throw new ApiError(answer as Problem);
  return answer;
}
/** Files go as they are, all else as JSON. */
function bodyOf(body: unknown): RequestInit {
  if (body === undefined) return {};
  return body instanceof FormData ? { body } : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}

const caller =
  <M extends Method>(method: M) =>
  <P extends PathOf<M>>(path: P, ...[input, signal]: Given<`${M} ${P}`>): Promise<Answer<`${M} ${P}`>> =>
    request(method, path, input ?? {}, signal) as Promise<Answer<`${M} ${P}`>>;

/** The calls of the API, each by its path as it is described: what it takes and answers is known from there. */
export const api = { get: caller('get'), post: caller('post'), put: caller('put'), delete: caller('delete') };
