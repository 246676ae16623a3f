import { layout, type RowOf } from '../database/layout.ts';

/** A strand as it is stored: what came of judging it. Times in microseconds. */
export const STRAND = layout({
  founder: 'big',
  kind_id: 'small',
  value: 'text',
  flow: 'text?',
  outcome: 'text',
  started_at: 'big',
  ended_at: 'big',
  duration: 'big',
  records: 'int',
  /** Of its first finding, as the three behind it. */
  failed_in: 'text?',
  headline: 'text',
  signature: 'text?',
  parties: 'bigs',
  environment: 'text',
  /** Numbers of the components that its records are of. */
  components: 'bigs',
  /** Of its duration. */
  in_database: 'big',
  in_transit: 'big',
  /** Numbers of the hosts that its records are of. */
  hosts: 'bigs',
  /** How long each of its components worked for it, in their order. */
  worked: 'bigs',
  /** Of one that failed: its fault, and the record by which it is known. */
  fault: 'big?',
  fault_at: 'big?',
  fault_record: 'big?',
  /** Faults that others of its records tell. */
  mentions: 'bigs',
  /** 0 to 3, by its outcome and its gravest record. */
  weight: 'small',
  /** Rows that it says it read, wrote, rejected and skipped, -1 where it says nothing; empty where it tells none. */
  told_rows: 'bigs',
});
export type StrandRow = RowOf<typeof STRAND>;
