import type { Finding, FlowRules } from '../findings/types.ts';
import type { IdentifierKind, Role } from '../identifiers/types.ts';
import type { MeaningRule } from '../path/marks.ts';
import type { Outcome, Path, StrandRecord } from '../path/types.ts';
import type { Fields } from '../reading/types.ts';
import type { AmissClock } from '../records/types.ts';
import type { Duration, Level, Microseconds } from '../units.ts';

/** A file that is brought in. */
export interface SourceFile {
  path: string;
  bytes: Uint8Array;
  /** When it was last written. */
  modified: Microseconds;
}

/** What people said about their systems. */
export interface Declared {
  kinds: readonly IdentifierKind[];
  flows: readonly FlowRules[];
  rules: readonly MeaningRule[];
  /** IANA name of the zone in which times without an offset are read as long as nothing tells of another one. */
  zone: string;
}

/** A record as it is held in memory. */
export interface HeldRecord {
  /** Orders records of one instant: source and position. */
  id: number;
  /** Index of its source. */
  source: number;
  line: number;
  /** Corrected. */
  at: Microseconds;
  /** What was added to the time as written. */
  shift: Duration;
  component: string;
  host: string;
  level: Level;
  marks: number;
  took: Duration;
  logger: string;
  message: string;
  fields: Fields;
  shape: number;
  traits: string;
  /** Keys of the identifiers that it names. */
  keys: number[];
  /** Key of the one by which it belongs to a strand, NaN for none. */
  home: number;
  /** Number of its thread or process in its source, null for none. */
  lane: number | null;
  /** Its time is told by itself. */
  understood: boolean;
}

/** One identifier of a strand. */
export interface StrandName {
  kind: string;
  value: string;
  role: Role;
}
/** A strand with all that was worked out of it. */
export interface UnderstoodStrand {
  /** Key of the founding identifier. */
  founder: number;
  /** The founding identifier's kind and value. */
  kind: string;
  value: string;
  flow: string | null;
  outcome: Outcome;
  findings: Finding[];
  /** Outcome of each leg of the path. */
  legs: Outcome[];
  path: Path;
  /** In the order in which they most likely happened; findings and path refer to them by index. */
  records: StrandRecord[];
  held: HeldRecord[];
  identifiers: StrandName[];
}
/** A source as it was read. */
export interface UnderstoodSource {
  path: string;
  format: string;
  zone: string;
  component: string;
  host: string;
  records: number;
  /** The source that tells the same, null for none. */
  copyOf: string | null;
}

/** What sources tell, worked out without anything but their bytes and what is declared. */
export interface Understanding {
  sources: UnderstoodSource[];
  /** All records but those that are copies. */
  records: HeldRecord[];
  strands: UnderstoodStrand[];
  /** Declared kinds and those that were found, by the roles that they have in the end. */
  kinds: IdentifierKind[];
  clocks: AmissClock[];
  /** Records that are out of sight, each with the one that is shown for it. */
  copies: { copy: HeldRecord; shown: HeldRecord }[];
}
