/** What passes in the place of another is hardly ever there together with it, and has so many of its strands at least. */
const TOGETHER = 0.02;
const SHARE = 0.05;
const FEWEST = 5;

/**
 * Which components stand in the place of one: several of a kind of which each strand passes one. Strands that pass neither say nothing about it: they broke off before they came so far.
 *
 * @param own strands that pass it
 * @param others each with its strands, and those that pass both
 */
export function insteadOf(own: number, others: readonly { id: number; strands: number; both: number }[]): number[] {
  return others
    .filter(({ strands, both }) => strands >= FEWEST && strands >= SHARE * own && both <= TOGETHER * Math.min(own, strands))
    .map((one) => one.id);
}
