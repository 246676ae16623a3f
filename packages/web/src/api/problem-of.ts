import type { Problem } from '@fadenweg/api';
import { ApiError } from './client.ts';

/** What is told of something that went wrong: as the server says it, or what the page itself met. */
export const problemOf = (error: unknown, title = 'The page met a fault'): Problem =>
  error instanceof ApiError ? error.problem : { type: 'about:blank', title, status: 0, detail: (error as Error).message };

/** The same in a line, with what to do about it where that is known. */
export function wordsOf(error: unknown): string {
  if (!(error instanceof ApiError)) return (error as Error).message;
  const { title, detail, action } = error.problem;
  return `${title}: ${detail} ${action ?? ''}`.trimEnd();
}
