/** The leases of a reused key as one text: founder, first and last moment of each, by which two states of it are compared. */
export const leaseText = (before: string | undefined, founder: number, from: number, to: number): string =>
  `${before === undefined ? '' : `${before};`}${founder} ${from} ${to}`;
/** The leases, one text each. */
export const partsOf = (text: string | undefined): string[] => (text === undefined || text === '' ? [] : text.split(';'));
/** The leases of one text that the other does not hold. */
export function differing(text: string | undefined, other: string | undefined): string {
  const known = new Set(partsOf(other));
  return partsOf(text)
    .filter((part) => !known.has(part))
    .join(';');
}
/** Adds the founders' keys of all leases. */
export function foundersIn(text: string | undefined, into: Set<number>): void {
  for (const part of partsOf(text)) into.add(Number(part.slice(0, part.indexOf(' '))));
}
