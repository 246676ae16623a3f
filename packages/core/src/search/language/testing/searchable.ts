import type { Searchable } from '../evaluate.ts';

/** A record as a search sees it, with nothing in it but what is given. */
export const searchable = (more: Partial<Searchable> = {}): Searchable => ({
  at: 0,
  level: 0,
  component: '',
  host: '',
  environment: '',
  source: '',
  logger: '',
  message: '',
  shape: '',
  took: NaN,
  fields: {},
  identifiers: [],
  flow: '',
  outcome: '',
  fault: '',
  weight: 0,
  ...more,
});
