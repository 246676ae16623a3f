import type { Encoding, Place, ReadingHints } from '@fadenweg/core/reading';
import type { Batch, Declarations, ReaderState } from '../../evidence/batch.ts';

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
