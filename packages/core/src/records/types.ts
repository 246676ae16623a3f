import type { ClockSpan } from '../clocks/types.ts';
import type { IdentifierKind } from '../identifiers/types.ts';
import type { MeaningRule } from '../path/marks.ts';
import type { ReadingHints } from '../reading/types.ts';
import type { Duration, Microseconds } from '../units.ts';

/** A record that states a duration, and keys that it names. */
export interface LastingRecord {
  at: Microseconds;
  took: Duration;
  coarse: boolean;
  keys: number[];
}

/** A clock that is amiss: of a host, or of a component whose host is not known. */
export interface AmissClock {
  host: string;
  component: string;
  spans: ClockSpan[];
}

/** What is declared or was found out before a source is read, the same for all of them. */
export interface Known {
  kinds: IdentifierKind[];
  rules: MeaningRule[];
  clocks: AmissClock[];
}

/** What reading carries from one piece of a source to the next besides the position; plain data. */
export interface RecordsState {
  homeCounts: number[];
  /** Time of the last record that told one, as it was written. */
  lastAt: Microseconds;
  /** Of the format's reader. */
  memory?: unknown;
  /** Some records that state a duration. */
  lasting?: LastingRecord[];
  /** Hashes of the first shapes that its records have, by which two logs of one program are told. */
  shapes?: number[];
  /** The field that parts the work on several transactions as a thread would, '' for none, once there is enough to tell. */
  laneBy?: string;
  /** Of a table: whether its rows are states that were seen at an instant, once there are enough of them. */
  snapshots?: boolean;
}

/** A source that is about to be read, as much as its records rest on. */
export interface ToRead {
  path: string;
  format: string;
  /** IANA name, for times that carry no offset. */
  zone: string;
  hints: ReadingHints;
  /** What wrote it and where, for records that do not name it; the host '' where it is not known. */
  component: string;
  host: string;
  /** Records may name components and hosts of their own. */
  ownComponents: boolean;
  ownHosts: boolean;
  /** Null at its beginning. */
  state: RecordsState | null;
}

/** So many shapes of a source are kept, of so many first records. */
export const MOST_SHAPES = 48;
export const FIRST_RECORDS = 1000;
/** Most names that the records of one source give to their component or host, and the longest; what comes on top counts as the source's own. */
export const MOST_NAMES = 500;
export const LONGEST_NAME = 80;
