import type { Outcome } from '../path/types.ts';
import { expectedOf, type Expected } from './expected.ts';
import { bucketAt, durationOf } from './lasted.ts';
import { chanceOfCount, chanceOfShare, discoveries } from './rare.ts';
import { shiftOf } from './shift.ts';
import type { Cell, CellDeparture, CellKind, Cloth, FlowCloth, FlowSums, Sample, SlotSeen, Sum } from './types.ts';

/** Of those cells that are marked at most so many are marked by chance. */
const BY_CHANCE = 0.01;
/** What is told matters: so many strands, and so many times the usual. */
const STRANDS = 3;
const TIMES = 2;
const TIMES_LATE = 3;
const LATE = 0.95;
/** Fewer that ended tell no fence. */
const FEWEST_ENDED = 20;
/** Of a flow whose runs a clock starts each one counts by itself, where hardly any was amiss before. */
const BY_CLOCK = 0.5;
const HARDLY_ANY = 0.02;
const KNOWN_RUNS = 50;
const FEW = 12;

const UNDER_WAY: ReadonlySet<Outcome> = new Set(['running', 'out-of-sight']);
export const isAmissOutcome = (outcome: Outcome): boolean => outcome !== 'done' && !UNDER_WAY.has(outcome);
const ended = (outcome: Outcome): boolean => outcome === 'done' || outcome === 'slow';

interface Test extends CellDeparture {
  cell: Cell;
  matters: boolean;
  /** Told whatever the others say. */
  alone: boolean;
}

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
  const tests: Test[] = [];
  for (const [i, cloth] of cloths.entries()) {
    const factor = shift?.factors.get(cloth.flow) ?? null;
    if (factor !== null) shifted(cloth, factor);
    for (const [slot, cell] of cloth.cells.entries())
      if (slots[slot]!.seen) tests.push(...testsOf(cell, cloth, { lasted: flows[i]!.lasted, meanFrom: expected[i]?.from[slot] ?? 0 }, within));
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

function testsOf(cell: Cell, cloth: FlowCloth, { lasted, meanFrom }: Pick<FlowSums, 'lasted'> & { meanFrom: number }, within: boolean): Test[] {
  const tests: Test[] = [];
  if (cell.expected !== null && cloth.spread !== null) {
    const { fewer, more } = chanceOfCount(
      cell.all,
      cell.expected,
      cloth.spread + (cloth.spread < BY_CLOCK ? 0 : cell.expected / Math.max(0.5, meanFrom)),
    );
    const matters = Math.abs(cell.all - cell.expected) >= STRANDS || (cell.all === 0 && cloth.spread < BY_CLOCK && cell.expected >= 0.9);
    const less = cell.all < cell.expected;
    const farOff = less ? cell.all * TIMES <= cell.expected : cell.all >= cell.expected * TIMES;
    tests.push({ cell, kind: !less ? 'more' : cell.all === 0 ? 'none' : 'fewer', chance: Math.min(1, 2 * Math.min(fewer, more)), usual: cell.expected, matters: matters && farOff, alone: false }); // prettier-ignore
  }
  if (cell.all > 0 && cloth.usualAmiss !== null) {
    const [others, amiss] = [cloth.known - (within ? cell.all : 0), Math.round(cloth.usualAmiss * cloth.known) - (within ? cell.amiss : 0)];
    const share = (amiss + 0.5) / (others + 1);
    const each = cell.amiss > 0 && cloth.spread !== null && cloth.spread < BY_CLOCK && cell.all <= FEW && others >= KNOWN_RUNS && share <= HARDLY_ANY;
    const many = cell.amiss >= STRANDS && cell.amiss / cell.all >= TIMES * share;
    tests.push({ cell, kind: 'not-done', chance: chanceOfShare(cell.amiss, cell.all, amiss, others), usual: others === 0 ? 0 : amiss / others, matters: each || many, alone: each }); // prettier-ignore
  }
  const ends = (cell.outcomes.done ?? 0) + (cell.outcomes.slow ?? 0);
  if (ends > 0 && cloth.fence !== null) {
    const all = lasted.reduce((sum, one) => sum + one.count, 0);
    const late = lasted.reduce((sum, one) => sum + (durationOf(one.bucket) > cloth.fence! * 1.001 ? one.count : 0), 0);
    const share = (late + 0.5) / (all + 1);
    tests.push({ cell, kind: 'late', chance: chanceOfShare(cell.late, ends, late, all), usual: late / all, matters: cell.late >= STRANDS && cell.late / ends >= TIMES_LATE * share, alone: false }); // prettier-ignore
  }
  return tests;
}
