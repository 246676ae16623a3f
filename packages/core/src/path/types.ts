import type { Duration, Level, Microseconds } from '../units.ts';

export type Outcome = 'failed' | 'stalled' | 'odd' | 'doubled' | 'slow' | 'refused' | 'running' | 'done' | 'out-of-sight';

/** A record of a strand, as much of it as its path needs. */
export interface StrandRecord {
  id: string;
  at: Microseconds;
  component: string;
  host: string;
  level: Level;
  /** Bits of MARK. */
  marks: number;
  /** Duration that the record states, NaN where there is none. */
  took: Duration;
  message: string;
  /** Hash of its message's shape. */
  shape: number;
  /** What tells it apart besides its shape, as `traitsOf` tells it. */
  traits: string;
  /** Numbers that its fields state, as `measuresOf` tells them; left out for none. */
  measures?: string;
  /** Keys of its identifiers, where they are at hand. */
  keys: readonly number[];
}

export interface Step {
  id: number;
  leg: number;
  /** The step that was speaking when this one began, null for the first. */
  parent: number | null;
  /** 2 and more for what was tried again because it failed before. */
  attempt: number;
  /** The same number for steps that one caller had under way at the same time; null for one by itself. */
  parallel: number | null;
  component: string;
  host: string;
  startedAt: Microseconds;
  endedAt: Microseconds;
  work: Duration;
  wait: Duration;
  outcome: Outcome;
  /** Indexes into the strand's records. */
  records: number[];
}

export interface Hop {
  from: number;
  to: number;
  /** Index of the record that arrives. */
  record: number;
  delay: Duration;
  /** Keys that both records name. */
  by: number[];
}

export type TimeKind = 'work' | 'waiting' | 'queue' | 'lock-wait' | 'gap';
export interface TimeShare {
  component: string | null;
  kind: TimeKind;
  time: Duration;
}

/** Time between two neighbouring records in which nothing was said for long. */
export interface Silence {
  /** Index of the record behind it. */
  before: number;
  time: Duration;
  kind: TimeKind;
  component: string | null;
}

/** One continuous piece of processing. */
export interface Leg {
  id: number;
  /** Indexes into the strand's records. */
  records: number[];
  startedAt: Microseconds;
  endedAt: Microseconds;
}

export interface Path {
  legs: Leg[];
  steps: Step[];
  hops: Hop[];
  time: TimeShare[];
  silences: Silence[];
  /** Index of each record's step. */
  stepOf: Int32Array;
  startedAt: Microseconds;
  endedAt: Microseconds;
  /** How long any leg was under way: the sum of `time`. */
  duration: Duration;
}
