import type { Sign } from '@fadenweg/core/changes';
import type { Origin, Parted } from '@fadenweg/core/faults';
import type { Place } from '@fadenweg/core/reading';
import type { Known, RecordsState } from '@fadenweg/core/records';

/** What reading carries from one batch to the next besides the position. */
export interface ReaderState extends RecordsState {
  /** The position stands inside of a line that was cut. */
  inside: boolean;
}
/** What is declared, the same for all sources. Index in `kinds` and id in the database go side by side. */
export interface Declarations extends Known {
  kindIds: number[];
  /** Faults that people parted. */
  parted: Parted[];
}
/** As much of the records of a stretch that are at home somewhere as judging needs, see Recall. */
export interface Glimpses {
  sourceId: number;
  /** In binary COPY format: component, host, level, marks, took, message (its beginning), shape, traits, keys. */
  rows: Uint8Array;
  /** Of each record its home, time and id, and where in the rows its first field begins. */
  places: Float64Array;
}
/** Records of one stretch of a source, ready for COPY; all of it is stored in one transaction together with the position. */
export interface Batch {
  sourceId: number;
  next: Place;
  state: ReaderState;
  last: boolean;
  count: number;
  understood: number;
  firstAt: number;
  lastAt: number;
  /** Days since 1970 that its records fall on. */
  days: number[];
  records: Uint8Array;
  raw: Uint8Array | null;
  counts: Uint8Array;
  sightings: Uint8Array;
  edges: Uint8Array;
  shapes: { id: number; text: string }[];
  /** Where errors come from that no batch before told, and which record is of which, in binary COPY format. */
  origins: Origin[];
  faults: Uint8Array;
  /** How often each shape is said, in binary COPY format. */
  said: Uint8Array;
  /** What its records tell about changes. */
  signs: SignRow[];
  /** Names that its records give to their component and host and none before gave: '' for the source's own. */
  speakers: { component: string; host: string }[];
  /** The same sightings and edges for the weaver: key, kind id, first, last … and a, b, first, last … */
  seen: Float64Array;
  tied: Float64Array;
  glimpses: Glimpses;
}
/** Signs of change from one place in one batch. */
export interface SignRow extends Sign {
  component: string;
  host: string;
  text: string;
  first: number;
  firstId: number;
  last: number;
  count: number;
}
