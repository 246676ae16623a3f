import type { Level, Microseconds, Duration } from '../units.ts';
import type { DateOrder } from './calendar.ts';

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
  /** It stands at the begin of what took that long. */
  begins: boolean;
  understood: boolean;
  /** Component and host that the record itself names, '' where it names none. */
  component: string;
  host: string;
  /** Not a record at all: a header, a directive. */
  framing: boolean;
}

export const emptyDraft = (): Draft => ({
  at: NaN,
  timeText: '',
  level: 0,
  logger: '',
  message: '',
  fields: {},
  took: NaN,
  begins: false,
  understood: false,
  component: '',
  host: '',
  framing: false,
});

export function clearDraft(draft: Draft): void {
  draft.at = NaN;
  draft.timeText = '';
  draft.level = 0;
  draft.logger = '';
  draft.message = '';
  draft.fields = {};
  draft.took = NaN;
  draft.begins = false;
  draft.understood = false;
  draft.component = '';
  draft.host = '';
  draft.framing = false;
}

/** The first lines of a source, by which a format is guessed. */
export interface Sample {
  path: string;
  text: string;
  lines: string[];
}

/** What a guess found out about a source's times; plain data that is kept with the source. */
export interface ReadingHints {
  /** When the source was last written: gives the year to first times that lack it. */
  modified: Microseconds;
  /** How dates in numbers alone are to be read; day-first where nothing is known. */
  dateOrder?: DateOrder;
  /** At which end of what took a while its records stand: told by what lies within, or said by a person. */
  standsAt?: 'begin' | 'end';
  /** How its times are written, typed by a person (date field symbols); then nothing is guessed about it. */
  timePattern?: string;
  /** Another order fits its dates too: it was guessed, taken from the neighbours, or set by a person. */
  orderBy?: 'guessed' | 'neighbours' | 'set';
  /** Days since 1970 of the first record, in local time, for times that are a clock alone. */
  firstDay?: number;
  /** Times carry no offset, so that the zone counts; no year, so that the source's date counts. */
  lacksZone?: boolean;
  /** Regions that its text names: likely zones of whatever the same machine writes without one. */
  regions?: string[];
  lacksYear?: boolean;
  /** Its rows are states that were seen at an instant, and no events: told by its rows, or said by a person. */
  snapshots?: boolean;
  /** The field whose values part the work on several transactions, where nobody names a thread or process; '' for none. */
  laneBy?: string;
  /** Bytes at which it is sampled, where its beginning does not tell how it is written. */
  sampleAt?: number[];
  /** A person said in which format it is read. */
  formatBy?: 'set';
  /** The year is that of what was written up to this moment in other sources: it is not taken from them again until they tell otherwise. */
  yearBy?: Microseconds;
}
/** All that reading a source rests on besides its bytes. */
export interface ReadingContext extends ReadingHints {
  /** IANA name, for times that carry no offset. */
  zone: string;
  /** What was read last, where reading goes on in the middle of a source. */
  anchor?: Microseconds;
  /** What a reader of this source told by `save`, where reading goes on in the middle. */
  memory?: unknown;
}

/** A piece of a source: a record, or framing that belongs to none. */
export interface Cut {
  /** Position behind it. */
  to: number;
  record: boolean;
}

/** Reads the records of one source, in order. */
export interface RecordReader {
  /** Called with the first line of a record before `begins` is asked about the lines that follow it. */
  start(firstLine: string): void;
  /** Whether a new record begins with this line, given the lines since `start`. */
  begins(line: string): boolean;
  /** Fills the draft from a whole record's text (without its last line break). */
  read(text: string, draft: Draft): void;
  /**
   * For formats whose records are no lines: the piece that begins at `from`, null while it is not complete. Called once for each piece, in order.
   *
   * @param view one character for each byte (or pair of bytes in UTF-16), so that places can be told; what is read comes decoded
   * @param last nothing comes behind the view
   */
  cut?(view: string, from: number, last: boolean): Cut | null;
  /** What reading has to know to go on behind the last record: plain data. */
  save?(): unknown;
}

export interface Reader {
  /** Stable name, kept in the database and shown on Sources. */
  readonly format: string;
  /** 0 (surely not) to 1 (surely). */
  confidence(sample: Sample): number;
  open(sample: Sample, context: ReadingContext): RecordReader;
  /** Whether the sample's times are a clock alone. */
  lacksDay?(sample: Sample): boolean;
}
