import type { SignRow } from './sign-collector.ts';
import type { ClockSpan, Encoding, IdentifierKind, MeaningRule, Place, ReadingHints } from '@fadenweg/core';

/** What a reading worker needs to know to read one source. */
export interface ReadingJob {
  sourceId: number;
  /** File that holds the bytes, or null to read them from the kept blocks. */
  file: string | null;
  /** The first byte in the file; what is before it is kept already. */
  fileFrom: number;
  /** The file's last record may go on, and is left. */
  growing: boolean;
  size: number;
  path: string;
  format: string;
  encoding: Encoding;
  zone: string;
  hints: ReadingHints;
  componentId: number;
  component: string;
  hostId: number;
  host: string;
  /** Records may name components and hosts of their own. */
  ownComponents: boolean;
  ownHosts: boolean;
  from: Place;
  state: ReaderState | null;
}
/** What reading carries from one batch to the next besides the position. */
export interface ReaderState {
  homeCounts: number[];
  lastAt: number;
  /** The position stands inside of a line that was cut. */
  inside: boolean;
  /** Of the format's reader. */
  memory?: unknown;
}
/** What is declared, the same for all sources. Index in `kinds` and id in the database go side by side. */
export interface Declarations {
  kinds: IdentifierKind[];
  kindIds: number[];
  rules: MeaningRule[];
  /** Clocks that are amiss: of a host, or of a component whose host is not known. */
  clocks: { host: string; component: string; spans: ClockSpan[] }[];
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
  /** What its records tell about changes. */
  signs: SignRow[];
  /** The same sightings and edges for the weaver: key, kind id, first, last … and a, b, first, last … */
  seen: Float64Array;
  tied: Float64Array;
  glimpses: Glimpses;
}
/** Names that records gave to their component and host, by what they name. */
export interface NameLists<T> {
  component: T;
  host: T;
}
export type ToReader =
  | { type: 'named'; ids: NameLists<[string, number][]> }
  | { type: 'read'; job: ReadingJob; declarations: Declarations; databaseUrl: string }
  | { type: 'more' }
  | { type: 'stop' };
export type FromReader =
  | { type: 'names'; names: NameLists<string[]> }
  | { type: 'batch'; batch: Batch }
  | { type: 'failed'; sourceId: number; error: string }
  | { type: 'stopped'; sourceId: number };

/** A record's id: its source and the position of its first byte there. Sources up to 2^17, positions up to 2^36. */
export const recordId = (sourceId: number, byte: number): number => sourceId * 2 ** 36 + byte;
export const sourceOfId = (id: number): number => Math.floor(id / 2 ** 36);
export const byteOfId = (id: number): number => id % 2 ** 36;
export const FLAG = { understood: 1, cut: 2, shortened: 4 } as const;
