import type { Microseconds } from '../units.ts';
import type { Fields } from './types.ts';

/** A row of a table, as its columns tell it. */
export interface TableRow {
  at: Microseconds;
  fields: Fields;
}

/** Rows that are looked at. */
export const ENOUGH_ROWS = 600;
/** Rows this close to each other are of one instant. */
const AT_ONCE: Microseconds = 200_000;
const FEWEST_INSTANTS = 8;
/** Instants with several rows, of all. */
const SEVERAL = 0.4;
/** Instants that lie a whole number of steps apart, within so much of a step, of all. */
const REGULAR = 0.9;
const WITHIN = 0.1;
/** Of the values of a column that tells the rows of an instant apart, so many were there an instant before. */
const SEEN_AGAIN = 0.5;
const APART = 0.5;
/** A column that names things of its own in so many of all rows tells of events. */
const OWN = 0.9;

/**
 * Whether the rows of a table are states that were seen at an instant (sessions, locks, depths of queues), and no events: again and again, at regular steps, several rows at
 * once, of things that mostly were there an instant before. A table of events has things of its own in each row.
 *
 * @param rows consecutive ones, from the table's beginning
 */
export function areSnapshots(rows: readonly TableRow[]): boolean {
  const instants = instantsOf(rows);
  if (instants.length < FEWEST_INSTANTS || instants.filter((one) => one.length > 1).length < SEVERAL * instants.length) return false;
  const times = instants.map((one) => one[0]!.at);
  const steps = times.slice(1).map((at, i) => at - times[i]!);
  const step = [...steps].sort((a, b) => a - b)[Math.floor(steps.length / 5)]!;
  const regular = steps.filter((one) => Math.abs(one / step - Math.round(one / step)) <= WITHIN);
  if (regular.length < REGULAR * steps.length) return false;
  const columns = new Set(rows.flatMap(({ fields }) => Object.keys(fields)));
  return ![...columns].some((column) => isOwn(rows, column)) && [...columns].some((column) => isSeenAgain(instants, column));
}

function instantsOf(rows: readonly TableRow[]): TableRow[][] {
  const instants: TableRow[][] = [];
  let before = -Infinity;
  for (const row of rows) {
    if (row.at - before > AT_ONCE) instants.push([]);
    instants[instants.length - 1]!.push(row);
    before = row.at;
  }
  return instants;
}

/** Whether a column names another thing in nearly each row: by words, or by numbers that are equally long; what is counted or measured is neither. */
function isOwn(rows: readonly TableRow[], column: string): boolean {
  const values = rows.flatMap(({ fields }) => (fields[column] === undefined ? [] : [String(fields[column])]));
  const own = new Set(values);
  if (values.length < OWN * rows.length || own.size < OWN * values.length) return false;
  const names = values.filter((value) => /\p{L}/u.test(value) && !/^\d{4}-\d\d-\d\d/.test(value));
  return (
    names.length >= OWN * values.length ||
    (values.every((value) => /^\d{4,}$/.test(value)) && new Set(values.map((value) => value.length)).size === 1)
  );
}
/** Whether a column names things: it tells the rows of an instant apart, and what it names was mostly there an instant before. */
function isSeenAgain(instants: readonly (readonly TableRow[])[], column: string): boolean {
  let [rows, different, again, all] = [0, 0, 0, 0];
  let before = new Set<string>();
  const known = new Set<string>();
  for (const [i, instant] of instants.entries()) {
    const values = new Set(instant.flatMap(({ fields }) => (fields[column] === undefined ? [] : [String(fields[column])])));
    if (instant.length > 1) {
      rows += instant.length;
      different += values.size;
    }
    if (i > 0) {
      all += values.size;
      for (const value of values) if (before.has(value)) again++;
    }
    for (const value of values) known.add(value);
    before = values;
  }
  return known.size > 1 && different >= APART * rows && again >= SEEN_AGAIN * all;
}
