import Joi from 'joi';
import { parseSearch, type Search } from '@fadenweg/core/search';
import { Refusal } from './problems.ts';

/** Schemas that several calls share. Unknown names are refused, so that a misspelt filter is not silently ignored. */
export const limit = (most: number, usual: number): Joi.NumberSchema => Joi.number().integer().min(1).max(most).default(usual);
export const after = Joi.string().max(80);
export const instant = Joi.string().isoDate().max(40);
export const name = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,39}$/, 'lower-case letters, digits and hyphens');
/** A number that the database gave, in an address. */
export const numbered = Joi.object({
  id: Joi.number()
    .integer()
    .min(1)
    .max(2 ** 31 - 1)
    .required(),
});
/** One value or several, separated by commas. */
export const list = Joi.string().max(500);
export const splitList = (text: string | undefined): string[] | undefined =>
  text === undefined || text === ''
    ? undefined
    : text
        .split(',')
        .map((part) => part.trim())
        .filter(Boolean);
/** ISO 8601 → microseconds; microseconds in the text are kept. */
export function microsOf(text: string): number {
  const ms = Date.parse(text);
  const fraction = /\.(\d{4,6})/.exec(text)?.[1];
  return Math.floor(ms / 1000) * 1_000_000 + (fraction ? Number(fraction.padEnd(6, '0')) : (ms - Math.floor(ms / 1000) * 1000) * 1000);
}

/** A search as it was typed; a mistake is refused with its place. */
export function searchOf(q: string): Search {
  const { search, problem } = parseSearch(q);
  if (!problem) return search;
  throw new Refusal(
    400,
    'The search is not understood',
    `${problem.message} (character ${problem.from + 1})`,
    problem.proposal ? `Perhaps: ${problem.proposal}` : undefined,
  );
}
