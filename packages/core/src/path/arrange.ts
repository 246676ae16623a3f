import { endOf, standsAtBegin } from './lasting.ts';
import { MARK } from './marks.ts';
import type { StrandRecord } from './types.ts';

const SECOND = 1_000_000;
/** Times and durations are rounded: what lies so much before what took that long lies within it, in microseconds. */
const SLACK = 1000;
/** What took longer, or has more about it, stays where it is. */
const LONGEST = 300 * SECOND;
const MOST_ABOUT = 100;

/**
 * Records in the order in which they most likely happened, each with a time that fits it.
 *
 * A record whose time is told in whole seconds may be anywhere in its second. Effects stand behind their causes, and a coarse log is mostly that of
 * somebody who was told: so it comes behind what others wrote in that second, but before what its own component and host wrote next, and its time
 * is that of the record before it. One that states a duration is told at its end: it ends in its second behind what others wrote if most of that lies
 * within the duration, else where it stands. One that stands at the begin of what it tells, and tells that it failed, is told at its end.
 *
 * @param given in order of (corrected) time
 * @returns the same records (those that move with another time), and their places before
 */
export function arranged(given: readonly StrandRecord[]): { records: StrandRecord[]; places: number[] } {
  if (!given.some(failsAtEnd)) return inTime(given);
  const told = given.map((record) => (failsAtEnd(record) ? { ...record, at: endOf(record), marks: record.marks & ~MARK.begins } : record));
  const order = told.map((_, index) => index).sort((a, b) => told[a]!.at - told[b]!.at || a - b);
  const { records, places } = inTime(order.map((index) => told[index]!));
  return { records, places: places.map((place) => order[place]!) };
}
/** What stands at its begin and tells that it failed, failed at its end. */
const failsAtEnd = (record: StrandRecord): boolean => standsAtBegin(record) && (record.marks & (MARK.failing | MARK.refusing)) !== 0;

function inTime(records: readonly StrandRecord[]): { records: StrandRecord[]; places: number[] } {
  const same = records.map((_, index) => index);
  if (!records.some(isCoarse)) return { records: [...records], places: same };
  // from the last to the first: no one comes behind the next of its own place
  const latest = new Float64Array(records.length);
  const nextOf = new Map<string, number>();
  const ends = endsOf(records);
  for (let i = records.length - 1; i >= 0; i--) {
    const record = records[i]!;
    const place = placeOf(record);
    const next = nextOf.get(place) ?? Infinity;
    latest[i] = isCoarse(record) ? Math.min(ends.get(i) ?? record.at + SECOND - 1, next) : record.at;
    nextOf.set(place, latest[i]!);
  }
  const places = same.sort((a, b) => latest[a]! - latest[b]! || a - b);
  let before = -Infinity;
  const moved = places.map((place) => {
    const record = records[place]!;
    const at = isCoarse(record) ? Math.floor(Math.min(Math.max(record.at, before), latest[place]!)) : record.at;
    before = at;
    return at === record.at ? record : { ...record, at };
  });
  return { records: moved, places };
}

const isCoarse = ({ marks }: StrandRecord): boolean => (marks & MARK.coarse) !== 0;
const placeOf = ({ component, host }: StrandRecord): string => `${component}\u0000${host}`;

/** When those of coarse records that state how long they took ended most likely: half a microsecond behind the last of what lies within, or where they stand. */
function endsOf(records: readonly StrandRecord[]): Map<number, number> {
  const ends = new Map<number, number>();
  /** By place: the last end, and what lies within one and so not within another. */
  const before = new Map<string, { end: number; taken: Set<number> }>();
  records.forEach((record, i) => {
    if (!isCoarse(record) || !(record.took > 0) || standsAtBegin(record)) return;
    const place = placeOf(record);
    const own = before.get(place) ?? { end: -Infinity, taken: new Set<number>() };
    before.set(place, own);
    const about = record.took > LONGEST ? [] : aboutOf(records, i).filter((j) => !own.taken.has(j));
    const inside = (end: number): number[] => about.filter((j) => records[j]!.at >= end - record.took - SLACK && records[j]!.at <= end);
    let best = { end: record.at, inside: inside(record.at) };
    for (const j of about) {
      const end = records[j]!.at;
      if (end <= record.at || end < own.end) continue;
      const these = inside(end);
      if (these.length > best.inside.length) best = { end: end + 0.5, inside: these };
    }
    for (const j of best.inside) own.taken.add(j);
    own.end = Math.max(own.end, best.end);
    ends.set(i, own.end);
  });
  return ends;
}

/** What others wrote, at times told exactly, in the second of a record or while it lasted, before its own component and host wrote on. None where it is too much. */
function aboutOf(records: readonly StrandRecord[], i: number): number[] {
  const { at: second, took } = records[i]!;
  const place = placeOf(records[i]!);
  const found: number[] = [];
  let first = i;
  while (first > 0 && records[first - 1]!.at >= second - took - SLACK && i - first <= MOST_ABOUT) first--;
  for (let j = first; j < records.length && records[j]!.at < second + SECOND; j++) {
    if (j - first > MOST_ABOUT) return [];
    if (isCoarse(records[j]!)) continue;
    if (placeOf(records[j]!) !== place) found.push(j);
    else if (j > i) break;
  }
  return found;
}
