import type { Level, Microseconds, Duration } from '../units.ts';

export type FieldValue = string | number | boolean;
export type Fields = Record<string, FieldValue>;

/**
 * What a reader makes of one record's text. One object is used again for each record on the hot path:
 * `clearDraft` sets it back, and whoever keeps a draft copies what it needs.
 */
export interface Draft {
  /** NaN where the record states no time. */
  at: Microseconds;
  /** The time as the source writes it. */
  timeText: string;
  level: Level;
  logger: string;
  message: string;
  fields: Fields;
  /** A duration that the record states about itself, NaN where there is none. */
  took: Duration;
  understood: boolean;
}

export const emptyDraft = (): Draft => ({
  at: NaN,
  timeText: '',
  level: 0,
  logger: '',
  message: '',
  fields: {},
  took: NaN,
  understood: false,
});

export function clearDraft(draft: Draft): void {
  draft.at = NaN;
  draft.timeText = '';
  draft.level = 0;
  draft.logger = '';
  draft.message = '';
  draft.fields = {};
  draft.took = NaN;
  draft.understood = false;
}

/** The first lines of a source, by which a format is guessed. */
export interface Sample {
  path: string;
  text: string;
  lines: string[];
}

/** What a source declares or a guess found out; plain data that is kept with the source. */
export interface ReadingContext {
  /** IANA name, for times that carry no offset. */
  zone: string;
  /** For formats whose times lack the year. */
  year: number;
}

/** Reads the records of one source, in order. */
export interface RecordReader {
  /** Called with the first line of a record before `begins` is asked about the lines that follow it. */
  start(firstLine: string): void;
  /** Whether a new record begins with this line, given the lines since `start`. */
  begins(line: string): boolean;
  /** Fills the draft from a whole record's text (without its last line break). */
  read(text: string, draft: Draft): void;
}

export interface Reader {
  /** Stable name, kept in the database and shown on Sources. */
  readonly format: string;
  /** 0 (surely not) to 1 (surely). */
  confidence(sample: Sample): number;
  open(sample: Sample, context: ReadingContext): RecordReader;
}
