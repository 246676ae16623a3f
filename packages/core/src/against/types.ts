import type { Outcome } from '../path/index.ts';
import type { Duration, Microseconds } from '../units.ts';

/** As much of a strand as is compared. */
export interface StrandFacts {
  at: Microseconds;
  /** It is of what is looked at; else of all others. */
  own: boolean;
  /** '' for none. */
  flow: string;
  outcome: Outcome;
  whole: Duration;
  database: Duration;
  /** In queues and gaps. */
  transit: Duration;
  /** Work in the component that is looked at; null where none is. */
  here: Duration | null;
}

export const MEASURES = ['amiss', 'whole', 'database', 'transit', 'rest', 'here'] as const;
/** What is compared: the share that is amiss; durations: of the whole, in databases, on the way, everywhere else, in the component that is looked at. */
export type Measure = (typeof MEASURES)[number];

/** A measure of some strands: a share (0 to 1), else half of them within so many microseconds. Null of none. */
export type Value = number | null;

export interface Compared {
  measure: Measure;
  own: Value;
  /** Of the others, weighted as if they were of the same flows in the same proportion. */
  others: Value;
  /** The same before. */
  ownBefore: Value;
  othersBefore: Value;
  /** Beside the others at the same time. */
  beside: Judged;
  /** Beside itself before. */
  since: Judged;
}
/** `more`: larger, and it matters; `flat`: nothing that chance may not have done, or that does not matter; `few`: too few to say. */
export interface Judged {
  is: 'more' | 'less' | 'flat' | 'few';
  /** How likely by chance; 1 where nothing is told. */
  chance: number;
}
/** What came in a slot of time, on both sides. */
export interface Piece {
  at: Microseconds;
  own: PieceSide | null;
  others: PieceSide | null;
}
export type PieceSide = { strands: number } & Record<Measure, Value>;
export interface AgainstAll {
  measures: Compared[];
  course: Piece[];
  /** How many of each outcome, since and before; whether it is more or less often that of the others. */
  outcomes: { outcome: Outcome; own: number; others: number; ownBefore: number; othersBefore: number; beside: Judged }[];
}
