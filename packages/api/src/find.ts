import type { Iso, LevelName, LogRecord, Page, StrandSummary } from './index.ts';
import type { Distribution as NumberSpread } from '@fadenweg/core/statistics';

export type { NumberSpread };

/** A page of a search; `searched` tells which share of the window was looked through up to `next`. */
export interface FoundPage extends Page<LogRecord> {
  searched: number;
  /** Records that quiet rules took out of sight before each item, since the one before it. */
  hidden: number[];
  /** And after the last. */
  hiddenAfter: number;
}
/** Counts of as much as one call reached; the next goes on from `next`, and the sums add up. */
export interface TimelinePart {
  total: number;
  slots: { slot: number; counts: Partial<Record<LevelName, number>> }[];
  /** Records that quiet rules took out of sight, by the rule's name. */
  hidden: Record<string, number>;
  next: string | null;
  searched: number;
}
/** The values of a field among the latest records that a search finds. */
export interface FieldValues {
  field: string;
  values: { value: string; count: number }[];
  distinct: number;
  /** Records that were looked at, those without the field among them. */
  records: number;
  without: number;
  /** All of the window was looked at. */
  complete: boolean;
  /** Where nearly all values are numbers; durations in milliseconds. */
  numbers: NumberSpread | null;
}
/** Groups of what a search finds; the counts of parts add up. */
export interface GroupsPart {
  groups: { value: string; count: number; firstAt: Iso; lastAt: Iso; record: string }[];
  /** The strands that the values name, where records are grouped by strand. */
  strands: StrandSummary[];
  total: number;
  /** Records without such a value. */
  without: number;
  hidden: Record<string, number>;
  next: string | null;
  searched: number;
}
/** The foremost records by a field of as much as a call reached. */
export interface RankedPart {
  /** In order; a rank is a number where the value reads as one. */
  items: { rank: number | string; record: LogRecord }[];
  /** Records that have the field. */
  total: number;
  hidden: number;
  next: string | null;
  searched: number;
}
/** What tells records with a value from all others that the search finds. */
export interface Contrasted {
  inside: number;
  outside: number;
  complete: boolean;
  items: { field: string; value: string; inside: number; outside: number; odds: number }[];
}
export interface TimelineSlot {
  from: Iso;
  counts: Partial<Record<LevelName, number>>;
}
export interface Timeline {
  from: Iso;
  to: Iso;
  slotMs: number;
  slots: TimelineSlot[];
}
