import { layout, type RowOf } from '../database/layout.ts';

/** A record as it is stored. The columns stand in the order in which `BatchBuilder`, whose writing is a measured hot path, writes them by hand; its test reads them by this. */
export const RECORD = layout({
  at: 'big',
  id: 'big',
  source_id: 'int',
  line: 'int',
  length: 'int',
  component_id: 'small',
  host_id: 'small',
  level: 'small',
  marks: 'small',
  flags: 'small',
  took: 'big?',
  shape: 'big',
  home: 'big?',
  logger: 'text',
  time_text: 'text',
  message: 'text',
  attributes: 'fields?',
  keys: 'bigs?',
  lane: 'int?',
  // what was added to the time that its host wrote
  shifted: 'big?',
  // what tells it apart besides its shape
  traits: 'text?',
});
export type RecordRow = RowOf<typeof RECORD>;
export type RecordColumn = keyof RecordRow;
export const COLUMNS: readonly RecordColumn[] = RECORD.names;
