import { wordsOf, type Told } from '@fadenweg/core/copies';
import type { RecordRow } from '../../evidence/record-layout.ts';

/** Columns by which copies are told. */
export const COLUMNS = 'at, id, source_id, component_id, host_id, level, home, keys, logger, message, attributes, shifted';
export type CopyRow = Pick<
  RecordRow,
  'at' | 'id' | 'source_id' | 'component_id' | 'host_id' | 'level' | 'home' | 'keys' | 'logger' | 'message' | 'attributes' | 'shifted'
>;
export interface Names {
  component(id: number): string;
  host(id: number): string;
}
/** Most text of a record that is compared. */
const MOST = 20_000;

/** A row as copies are told by: when its source wrote it, in no corrected time. */
export function toldOf(row: CopyRow, names: Names, sourceComponent: number): Told {
  const fields = row.attributes ?? {};
  const message = row.message.slice(0, MOST);
  return {
    at: row.at - (row.shifted ?? 0),
    words: wordsOf([message, row.logger, ...Object.values(fields).map((value) => String(value).slice(0, MOST))]),
    said: wordsOf([message]),
    fields,
    host: names.host(row.host_id),
    component: names.component(row.component_id),
    named: row.component_id !== sourceComponent,
  };
}
export const byTime = (a: { told: Told }, b: { told: Told }): number => a.told.at - b.told.at;
