import type { Duration, Microseconds } from '../units.ts';

/** A record as its own clock tells it. */
export interface ClockRecord {
  /** As written, uncorrected. */
  at: Microseconds;
  /** Duration that it states to have ended with, NaN where there is none. */
  took: Duration;
  /** Number of its clock, from 0. */
  clock: number;
  shape: number;
  /** Bits of MARK. */
  marks: number;
  keys: readonly number[];
}

/** Differences that one passage between two clocks allows: how far `b` is ahead of `a`, at least and at most. */
export interface Bound {
  a: number;
  b: number;
  /** When, as each of the two tells it. */
  atA: Microseconds;
  atB: Microseconds;
  low: Duration;
  high: Duration;
  /** It only tells whether both agree: that one is called by the other is likely, but not sure enough to prove a difference. */
  likely: boolean;
}

/** How far a clock is ahead over one stretch of time: `ahead + drift * (at - from)`, `at` being its own time. */
export interface ClockSpan {
  /** By the clock itself. */
  from: Microseconds;
  to: Microseconds;
  /** At `from`, positive where the clock is ahead. */
  ahead: Duration;
  /** Microseconds gained in each microsecond. */
  drift: number;
  /** The truth lies within so much of it, on both sides. */
  within: Duration;
}

/** What was seen of one clock over one stretch of time, against the clock that most agree with. */
export interface ClockReading {
  from: Microseconds;
  to: Microseconds;
  low: Duration;
  high: Duration;
  /** Passages that bound it. */
  hops: number;
}

export interface ClockEstimate {
  clock: number;
  /** Empty where it could not be bounded closely enough. */
  spans: ClockSpan[];
  readings: ClockReading[];
  hops: number;
  /** Clocks with which messages and calls were exchanged. */
  with: { clock: number; hops: number }[];
}
