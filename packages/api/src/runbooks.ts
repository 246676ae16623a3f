import type { Change } from './changes.ts';
import type { Iso, LogRecord, StrandSummary } from './index.ts';

/** A runbook in the shape of core, with its home. */
export interface RunbookInfo<Body = unknown> {
  /** `supplied-NAME`, or the number of one's own. */
  id: string;
  supplied: boolean;
  owner: string;
  changedAt: Iso | null;
  runbook: Body;
}
/** What a step came to, in numbers and some of what it found. */
export interface StepResult<Sum = unknown> {
  step: string;
  sum: Sum;
  /** The stretches that were looked at. */
  windows: { from: Iso; to: Iso }[];
  /** The search as it was asked, '' where it was none. */
  q: string;
  /** Groups as counted; `link` is what to narrow to. */
  groups: { value: string; count: number }[];
  strands: StrandSummary[];
  records: LogRecord[];
  changes: Change[];
}
