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
});
export type StrandRow = RowOf<typeof STRAND>;
