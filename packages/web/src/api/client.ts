import type { Problem } from '@fadenweg/api';
import { useConnection } from '../stores/connection.ts';

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

async function request<T>(path: string, init: RequestInit = {}): Promise<T> {
  const connection = useConnection();
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    connection.up = false;
    throw new ApiError(SILENT);
  }
  connection.up = response.status !== 503;
  if (response.status === 204) return undefined as T;
  const text = await response.text();
  const answer = (text === '' ? undefined : JSON.parse(text)) as T | Problem;
  if (!response.ok) throw new ApiError(answer as Problem);
  return answer as T;
}

/** Query without what is undefined or empty. */
export function query(values: Record<string, string | number | undefined | null>): string {
  const parameters = new URLSearchParams();
  for (const [name, value] of Object.entries(values)) if (value !== undefined && value !== null && value !== '') parameters.set(name, String(value));
  const text = parameters.toString();
  return text === '' ? '' : `?${text}`;
}
const withBody = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});
export const api = {
  get: <T>(path: string, signal?: AbortSignal) => request<T>(path, { signal }),
  post: <T>(path: string, body: unknown, signal?: AbortSignal) => request<T>(path, { ...withBody('POST', body), signal }),
  /** Sends files. */
  send: <T>(path: string, form: FormData) => request<T>(path, { method: 'POST', body: form }),
  put: <T>(path: string, body: unknown) => request<T>(path, withBody('PUT', body)),
  delete: <T>(path: string) => request<T>(path, { method: 'DELETE' }),
};
