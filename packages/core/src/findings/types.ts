import type { Duration, Microseconds } from '../units.ts';
import type { DeclaredSchedule } from '../jobs/declared-schedule.ts';
import type { Outcome } from '../path/types.ts';

/** A piece of a sentence. `record` is an index into the strand's records. */
export type SentencePart =
  | { kind: 'words'; text: string }
  | { kind: 'component'; text: string }
  | { kind: 'time'; at: Microseconds }
  | { kind: 'duration'; time: Duration }
  | { kind: 'quote'; text: string; record: number };

export type FindingKind = 'failed-at' | 'stopped-before' | 'slowed-by' | 'went-astray' | 'doubled' | 'refused' | 'odd-volume' | 'odd-result';

export interface Finding {
  rank: number;
  kind: FindingKind;
  /** The component that gave up. */
  failedIn: string;
  /** Where the cause shows: the deepest place. */
  component: string;
  /** Index of the telling record. */
  record: number;
  sentence: SentencePart[];
  /** 0 to 1. */
  confidence: number;
  /** Indexes of records. */
  evidence: number[];
  /** The component that usually speaks next, null where nothing is missing or it is not known. */
  missingNext: string | null;
  /** How much longer than usual it took, null where it is not about time. */
  excess: Duration | null;
  /** The same for findings that are alike. */
  signature: string;
}

/** What is declared about a flow; plain data. */
export interface FlowRules {
  name: string;
  label: string;
  /** Kind of the founding identifier. */
  kind: string;
  /** Beginning of the founding identifier, where one kind has several flows. */
  prefix: string;
  /** Silence after which a leg without an end counts as stalled; null for what is learned. */
  patienceMs: number | null;
  /** Volumes that a good leg states: the number behind a field, within bounds. */
  expects: { field: string; words: string; min: number; max: number | null }[];
  /** Steps that have to come, within a time from the leg's begin where one is given. */
  must?: { component: string | null; words: string; withinMs: number | null }[];
  /** Components through which a leg may pass; every one where none is named. */
  path?: string[];
  /** How long a leg may take. */
  longestMs?: number | null;
  /** When its runs are to begin; null for what is learned. */
  schedule?: DeclaredSchedule | null;
}

export interface Verdict {
  outcome: Outcome;
  findings: Finding[];
}
