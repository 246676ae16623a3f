import { excerptOf, excerptSql } from '@fadenweg/core/path';
import type { RowReader } from '../database/copy-out.ts';
import type { CopyRows } from '../database/copy-rows.ts';

/**
 * As much of a record as judging needs, behind its founder, time and id: the same from the database (`JUDGED` and `readJudged`) and from what readers
 * told when they stored it (`writeJudged` and `readJudged`).
 */
export interface JudgedRecord {
  component: number;
  host: number;
  level: number;
  marks: number;
  /** NaN where it states none. */
  took: number;
  message: string;
  shape: number;
  traits: string;
  keys: number[];
}
/** Its columns, of a record `r`. */
export const JUDGED = `r.component_id, r.host_id, r.level, r.marks, r.took, ${excerptSql('r.message')}, r.shape, coalesce(r.traits, ''), r.keys`;
/** The same with names, for a query around. */
export const JUDGED_NAMED = `r.component_id, r.host_id, r.level, r.marks, r.took, r.shape, r.traits, ${excerptSql('r.message')} as message, r.keys`;

export function readJudged(row: RowReader): JudgedRecord {
  return {
    component: row.small(),
    host: row.small(),
    level: row.small(),
    marks: row.small(),
    took: row.big(),
    message: row.text(),
    shape: row.big(),
    traits: row.text(),
    keys: row.bigs(),
  };
}

/** @param names writes component and host, whose numbers may not be known yet */
export function writeJudged(rows: CopyRows, names: () => void, record: Omit<JudgedRecord, 'component' | 'host'>): void {
  rows.begin(9);
  names();
  rows.small(record.level);
  rows.small(record.marks);
  if (record.took >= 0) rows.big(record.took);
  else rows.nothing();
  rows.text(excerptOf(record.message));
  rows.big(record.shape);
  rows.text(record.traits);
  rows.bigs(record.keys);
}
