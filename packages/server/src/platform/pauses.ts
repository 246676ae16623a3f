/** Longest pause between two tries, in milliseconds. */
const LONGEST = 300_000;

/** How long to wait before the next try: a second after the first failure, twice as long after each further one. */
export const pauseAfter = (failures: number): number => Math.min(LONGEST, 1000 * 2 ** Math.min(20, Math.max(0, failures - 1)));
