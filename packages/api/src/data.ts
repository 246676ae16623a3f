import type { Iso, Outcome } from './index.ts';
import type { DataKind as DataKindName } from '@fadenweg/core/touched';

export type { DataKindName };

/** A strand that touched something, and how it went. */
export interface TouchingRun {
  strand: string;
  name: string;
  flow: string | null;
  flowLabel: string;
  outcome: Outcome;
  headline: string;
  at: Iso;
  /** null where it does not tell, or tells of several things at once. */
  rows: number | null;
  failed: boolean;
  /** What the thing was called this time; '' for its name. */
  instance: string;
}
/** A file, table or feed that runs read or write. */
export interface DataSet {
  name: string;
  kind: DataKindName;
  environment: string;
  /** Flows that wrote and read it in the window, those that did so most first. */
  writers: { flow: string; label: string; runs: number }[];
  readers: { flow: string; label: string; runs: number }[];
  lastWritten: TouchingRun | null;
  /** Rows that writing it usually tells; null where too little is known. */
  usualRows: number | null;
  /** Operations on it that failed. */
  failed: number;
  touched: number;
}
/** One of them: who touched it when, the latest first. */
export interface DataSetHistory {
  set: DataSet;
  writes: TouchingRun[];
  reads: TouchingRun[];
  cut: boolean;
}
/** What one strand touched. */
export interface StrandData {
  way: 'reads' | 'writes';
  name: string;
  kind: DataKindName;
  environment: string;
  instance: string;
  at: Iso;
  rows: number | null;
  failed: boolean;
  record: string;
  /** Of what it reads: the run that wrote it last before. */
  broughtBy: TouchingRun | null;
  /** Of what it writes: those that read it afterwards, before it was written again. */
  after: TouchingRun[];
  /** There are more of them. */
  afterCut: boolean;
  /** Of an input: the earlier run that had the very same, where it is another one each time. */
  sameAs: TouchingRun | null;
}
