import type { Outcome } from '../path/types.ts';
import type { Duration } from '../units.ts';

/** Strands that began at one time, ended in one way and lasted alike. */
export interface Sum {
  outcome: Outcome;
  /** See `bucketOf`. */
  bucket: number;
  count: number;
}
/** What came in the same slot of an earlier day or week, where our evidence reaches there. */
export interface Sample {
  slot: number;
  /** How long that slot was, as a share of the length of a whole one. */
  exposure: number;
  count: number;
  amiss: number;
}
export interface FlowSums {
  flow: string;
  /** By slot. */
  now: readonly (readonly Sum[])[];
  before: readonly Sample[];
  /** Durations of all that ended well before. */
  lasted: readonly { bucket: number; count: number }[];
}
export interface SlotSeen {
  /** How long it is, as a share of the length of a whole one. */
  exposure: number;
  /** Whether anything at all was collected in it. */
  seen: boolean;
}

export type CellKind = 'not-done' | 'none' | 'fewer' | 'more' | 'late';
/** That a cell departs from what is usual then. */
export interface CellDeparture {
  kind: CellKind;
  /** How likely it is by chance. */
  chance: number;
  /** Of those that are not done and those that are late: the usual share; else how many usually come. */
  usual: number;
}
export interface Cell {
  all: number;
  /** How many ended how, where any did. */
  outcomes: Partial<Record<Outcome, number>>;
  /** Judged, and neither done nor under way. */
  amiss: number;
  /** Took longer than nineteen of twenty usually do, of those that ended. */
  late: number;
  /** How many usually come; null where too little is known. */
  expected: number | null;
  departs: CellDeparture | null;
}
export interface FlowCloth {
  flow: string;
  cells: Cell[];
  /** How many times as many as usual come in nearly every slot, where that holds of most flows at once: its cells are compared after it. */
  shift: number | null;
  /** Variance over mean of how many come, from day to day; null where too little is known. */
  spread: number | null;
  /** Earlier strands that it is compared with. */
  known: number;
  /** What a usual whole slot holds; null where too little is known. */
  usual: number | null;
  /** Share of the earlier ones that are amiss. */
  usualAmiss: number | null;
  /** Longer than that is late; null where too little is known. */
  fence: Duration | null;
}
export interface Cloth {
  flows: FlowCloth[];
  /** Of all that shifted together, how many times as many. */
  shift: { flows: string[]; factor: number } | null;
}
