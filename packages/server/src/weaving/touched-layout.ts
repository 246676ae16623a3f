import type { FlowRules } from '@fadenweg/core/findings';
import { rowsOf } from '@fadenweg/core/jobs';
import { MARK, type StrandRecord } from '@fadenweg/core/path';
import { touchedBy, type SilentShapes } from '@fadenweg/core/touched';
import type { CopyRows } from '../database/copy-rows.ts';
import { layout, type RowOf } from '../database/layout.ts';

/** What a run read or wrote. Times in microseconds. */
export const TOUCHED = layout({
  founder: 'big',
  environment: 'text',
  name: 'text',
  /** file, table or feed. */
  kind: 'text',
  /** 0 for what it reads. */
  writes: 'small',
  instance: 'text',
  /** Of the first record that tells of it, and of the last; the number of the first. */
  at: 'big',
  last_at: 'big',
  record: 'big',
  /** Rows, where the run tells them and they can be of nothing else. */
  rows: 'big?',
  failed: 'small',
});
export type TouchedRow = RowOf<typeof TOUCHED>;

interface Run {
  founder: number;
  environment: string;
  flow: FlowRules | null;
  records: readonly StrandRecord[];
  /** As it is kept with a strand. */
  toldRows: readonly number[];
}

/** Writes a row for each thing that a strand touched, where it is a run: it is declared to be one, tells of rows, or of files and feeds. */
export function writeTouched(rows: CopyRows, { founder, environment, flow, records, toldRows }: Run, silent: SilentShapes): void {
  const all = touchedBy(
    records.map(({ message, shape, marks }) => ({ message, shape, failing: (marks & MARK.failing) !== 0 })),
    silent,
  );
  const isRun = flow?.kind === 'run' || toldRows.length > 0 || all.some((one) => one.kind !== 'table');
  if (!isRun) return;
  const told = rowsOf(toldRows);
  for (const one of all) {
    const alone = all.filter(({ way }) => way === one.way).length === 1;
    const count = one.way === 'reads' ? told.read : told.written;
    TOUCHED.write(rows, {
      founder,
      environment,
      name: one.name,
      kind: one.kind,
      writes: one.way === 'writes' ? 1 : 0,
      instance: one.instance,
      at: records[one.first]!.at,
      last_at: records[one.last]!.at,
      record: Number(records[one.first]!.id),
      rows: alone ? count : null,
      failed: one.failed ? 1 : 0,
    });
  }
}
