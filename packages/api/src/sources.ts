import type { Asked } from './calls.generated.ts';
import type { IdentifierKind } from './declared.ts';
import type { Iso, Page, Role } from './index.ts';
import type { WaitsFor } from './work.ts';

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
  /** How its dates in numbers are read where they may be read otherwise too, and how that came; null where they leave no choice. */
  dateOrder: 'day-first' | 'month-first' | 'year-first' | null;
  dateOrderBy: 'guessed' | 'neighbours' | 'set' | null;
  /** How its times are written, as a person typed it; null where that is learned. */
  timeLayout: string | null;
  /** At which end of what took a while its records stand; null where nothing tells it: then at its end. */
  standsAt: 'begin' | 'end' | null;
  /** Its rows are states that were seen at an instant, and no events; null where nothing tells it: then they are events. */
  snapshots: boolean | null;
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
  /** Of its records those that another source tells too: they are not shown by themselves. */
  copies: number;
  /** The source that tells them, null where it is a copy of none. */
  copyOf: { id: number; path: string } | null;
  /** A person said that it is a copy of none. */
  apart: boolean;
  understood: number;
  from: Iso | null;
  to: Iso | null;
  importId: number;
}

/** How sources are to be read. */
export type SourceChange = Asked['put /sources/{id}']['body'];
/** What would come of a layout of times, over a whole source or as much of it as could be read in a while. */
export interface LayoutTrialInfo {
  /** All of the source was read. */
  whole: boolean;
  records: number;
  understood: number;
  from: Iso | null;
  to: Iso | null;
  backwards: number;
  examples: { line: number; text: string; at: Iso }[];
  missed: { line: number; text: string }[];
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

/** Kinds that together name the transactions of a system, where nobody has declared any yet; what they bring is told of the records that were looked at. */
export interface BestKinds {
  kinds: (Pick<KindSuggestion, 'name' | 'label' | 'role' | 'patterns' | 'fields'> & Pick<IdentifierKind, 'normal'>)[];
  /** A value of each of them. */
  examples: string[];
  transactions: number;
  components: string[];
  /** Of the records, the share that comes to belong to a transaction, 0 to 1. */
  share: number;
}
export interface KindSuggestions extends Page<KindSuggestion> {
  best: BestKinds | null;
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
  /** What it waits for, where it has not ended. */
  waitsFor: WaitsFor[];
}
