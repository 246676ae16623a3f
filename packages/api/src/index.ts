import type { WeightName } from '@fadenweg/core/weights';

export type { WeightName };
/**
 * The types of what server and browser say to each other: the one home of the wire's vocabulary. Types only, no code.
 * Times are ISO 8601 in UTC with microseconds; durations are milliseconds.
 */
export type * from './against.ts';
export type * from './changes.ts';
export type * from './declared.ts';
export type * from './explain.ts';
export type * from './faults.ts';
export type * from './find.ts';
export type * from './findings.ts';
export type * from './hosts.ts';
export type * from './calls.ts';
export type * from './data.ts';
export type * from './jobs.ts';
export type * from './kept.ts';
export type * from './live.ts';
export type * from './rounds.ts';
export type * from './runbooks.ts';
export type * from './shapes.ts';
export type * from './source-texts.ts';
export type * from './sources.ts';
export type * from './strands.ts';
export type * from './work.ts';

import type { FoundCode } from './explain.ts';
import type { EnvironmentInfo, ImportInfo } from './sources.ts';
import type { Strand, StrandSummary } from './strands.ts';
import type { Role } from '@fadenweg/core/identifiers';
import type { Outcome } from '@fadenweg/core/path';

export type { Outcome, Role };

export type Iso = string;
export type LevelName = 'none' | 'trace' | 'debug' | 'info' | 'warning' | 'error' | 'fatal';
export interface Page<T> {
  items: T[];
  /** To be given as `after`; null at the end. */
  next: string | null;
}

/** RFC 9457. `action` says what to do. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  action?: string;
  /** The number under which the server's log tells of the request. */
  request?: string;
  /** With status 300: the strands among which to choose. */
  choices?: StrandSummary[];
}

export interface RecordSource {
  id: number;
  path: string;
  line: number;
  byteFrom: number;
  byteTo: number;
}
export interface LogRecord {
  id: string;
  at: Iso;
  originalAt: string;
  correctedByMs: number;
  source: RecordSource;
  component: string;
  host: string;
  environment: string;
  level: LevelName;
  logger: string;
  message: string;
  attributes: Record<string, string | number | boolean>;
  identifiers: { kind: string; value: string; role: Role }[];
  shape: string;
  strand: string | null;
  /** Of the strand; null where there is none. */
  flow: string | null;
  outcome: Outcome | null;
  leg: number | null;
  because: 'declared' | 'carried-over' | null;
  understood: boolean;
  /** Who tells its time: the record itself, the records beside it, or nothing but the date of its file. */
  timeFrom: 'told' | 'neighbour' | 'file';
  /** The message is longer than what is searched and listed; all of it is in the original text. */
  shortened: boolean;
  /** `coarse`: its time is told in whole seconds. Other bits are resolved to words: failing, refusing, done, sends, receives, waits, ends, entry. */
  marks: string[];
  tookMs: number | null;
  /** Ids of records of other sources that tell the same event; they are not listed by themselves. */
  copies: string[];
  /** By its level and words, or by what people said. */
  weight: WeightName;
}
/** One record with the bytes that it was read from. */
export interface RecordInFull extends LogRecord {
  raw: string;
  rawCut: boolean;
  /** Codes in it, with what they mean. */
  codes: FoundCode[];
  /** The same event as other sources tell it. */
  toldIn: ToldIn[];
}
export interface ToldIn {
  id: string;
  source: RecordSource;
  component: string;
  originalAt: string;
  raw: string;
  rawCut: boolean;
}

export interface Summary {
  records: number;
  sources: number;
  strands: number;
  from: Iso | null;
  to: Iso | null;
  demo: boolean;
  /** Demo data can be loaded and removed from the application. */
  demoAtHand: boolean;
  environments: EnvironmentInfo[];
  components: string[];
  imports: ImportInfo[];
  weaving: { behind: number } | null;
  /** Sources that wait to be read or are being read, also again. */
  unread: number;
  /** Nothing is being read or woven: what is shown is what there is. */
  still: boolean;
  /** Pieces of work that failed for good and wait for somebody. */
  workStopped: number;
}
export interface SearchHit {
  kind: string;
  label: string;
  role: Role;
  value: string;
  strands: StrandSummary[];
  more: boolean;
}
export interface SearchAnswer {
  text: string;
  hits: SearchHit[];
  /** Where exactly one strand answers: go there. */ only: string | null;
  looked: { kind: string; value: string }[];
  /** The text holds something that looks like an identifier of a known kind. */
  sure: boolean;
  /** It is a list of identifiers: to be looked up one by one, all at once. */
  list: boolean;
}
/** Many identifiers looked up at once, in the order of the list. */
export interface ListedAnswer {
  items: {
    word: string;
    kind: string | null;
    records: boolean;
    strand: StrandSummary | null;
    further: number;
    /** Through which the strand passes; null where it was not asked. */ components: string[] | null;
  }[];
}
export interface Health {
  version: string;
  database: { state: 'up' | 'down'; version: string | null };
  runningImports: number;
  /** Pieces of work in the background; null where the database is away. */
  work: { running: number; waiting: number; failed: number } | null;
  /** Who hears of what happens, how much is not heard yet, and what keeps one from hearing it. */
  listeners: { name: string; behind: number; error: string | null }[];
  /** Since the start, how long weaving took for each kind of its work, in milliseconds; findings are a part of judging. */
  weavingMs: Record<'tying' | 'carrying' | 'learning' | 'judging' | 'findings', number>;
}
export interface RecordPlace {
  /** Path below what was brought in. */
  source: string;
  /** First line, counted from 1. */
  line: number;
  /** It names nothing itself; who wrote it worked on the strand. */
  carried: boolean;
  /** The leg that it is of, from 1. */
  leg: number;
}
/** A line of an export: a strand, with its records' places where they are asked for. */
export type ExportedStrand = Strand & { recordsAt?: RecordPlace[] };
export type { Answers, Asked } from './calls.generated.ts';
