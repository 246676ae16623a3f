import type { Iso, Outcome } from './index.ts';
import type { RunOddity } from '@fadenweg/core/jobs';

export type { RunOddity };

export interface JobRun {
  strand: string;
  name: string;
  startedAt: Iso;
  endedAt: Iso;
  durationMs: number;
  outcome: Outcome;
  headline: string;
  /** Rows that it says it read, wrote, rejected and skipped; null where it says nothing. */
  read: number | null;
  written: number | null;
  rejected: number | null;
  skipped: number | null;
  odd: RunOddity[];
  /** When it was due, where it began late. */
  dueAt: Iso | null;
  /** What is usual for it; null where too little is known. */
  usual: { durationMs: number; volume: number | null } | null;
}
export type JobState = 'missed' | 'failed' | 'odd' | 'running' | 'good';
export interface Job {
  flow: string;
  label: string;
  environment: string;
  /** In words; '' where none is declared or learned. */
  schedule: string;
  /** Somebody stated it. */
  declared: boolean;
  /** What is learned from its begins, in words, where another schedule is declared; '' else. */
  learned: string;
  nextDue: Iso | null;
  state: JobState;
  /** What is amiss with it, in words; '' where nothing is. */
  why: string;
  last: JobRun | null;
  lastGood: JobRun | null;
  /** In the window: how many runs, how many of them ended amiss; when it was due and did not begin. */
  runs: number;
  amiss: number;
  missed: Iso[];
  /** Nothing was collected of the component in which its runs begin, from before something was due until now: since then; null else. */
  silentSince: Iso | null;
  /** Runs of the window that began late. */
  late: number;
}
export interface Jobs {
  items: Job[];
  /** As far as evidence reaches: what is due behind it is not missed. */
  until: Iso | null;
}
/** A day, or another window, of runs beside each other. */
export interface JobRuns {
  flow: string;
  label: string;
  runs: JobRun[];
  missed: Iso[];
  /** Nothing was collected of the component in which its runs begin, from before something was due until now: since then; null else. */
  silentSince: Iso | null;
  /** There are more before these. */
  cut: boolean;
}
