/** How often values of fields occur in one group of records and in all others. */
export interface Counted {
  field: string;
  value: string;
  inside: number;
  outside: number;
}
export interface Contrast extends Counted {
  /** How much more often inside than outside, as a factor of the odds; below 1 where it is rarer inside. */
  odds: number;
}

/** Fewest records that a value must stand in to be told. */
const FEWEST = 3;
/** Standard errors from equal odds. */
const SURE = 3;

/**
 * What tells a group from the others: values whose odds depart, the clearest first. Log-odds with half a record added to each
 * cell (Haldane and Anscombe), ranked by how many of its standard errors a value is away from equal odds.
 */
export function contrast(counted: readonly Counted[], insideTotal: number, outsideTotal: number, most: number): Contrast[] {
  if (insideTotal === 0 || outsideTotal === 0) return [];
  return counted
    .filter((one) => one.inside + one.outside >= FEWEST)
    .map((one) => {
      const a = one.inside + 0.5;
      const b = insideTotal - one.inside + 0.5;
      const c = one.outside + 0.5;
      const d = outsideTotal - one.outside + 0.5;
      const log = Math.log((a * d) / (b * c));
      return { one, log, weight: Math.abs(log) / Math.sqrt(1 / a + 1 / b + 1 / c + 1 / d) };
    })
    .filter(({ weight }) => weight >= SURE)
    .sort((x, y) => y.weight - x.weight || x.one.field.localeCompare(y.one.field) || x.one.value.localeCompare(y.one.value))
    .slice(0, most)
    .map(({ one, log }) => ({ ...one, odds: Math.exp(log) }));
}
