import type { Iso, Outcome } from './index.ts';
import type { Judged as AgainstJudged } from '@fadenweg/core/against';

export type { AgainstJudged };

export type AgainstWhat = 'party' | 'component' | 'host' | 'version';
export type AgainstMeasure = 'amiss' | 'whole' | 'database' | 'transit' | 'rest' | 'here';
/** A share (0 to 1) where it is of those amiss; else half of them lasted at most so many milliseconds. Null of none. */
export interface AgainstCompared {
  measure: AgainstMeasure;
  own: number | null;
  /** Of the others, as if they were of the same flows in the same proportion. */
  others: number | null;
  ownBefore: number | null;
  othersBefore: number | null;
  beside: AgainstJudged;
  since: AgainstJudged;
}
export type AgainstPieceSide = { strands: number } & Record<AgainstMeasure, number | null>;
export interface AgainstPiece {
  at: Iso;
  own: AgainstPieceSide | null;
  others: AgainstPieceSide | null;
}
/** One of the same kind. */
export interface AgainstPeer {
  name: string;
  /** It is the one that is looked at. */
  own: boolean;
  strands: number;
  amiss: number;
  /** So many were amiss if it were as all of its flows are. */
  expected: number;
  /** Half of those that ended well lasted at most so long; of components: they worked so long. */
  medianMs: number | null;
}
/** A party, component, host or version beside all others of the same flows, and beside itself before. */
export interface Against {
  what: AgainstWhat;
  name: string;
  /** A party's kind of identifier, a version's component; else ''. */
  of: string;
  from: Iso;
  to: Iso;
  /** As long before as the window is long. */
  before: Iso;
  slotMs: number;
  /** Components that the others pass instead, or all the same though not there; null where the others are all of the same flows. */
  instead: string[] | null;
  /** Its flows, the most frequent first. */
  flows: { flow: string; label: string; own: number; others: number }[];
  strands: { own: number; others: number; ownBefore: number; othersBefore: number };
  /** Of so many one is looked at, always the same ones; 1: all of them. */
  sampled: { own: number; others: number };
  measures: AgainstCompared[];
  outcomes: { outcome: Outcome; own: number; others: number; ownBefore: number; othersBefore: number; beside: AgainstJudged }[];
  course: AgainstPiece[];
  /** Of the same kind in these flows, the most frequent first. */
  peers: AgainstPeer[];
}
