import { hash53 } from '../identifiers/hash.ts';
import type { Origin } from './origin.ts';

/** A person said: the faults of one count as of the other. */
export interface Together {
  fault: number;
  head: number;
}
/** A person said: what is of this fault and holds these words, letter for letter, is a fault of its own. */
export interface Parted {
  fault: number;
  words: string;
  part: number;
}

/** The number of a part of a fault: always the same, 0 to 2^53 - 1. */
export const partOf = (fault: number, words: string): number => hash53(JSON.stringify([fault, words]));

/**
 * As which fault each that was put together counts: of what was said one after the other. Whatever is not in it counts as itself.
 *
 * @param said in the order in which it was said; of faults that are together already nothing changes
 */
export function headsOf(said: readonly Together[]): Map<number, number> {
  const above = new Map<number, number>();
  const top = (fault: number): number => {
    let one = fault;
    while (above.has(one)) one = above.get(one)!;
    return one;
  };
  for (const { fault, head } of said) {
    const [from, to] = [top(fault), top(head)];
    if (from !== to) above.set(from, to);
  }
  return new Map([...above.keys()].map((fault) => [fault, top(fault)]));
}

/** The origin of an error as people parted it: the first words that it holds of those said of its fault; a part may be parted again. */
export function partedOrigin(origin: Origin, text: string, parted: readonly Parted[]): Origin {
  let own = origin;
  for (let again = parted.length > 0; again;) {
    const { key } = own;
    const one = parted.find(({ fault, words }) => fault === key && text.includes(words));
    again = one !== undefined;
    if (one) own = { ...own, key: one.part, words: own.words === '' ? one.words : `${own.words}”, “${one.words}` };
  }
  return own;
}
