import type { Outcome } from '../path/types.ts';
import { expectedOf, type Expected } from './expected.ts';
import { bucketAt, durationOf } from './lasted.ts';
import { latenessOf, testsOf, type Test } from './cell-tests.ts';
import { discoveries } from './rare.ts';
import { shiftOf } from './shift.ts';
import type { Cell, CellKind, Cloth, FlowCloth, FlowSums, Sample, SlotSeen, Sum } from './types.ts';

/** Of those cells that are marked at most so many are marked by chance. */
const BY_CHANCE = 0.01;
/** Later than that share of all is late. */
const LATE = 0.95;
/** Fewer that ended tell no fence. */
const FEWEST_ENDED = 20;
const UNDER_WAY: ReadonlySet<Outcome> = new Set(['running', 'out-of-sight']);
export const isAmissOutcome = (outcome: Outcome): boolean => outcome !== 'done' && !UNDER_WAY.has(outcome);
const ended = (outcome: Outcome): boolean => outcome === 'done' || outcome === 'slow';

/**
 * The window as a cloth: for each flow what came in each slot, and which of it departs from what is usual at that time. A cell departs only if it is less likely than chance among all that are tested
 * (`discoveries`) and matters: in how many are amiss (exact test of shares), in how many came (`chanceOfCount`), in how many were late (beyond the 95th percentile; the same exact test).
 *
 * @param within whether nothing earlier is known, so that each slot is compared with the others of the window
 */
export function clothOf(given: readonly FlowSums[], slots: readonly SlotSeen[], within = false): Cloth {
  const flows = within ? given.map((flow) => ({ ...flow, before: othersOf(flow, slots) })) : given;
  const expected = flows.map((flow) => expectedOf(flow, slots));
  const cloths = flows.map((flow, i) => plain(flow, expected[i]!, slots, within));
  const shift = shiftOf(
    cloths.map(({ flow, cells }) => ({ flow, counts: cells.map(({ all, expected }, i) => ({ all, expected: slots[i]!.seen ? expected : null })) })),
  );
  const lateness = flows.map(({ lasted }, i) => latenessOf(lasted, cloths[i]!.fence));
  const tests: Test[] = [];
  for (const [i, cloth] of cloths.entries()) {
    const factor = shift?.factors.get(cloth.flow) ?? null;
    if (factor !== null) shifted(cloth, factor);
    for (const [slot, cell] of cloth.cells.entries())
      if (slots[slot]!.seen) tests.push(...testsOf(cell, cloth, { lateness: lateness[i]!, meanFrom: expected[i]?.from[slot] ?? 0, within }));
  }
  const told = discoveries(tests.map((one) => one.chance), BY_CHANCE); // prettier-ignore
  tests.forEach((test, i) => {
    if (!test.matters || !(told[i]! || test.alone)) return;
    const { kind, chance, usual } = test;
    if (!test.cell.departs || GRAVEST.indexOf(kind) < GRAVEST.indexOf(test.cell.departs.kind)) test.cell.departs = { kind, chance, usual };
  });
  return { flows: cloths, shift: shift && { flows: [...shift.factors.keys()], factor: shift.factor } };
}
const GRAVEST: readonly CellKind[] = ['not-done', 'none', 'late', 'fewer', 'more'];

/** What came, beside what is expected; nothing is judged yet. */
function plain({ flow, now, before, lasted }: FlowSums, expected: Expected | null, slots: readonly SlotSeen[], within: boolean): FlowCloth {
  const all = lasted.reduce((sum, one) => sum + one.count, 0);
  const fence = all < FEWEST_ENDED ? null : bucketAt(lasted, LATE);
  const cells = slots.map((_, slot): Cell => {
    const sums = now[slot] ?? [];
    const outcomes: Partial<Record<Outcome, number>> = {};
    for (const { outcome, count } of sums) outcomes[outcome] = (outcomes[outcome] ?? 0) + count;
    return {
      all: total(sums),
      outcomes,
      amiss: total(sums.filter((one) => isAmissOutcome(one.outcome))),
      late: fence === null ? 0 : total(sums.filter((one) => ended(one.outcome) && one.bucket > fence)),
      expected: expected?.mean[slot] ?? null,
      departs: null,
    };
  });
  const past = within ? { count: total(now.flat()), amiss: total(now.flat().filter((one) => isAmissOutcome(one.outcome))) } : pastOf(before);
  const rates = (expected?.mean ?? []).flatMap((mean, i) => (mean === null || slots[i]!.exposure === 0 ? [] : [mean / slots[i]!.exposure])).sort((a, b) => a - b); // prettier-ignore
  return {
    flow,
    cells,
    shift: null,
    spread: expected?.spread ?? null,
    known: past.count,
    usual: rates[Math.floor(rates.length / 2)] ?? null,
    usualAmiss: past.count === 0 ? null : past.amiss / past.count,
    fence: fence === null ? null : durationOf(fence),
  };
}
const pastOf = (before: FlowSums['before']): { count: number; amiss: number } => before.reduce((sum, one) => ({ count: sum.count + one.count, amiss: sum.amiss + one.amiss }), { count: 0, amiss: 0 }); // prettier-ignore
/** For each slot, what came in the others. */
const othersOf = ({ now }: FlowSums, slots: readonly SlotSeen[]): Sample[] =>
  slots.flatMap(({ seen }, slot) =>
    slots.flatMap((other, i) => {
      if (i === slot || !seen || !other.seen || other.exposure === 0) return [];
      const sums = now[i] ?? [];
      return [{ slot, exposure: other.exposure, count: total(sums), amiss: total(sums.filter((one) => isAmissOutcome(one.outcome))) }];
    }),
  );
const total = (sums: readonly Sum[]): number => sums.reduce((sum, one) => sum + one.count, 0);

/** The same where so many times as many come as usual: they vary as much in proportion. */
function shifted(cloth: FlowCloth, factor: number): void {
  cloth.shift = factor;
  for (const cell of cloth.cells) if (cell.expected !== null) cell.expected *= factor;
  if (cloth.spread !== null && cloth.spread > 1) cloth.spread = 1 + (cloth.spread - 1) * factor;
}
