/** Of a normal distribution: nineteen of twenty lie above, on one side. */
const Z = 1.645;

/**
 * The lower end of what a share is likely to be, from so many of so many (Wilson's score interval, one-sided, 95 %).
 *
 * @returns 0 to 1; 0 where nothing was counted
 */
export function lowerShare(count: number, of: number): number {
  // of nothing, and where none of them are: in floating point a hair would be left
  if (of <= 0 || count <= 0) return 0;
  const share = count / of;
  const square = Z * Z;
  const middle = share + square / (2 * of);
  const spread = Z * Math.sqrt((share * (1 - share) + square / (4 * of)) / of);
  return Math.max(0, (middle - spread) / (1 + square / of));
}
