import { Finder, type IdentifierKind, type SuggestRecord } from '@fadenweg/core/identifiers';
import type { RecordRepository } from '../evidence/records.ts';
import type { RecordRow } from '../evidence/record-layout.ts';

/** Stretches of the data that are looked at for identifiers, and records of each. */
const STRETCHES = 10;
const EACH = 2500;

/** Records in stretches that follow each other in time, so that values can recur; of one environment, where it is named. */
export const sampledRows = (records: RecordRepository, environment?: string): Promise<RecordRow[]> => records.samples(STRETCHES, EACH, environment);

/** The same as the search for identifiers sees them, with the values that kinds find: readers find them in all of a record's text, also where that became fields. */
export function knownIn(rows: readonly RecordRow[], kinds: IdentifierKind[], component: (id: number) => string): SuggestRecord[] {
  const finder = new Finder(kinds);
  return rows.map((row) => {
    const fields = row.attributes ?? {};
    const known = finder
      .find([row.message, ...Object.values(fields)].join('\n'), fields, '')
      .map(({ value, kind }) => ({ value, role: kinds[kind]!.role }));
    return { component: component(row.component_id), text: row.message, fields, known };
  });
}
