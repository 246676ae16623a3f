import { contrast } from '../statistics/index.ts';

/** What so many times as large a share of those that depart have as of the others stands out; what nearly all have tells nothing. */
const TIMES = 2;

export interface HavingIt {
  id: number;
  /** Of those that depart, and of the others of their flows at that time. */
  inside: number;
  outside: number;
}

/**
 * Parties or hosts that have more of what departs than others: beyond chance, and so that it matters.
 *
 * @param departing how many depart, and how many others of their flows there are at that time
 */
export function standingOut(having: readonly HavingIt[], departing: number, others: number): { id: number; inside: number; odds: number }[] {
  const telling = contrast(having.map(({ id, inside, outside }) => ({ field: String(id), value: '', inside, outside })), departing, others, having.length); // prettier-ignore
  return telling
    .filter(({ odds, inside, outside }) => odds > 1 && inside / Math.max(1, departing) >= (TIMES * outside) / Math.max(1, others))
    .map(({ field, inside, odds }) => ({ id: Number(field), inside, odds }));
}
