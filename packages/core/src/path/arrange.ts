import { MARK } from './marks.ts';
import type { StrandRecord } from './types.ts';

const SECOND = 1_000_000;

/**
 * Records in the order in which they most likely happened, each with a time that fits it.
 *
 * A record whose time is told in whole seconds may be anywhere in its second. Effects stand behind their causes, and a coarse log is mostly that of
 * somebody who was told: so it comes behind what others wrote in that second, but before what its own component and host wrote next, and its time
 * is that of the record before it. One that states a duration stays where it is: it begins so much earlier.
 *
 * @param records in order of (corrected) time
 * @returns the same records (those that move with another time), and their places before
 */
export function arranged(records: readonly StrandRecord[]): { records: StrandRecord[]; places: number[] } {
  const same = records.map((_, index) => index);
  if (!records.some(moves)) return { records: [...records], places: same };
  // from the last to the first: no one comes behind the next of its own place
  const latest = new Float64Array(records.length);
  const nextOf = new Map<string, number>();
  for (let i = records.length - 1; i >= 0; i--) {
    const record = records[i]!;
    const place = `${record.component}\u0000${record.host}`;
    const next = nextOf.get(place) ?? Infinity;
    latest[i] = moves(record) ? Math.min(record.at + SECOND - 1, next) : record.at;
    nextOf.set(place, latest[i]!);
  }
  const places = same.sort((a, b) => latest[a]! - latest[b]! || a - b);
  let before = -Infinity;
  const moved = places.map((place) => {
    const record = records[place]!;
    const at = moves(record) ? Math.min(Math.max(record.at, before), latest[place]!) : record.at;
    before = at;
    return at === record.at ? record : { ...record, at };
  });
  return { records: moved, places };
}

const moves = ({ marks, took }: StrandRecord): boolean => (marks & MARK.coarse) !== 0 && !(took > 0);
