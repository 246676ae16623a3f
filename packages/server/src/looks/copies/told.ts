import { toldOf as toldOfRecord, type Told } from '@fadenweg/core/copies';
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

/** A row as copies are told by: when its source wrote it, in no corrected time. */
export const toldOf = (row: CopyRow, names: Names, sourceComponent: number): Told =>
  toldOfRecord({
    at: row.at - (row.shifted ?? 0),
    message: row.message,
    logger: row.logger,
    fields: row.attributes ?? {},
    host: names.host(row.host_id),
    component: names.component(row.component_id),
    named: row.component_id !== sourceComponent,
  });
export const byTime = (a: { told: Told }, b: { told: Told }): number => a.told.at - b.told.at;
