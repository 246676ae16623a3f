/**
 * The types of what server and browser say to each other: the one home of the wire's vocabulary. Types only, no code.
 * Times are ISO 8601 in UTC with microseconds; durations are milliseconds.
 */
export type * from './changes.ts';
export type * from './declared.ts';
export type * from './explain.ts';
export type * from './find.ts';
export type * from './findings.ts';
export type * from './hosts.ts';
export type * from './kept.ts';
export type * from './live.ts';
export type * from './runbooks.ts';
export type * from './source-texts.ts';

import type { FoundCode } from './explain.ts';
import type { Finding } from './findings.ts';

export type Iso = string;
export type Outcome = 'failed' | 'stalled' | 'odd' | 'doubled' | 'slow' | 'refused' | 'running' | 'done' | 'out-of-sight';
export type LevelName = 'none' | 'trace' | 'debug' | 'info' | 'warning' | 'error' | 'fatal';
export type Role = 'business' | 'link' | 'shared';

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
  /** The message is longer than what is searched and listed; all of it is in the original text. */
  shortened: boolean;
  /** `coarse`: its time is told in whole seconds. Other bits are resolved to words: failing, refusing, done, sends, receives, waits, ends, entry. */
  marks: string[];
  tookMs: number | null;
}
/** One record with the bytes that it was read from. */
export interface RecordInFull extends LogRecord {
  raw: string;
  rawCut: boolean;
  /** Codes in it, with what they mean. */
  codes: FoundCode[];
}

export interface StrandSummary {
  id: string;
  flow: string | null;
  flowLabel: string;
  businessId: string;
  kind: string;
  outcome: Outcome;
  startedAt: Iso;
  endedAt: Iso;
  durationMs: number;
  usualMs: number | null;
  records: number;
  failedIn: string | null;
  headline: string;
  parties: { kind: string; value: string }[];
  environment: string;
}
export interface StrandIdentifier {
  kind: string;
  label: string;
  value: string;
  role: Role;
  validFrom: Iso | null;
  validTo: Iso | null;
  /** Its kind was found in the data, and nobody has confirmed it. */
  discovered: boolean;
  because: { recordId: string; from: string; fromValue: string }[];
}
export interface Step {
  id: number;
  leg: number;
  parent: number | null;
  attempt: number;
  parallel: number | null;
  component: string;
  host: string;
  startedAt: Iso;
  endedAt: Iso;
  workMs: number;
  waitMs: number;
  usualMs: number | null;
  excessMs: number | null;
  outcome: Outcome;
  records: number;
}
export interface Hop {
  from: number;
  to: number;
  by: string;
  delayMs: number;
}
export type TimeKind = 'work' | 'waiting' | 'queue' | 'lock-wait' | 'gap';
/** Medians of strands in a slot of time, in milliseconds. */
export interface SeriesPoint {
  at: Iso;
  strands: number;
  wholeMs: number;
  /** 95 % took no longer. */
  slowMs: number;
  databaseMs: number;
  transitMs: number;
}
/** A strand's times beside those of its party and of everybody, of the same flow, around it. */
export interface StrandSeries {
  from: Iso;
  to: Iso;
  own: { at: Iso; wholeMs: number; databaseMs: number; transitMs: number };
  everybody: SeriesPoint[];
  /** Null where the strand has no party. */
  party: { kind: string; value: string; points: SeriesPoint[] } | null;
}
export type StrandGrouping = 'flow' | 'party' | 'failed-in' | 'finding';
/** Strands that have something in common. */
export interface StrandGroup {
  /** What narrows the list to it: a flow's name or `none`, a party's value, a component. */
  key: string;
  label: string;
  /** Of a party: its kind; else empty. */
  kind: string;
  strands: number;
  outcomes: Partial<Record<Outcome, number>>;
  p50Ms: number;
  p95Ms: number;
  lastStartedAt: Iso;
}
/** One continuous piece of processing: placing an order, a later query. */
export interface StrandLeg {
  id: number;
  /** Of the first leg; others stand for themselves. */
  flow: string | null;
  /** First line of the record that it begins with. */
  entry: string;
  startedAt: Iso;
  endedAt: Iso;
  outcome: Outcome;
  records: number;
}
export interface Strand {
  id: string;
  flow: string | null;
  flowLabel: string;
  businessId: string;
  kind: string;
  outcome: Outcome;
  attributes: Record<string, string>;
  startedAt: Iso;
  endedAt: Iso;
  durationMs: number;
  usualMs: number | null;
  identifiers: StrandIdentifier[];
  records: number;
  legs: StrandLeg[];
  steps: Step[];
  hops: Hop[];
  time: { component: string | null; kind: TimeKind; ms: number }[];
  /** Long silences between neighbouring records, by the id of the record behind each. */
  silences: { before: string; ms: number; kind: TimeKind; component: string | null }[];
  findings: Finding[];
  related: { strand: string; businessId: string; flowLabel: string; why: string }[];
  /** Said when only the first records of a very long strand were followed. */
  cut: { followed: number; of: number } | null;
}
/** A record with its place on the strand's path. */
export interface StrandLine extends LogRecord {
  step: number;
}

/** A source: one log, of one file or of the parts that it was rotated into. */
export interface SourceInfo {
  id: number;
  /** Of the file, or what the parts have in common. */
  path: string;
  parts: number;
  format: string;
  /** 0 to 1. */
  confidence: number;
  zone: string;
  /** The times state their offset; or the zone was given with the import, guessed from what other sources say, or set by hand. */
  zoneBy: 'stated' | 'given' | 'guessed' | 'set';
  encoding: string;
  component: string;
  host: string;
  environment: string;
  demo: boolean;
  size: number;
  readBytes: number;
  state: 'waiting' | 'reading' | 'done' | 'failed' | 'cancelled';
  error: string | null;
  records: number;
  understood: number;
  from: Iso | null;
  to: Iso | null;
  importId: number;
}
/** Lines of a source as they were written. */
export interface OriginalLines {
  path: string;
  component: string;
  encoding: string;
  /** Number of the first line, counted from 1. */
  from: number;
  lines: string[];
  /** Lines of the whole source. */
  total: number;
}
/** When each source speaks: stretches as pairs of begin and end in milliseconds since 1970. */
export interface Coverage {
  from: Iso | null;
  to: Iso | null;
  items: { source: number; path: string; component: string; environment: string; demo: boolean; stretches: [number, number][] }[];
}
/** What was kept whole of a source, grouped by look. */
export interface KeptWhole {
  records: number;
  groups: { shape: string; count: number; example: string; line: number; recordId: string }[];
}
/** A kind of identifier that the data seem to hold. */
export interface KindSuggestion {
  name: string;
  label: string;
  role: Role;
  patterns: string[];
  fields: string[];
  values: number;
  records: number;
  recordsPerValue: number;
  components: string[];
  /** Share of the values that more than one component names, 0 to 1. */
  across: number;
  /** Business identifiers beside a value, in the mean; null where none is declared. */
  joins: number | null;
  examples: string[];
}
export interface EnvironmentInfo {
  name: string;
  /** All of its sources are made up. */
  demo: boolean;
  records: number;
  from: Iso | null;
  to: Iso | null;
}
export interface ImportInfo {
  id: number;
  state: 'receiving' | 'reading' | 'following' | 'done' | 'failed' | 'cancelled' | 'removing';
  startedAt: Iso;
  endedAt: Iso | null;
  who: string;
  environment: string;
  demo: boolean;
  files: number;
  alreadyThere: number;
  bytes: number;
  readBytes: number;
  records: number;
  understood: number;
  keptWhole: number;
  perSecond: number;
  secondsLeft: number | null;
  errors: { path: string; error: string }[];
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
}
/** A line of an export: a strand, with its records' places where they are asked for. */
export type ExportedStrand = Strand & { recordsAt?: RecordPlace[] };
