import type { Problem } from '@fadenweg/api';
import { ApiError } from './client.ts';

/** What is told of a search that broke off. */
export const problemOf = (error: unknown): Problem =>
  error instanceof ApiError ? error.problem : { type: '', title: 'The search broke off', status: 0, detail: (error as Error).message };
