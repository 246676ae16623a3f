import type { Iso } from './index.ts';

/** How far a clock is ahead over one stretch of its own time. */
export interface ClockStretch {
  from: Iso;
  to: Iso;
  /** At its begin; positive: the clock is ahead of the others. */
  aheadMs: number;
  /** Milliseconds gained in each hour. */
  driftMsPerHour: number;
  /** The truth lies within so much of it, on both sides. */
  withinMs: number;
}
/** What calls and messages said of a clock over one stretch of time: it was ahead by at least and at most so much. */
export interface ClockEvidence {
  from: Iso;
  to: Iso;
  leastMs: number;
  mostMs: number;
  hops: number;
}
/** A host with its clock; where the host of records is not known, a component. */
export interface HostClock {
  id: number;
  host: string;
  /** Empty where the host is known. */
  component: string;
  /**
   * `right`: it agrees with the others; `corrected`: what it wrote is put right by what was found; `set`: by what was set by hand;
   * `unbounded`: too little passes between it and others to know.
   */
  state: 'right' | 'corrected' | 'set' | 'unbounded';
  /** What holds now. */
  stretches: ClockStretch[];
  /** What was found, also where something else was set by hand. */
  found: ClockStretch[];
  evidence: ClockEvidence[];
  /** Calls and messages that bound it, of the sample that was looked at. */
  hops: number;
  partners: { host: string; component: string; hops: number }[];
  setAheadMs: number | null;
  changedBy: string;
  changedAt: Iso;
}
