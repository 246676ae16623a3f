/** A source, and how much its records tell. */
export interface Teller {
  id: number;
  path: string;
  /** Identifiers that a record names, on the average. */
  names: number;
  /** Words of a record, on the average. */
  words: number;
  /** What its times are told to, in microseconds. */
  coarse: number;
}

/** Averages are compared in steps: a hair is no difference. */
const steps = (average: number): number => Math.round(10 * Math.log2(1 + average));

/** Which of two that tell the same is the one to be shown: that which names more, tells its times finer, says more; else the first by its path. */
const fuller = (a: Teller, b: Teller): number =>
  steps(b.names) - steps(a.names) ||
  a.coarse - b.coarse ||
  steps(b.words) - steps(a.words) ||
  (a.path < b.path ? -1 : a.path > b.path ? 1 : a.id - b.id);

export interface CopyFound {
  of: number;
  /** It tells a part of what that tells. */
  part: boolean;
}

/**
 * Which sources are copies of which.
 *
 * @param within for each source, those that tell all that it tells
 * @returns copies with what they are a copy of, which is none itself, and whether that tells more; the same for any order
 */
export function copiesAmong(tellers: readonly Teller[], within: ReadonlyMap<number, ReadonlySet<number>>): Map<number, CopyFound> {
  const tells = (id: number, other: number): boolean => within.get(id)?.has(other) ?? false;
  const order = [...tellers].sort(fuller);
  const place = new Map(order.map(({ id }, i) => [id, i]));
  /** Of two that tell the same, the fuller one is shown; of one that tells a part, the other one. */
  const above = (id: number): number[] =>
    order.map((one) => one.id).filter((other) => other !== id && tells(id, other) && (!tells(other, id) || place.get(other)! < place.get(id)!));
  const originals = new Set(order.map((one) => one.id).filter((id) => above(id).length === 0));
  const found = new Map<number, CopyFound>();
  for (const { id } of order) {
    const original = above(id).find((other) => originals.has(other));
    if (original !== undefined) found.set(id, { of: original, part: !tells(original, id) });
  }
  return found;
}
