import type { Fields } from '../reading/types.ts';
import { discoverLinks, type Discovered } from './discover.ts';
import { Finder } from './finder.ts';
import type { SuggestRecord } from './suggest.ts';
import { KEEP, type IdentifierKind, type Role } from './types.ts';

/** Stretches of the evidence that are looked at for identifiers, and records of each. */
const STRETCHES = 10;
const EACH = 2500;
/** What is found ties further values: it is looked again so often. */
const ROUNDS = 8;

/** A record, as much of it as the search for identifiers needs. */
export interface SampledRecord {
  component: string;
  message: string;
  fields: Fields;
}

/**
 * Records of a few stretches spread over what there is: neighbours in time, so that what recurs is seen.
 *
 * @param low time of the first record, `high` of the last
 * @param from gets the records from a moment on, at most so many, in order of time
 */
export async function sampledStretches<One extends { at: number }>(
  low: number,
  high: number,
  from: (at: number, most: number) => One[] | Promise<One[]>,
): Promise<One[]> {
  const begins = Array.from({ length: STRETCHES }, (_, i) => Math.floor(low + ((high - low) * (i === 0 ? 0 : i + 0.5)) / STRETCHES));
  const stretches = begins.map((begin): Stretch<One> => ({ next: begin, rows: [], ends: false }));
  let all = 0;
  // where most of it lies between two of them, those before it go on
  for (let goesOn = true; goesOn && all < STRETCHES * EACH;) {
    goesOn = false;
    for (const [i, one] of stretches.entries()) {
      const most = Math.min(EACH, STRETCHES * EACH - all);
      if (one.ends || most <= 0) continue;
      const limit = begins[i + 1] ?? Infinity;
      const found = await from(one.next, most);
      const own = found.filter(({ at }) => at < limit);
      for (const row of own) one.rows.push(row);
      all += own.length;
      one.ends = found.length < most || own.length < found.length;
      if (!one.ends) one.next = own[own.length - 1]!.at + 1;
      goesOn ||= !one.ends;
    }
  }
  return stretches.flatMap((one) => one.rows);
}
interface Stretch<One> {
  /** Where it goes on. */
  next: number;
  rows: One[];
  ends: boolean;
}

/** The same as the search for identifiers sees them, with the values that kinds find: readers find them in all of a record's text, also where that became fields. */
export function knownIn(records: readonly SampledRecord[], kinds: readonly IdentifierKind[]): SuggestRecord[] {
  const finder = new Finder(kinds);
  return records.map(({ component, message, fields }) => {
    const known = finder
      .find([message, ...Object.values(fields)].join('\n'), fields, '')
      .map(({ value, kind }) => ({ value, role: roleOf(kinds[kind]!), kind }));
    return { component, text: message, fields, known };
  });
}

/** What is used again and again tells nothing of which transaction something is. */
const roleOf = ({ role, leaseMs }: IdentifierKind): Role => (leaseMs === null ? role : 'shared');

/** Links that nobody declared, in samples of the records: those that show only by what was found before are found too. */
export function discoverIn(records: readonly SampledRecord[], kinds: readonly IdentifierKind[]): Discovered[] {
  const all = [...kinds];
  const found: Discovered[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const more = discoverLinks(knownIn(records, all));
    if (more.length === 0) break;
    found.push(...more);
    all.push(
      ...more.map((one, i): IdentifierKind => ({ name: `found-${round}-${i}`, role: 'link', normal: KEEP, scope: 'global', leaseMs: null, ...one })),
    );
  }
  return found;
}
