import { durationOf } from './lasted.ts';
import { chanceOfCount, chanceOfShare } from './rare.ts';
import { BY_CLOCK } from './by-clock.ts';
import type { Cell, CellDeparture, FlowCloth, FlowSums } from './types.ts';

/** What is told matters: so many strands, and so many times the usual. */
const STRANDS = 3;
const TIMES = 2;
const TIMES_LATE = 3;
/** Of a flow whose runs a clock starts each one counts by itself, where hardly any was amiss before. */
const HARDLY_ANY = 0.005;
const KNOWN_RUNS = 50;
const FEW = 12;

/** One question about a cell, with its answer. */
export interface Test extends CellDeparture {
  cell: Cell;
  /** Whether anybody would care. */
  matters: boolean;
  /** Told whatever the others say. */
  alone: boolean;
}
/** Of all that ended well before, those that were late. */
export interface Lateness {
  late: number;
  all: number;
}
export function latenessOf(lasted: FlowSums['lasted'], fence: number | null): Lateness {
  const all = lasted.reduce((sum, one) => sum + one.count, 0);
  const late = fence === null ? 0 : lasted.reduce((sum, one) => sum + (durationOf(one.bucket) > fence * 1.001 ? one.count : 0), 0);
  return { late, all };
}

interface Known {
  lateness: Lateness;
  /** Strands from which the mean of the slot is known: of few it may well be another one. */
  meanFrom: number;
  /** Whether it is compared with the rest of its own window. */
  within: boolean;
}

/** What is asked of a cell: how many came, how many are amiss, how many were late. What would not matter is not worked out: it counts as what chance does. */
export const testsOf = (cell: Cell, cloth: FlowCloth, known: Known): Test[] =>
  [came(cell, cloth, known), amiss(cell, cloth, known), late(cell, cloth, known)].filter((one) => one !== null);

function came(cell: Cell, { spread }: FlowCloth, { meanFrom }: Known): Test | null {
  const { all, expected } = cell;
  if (expected === null || spread === null) return null;
  const less = all < expected;
  const farOff = less ? all * TIMES <= expected : all >= expected * TIMES;
  const matters = farOff && (Math.abs(all - expected) >= STRANDS || (all === 0 && spread < BY_CLOCK && expected >= 0.9));
  const test = { cell, kind: !less ? ('more' as const) : all === 0 ? ('none' as const) : ('fewer' as const), usual: expected, matters, alone: false };
  if (!matters) return { ...test, chance: 1 };
  const { fewer, more } = chanceOfCount(all, expected, spread + (spread < BY_CLOCK ? 0 : expected / Math.max(0.5, meanFrom)));
  return { ...test, chance: Math.min(1, 2 * Math.min(fewer, more)) };
}

function amiss(cell: Cell, { usualAmiss, known, spread }: FlowCloth, { within }: Known): Test | null {
  if (cell.all === 0 || usualAmiss === null) return null;
  const [others, before] = [known - (within ? cell.all : 0), Math.round(usualAmiss * known) - (within ? cell.amiss : 0)];
  const share = (before + 0.5) / (others + 1);
  const alone =
    cell.amiss > 0 && spread !== null && spread < BY_CLOCK && cell.all <= FEW && others >= KNOWN_RUNS && (before === 0 || share <= HARDLY_ANY);
  const matters = alone || (cell.amiss >= STRANDS && cell.amiss / cell.all >= TIMES * share);
  const chance = matters ? chanceOfShare(cell.amiss, cell.all, before, others) : 1;
  return { cell, kind: 'not-done', chance, usual: others === 0 ? 0 : before / others, matters, alone };
}

function late(cell: Cell, { fence }: FlowCloth, { lateness }: Known): Test | null {
  const ends = (cell.outcomes.done ?? 0) + (cell.outcomes.slow ?? 0);
  if (ends === 0 || fence === null) return null;
  const share = (lateness.late + 0.5) / (lateness.all + 1);
  const matters = cell.late >= STRANDS && cell.late / ends >= TIMES_LATE * share;
  const chance = matters ? chanceOfShare(cell.late, ends, lateness.late, lateness.all) : 1;
  return { cell, kind: 'late', chance, usual: lateness.late / lateness.all, matters, alone: false };
}
