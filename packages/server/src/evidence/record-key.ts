import type { Cursor } from './records.ts';

/** A record's id in the API: its time, so that it is found in one partition, and its number. */
export const recordKey = (row: { at: number; id: number }): string => `${row.at}-${row.id}`;
/** Reads a record's id of the API back, null where it is none. */
export function parseRecordKey(text: string): Cursor | null {
  const hit = /^(\d{1,16})-(\d{1,16})$/.exec(text);
  return hit ? { at: Number(hit[1]), id: Number(hit[2]) } : null;
}
