import type { CallSummary } from './calls.ts';
import type { Finding } from './findings.ts';
import type { FaultState } from './faults.ts';
import type { Iso, LogRecord, Outcome, Role, WeightName } from './index.ts';
import type { TimeKind } from '@fadenweg/core/path';

export type { TimeKind };

export interface StrandSummary {
  id: string;
  flow: string | null;
  flowLabel: string;
  /** The number that people ask by, null where it never got one. */
  businessId: string | null;
  /** What it is called: its number, else the best of what it has. */
  name: string;
  kind: string;
  outcome: Outcome;
  startedAt: Iso;
  endedAt: Iso;
  durationMs: number;
  usualMs: number | null;
  records: number;
  failedIn: string | null;
  headline: string;
  parties: { kind: string; value: string }[];
  environment: string;
  /** By its outcome and its gravest record. */
  weight: WeightName;
}

export interface StrandIdentifier {
  kind: string;
  label: string;
  value: string;
  role: Role;
  validFrom: Iso | null;
  validTo: Iso | null;
  /** Its kind was found in the data, and nobody has confirmed it. */
  discovered: boolean;
  because: { recordId: string; from: string; fromValue: string }[];
}

export interface Step {
  id: number;
  leg: number;
  parent: number | null;
  attempt: number;
  parallel: number | null;
  component: string;
  host: string;
  startedAt: Iso;
  endedAt: Iso;
  workMs: number;
  waitMs: number;
  usualMs: number | null;
  excessMs: number | null;
  outcome: Outcome;
  records: number;
}

export interface Hop {
  from: number;
  to: number;
  by: string;
  delayMs: number;
}

/** Medians of strands in a slot of time, in milliseconds. */
export interface SeriesPoint {
  at: Iso;
  strands: number;
  wholeMs: number;
  /** 95 % took no longer. */
  slowMs: number;
  databaseMs: number;
  transitMs: number;
}

/** A strand's times beside those of its party and of everybody, of the same flow, around it. */
export interface StrandSeries {
  from: Iso;
  to: Iso;
  own: { at: Iso; wholeMs: number; databaseMs: number; transitMs: number };
  everybody: SeriesPoint[];
  /** Null where the strand has no party. */
  party: { kind: string; value: string; points: SeriesPoint[] } | null;
}

export type StrandGrouping = 'flow' | 'party' | 'failed-in' | 'finding';

/** Strands that have something in common. */
export interface StrandGroup {
  /** What narrows the list to it: a flow's name or `none`, a party's value, a component. */
  key: string;
  label: string;
  /** Of a party: its kind; else empty. */
  kind: string;
  strands: number;
  outcomes: Partial<Record<Outcome, number>>;
  p50Ms: number;
  p95Ms: number;
  lastStartedAt: Iso;
}

/** One continuous piece of processing: placing an order, a later query. */
export interface StrandLeg {
  id: number;
  /** Of the first leg; others stand for themselves. */
  flow: string | null;
  /** First line of the record that it begins with. */
  entry: string;
  startedAt: Iso;
  endedAt: Iso;
  outcome: Outcome;
  records: number;
}

export interface Strand {
  id: string;
  flow: string | null;
  flowLabel: string;
  /** The number that people ask by, null where it never got one. */
  businessId: string | null;
  /** What it is called: its number, else the best of what it has. */
  name: string;
  kind: string;
  outcome: Outcome;
  attributes: Record<string, string>;
  startedAt: Iso;
  endedAt: Iso;
  durationMs: number;
  usualMs: number | null;
  identifiers: StrandIdentifier[];
  records: number;
  legs: StrandLeg[];
  steps: Step[];
  hops: Hop[];
  time: { component: string | null; kind: TimeKind; ms: number }[];
  /** Long silences between neighbouring records, by the id of the record behind each. */
  silences: { before: string; ms: number; kind: TimeKind; component: string | null }[];
  findings: Finding[];
  /** What there is to say of it as a call; null where it is none. */
  call: CallSummary | null;
  /** Rows that it says it read, wrote, rejected and skipped; null where it says nothing. */
  rows: { read: number | null; written: number | null; rejected: number | null; skipped: number | null } | null;
  /** The fault by which it failed; null where it did not. */
  fault: StrandFault | null;
  related: { strand: string; businessId: string | null; name: string; flowLabel: string; why: string }[];
  /** Said when only the first records of a very long strand were followed. */
  cut: { followed: number; of: number } | null;
}

/** A record with its place on the strand's path. */
export interface StrandLine extends LogRecord {
  step: number;
}

/** The fault of a strand, and what was said of it last. */
export interface StrandFault {
  id: number;
  title: string;
  component: string;
  state: FaultState;
  owner: string;
  note: string;
  ticket: string;
}

/** How many strands of a flow ended how. */
export interface FlowCount {
  flow: string | null;
  outcome: Outcome;
  count: number;
}
export interface StrandCounts {
  items: FlowCount[];
  /** How many are out of sight, since their flow or what they say is quiet. */
  quiet: number;
}
