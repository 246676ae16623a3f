import type { DataSet, StrandData, TouchingRun } from '@fadenweg/api';
import { count, dayAndClock } from '../time/format.ts';

export const DATA_KINDS: Record<DataSet['kind'], string> = { file: 'file', table: 'table', feed: 'feed' };
const flowsWords = (flows: DataSet['writers']): string => flows.slice(0, 3).map(({ label, runs }) => `${label} (${count(runs)})`).join(', ') + (flows.length > 3 ? `, ${count(flows.length - 3)} more` : ''); // prettier-ignore
/** Who writes and who reads it. */
export function whoWords({ writers, readers }: Pick<DataSet, 'writers' | 'readers'>): string {
  const written = writers.length > 0 ? `written by ${flowsWords(writers)}` : 'nobody is seen to write it';
  return `${written}; ${readers.length > 0 ? `read by ${flowsWords(readers)}` : 'nobody is seen to read it'}`;
}
/** Rows beside the usual ones; '' where none are told. */
export function rowsBeside(run: Pick<TouchingRun, 'rows'> | null, usual: number | null): string {
  if (run?.rows === null || run === null) return '';
  return usual === null ? count(run.rows) : `${count(run.rows)}, usually ${count(usual)}`;
}
/** Whether so many rows are far from the usual. */
export const isFar = (rows: number | null, usual: number | null): boolean => rows !== null && usual !== null && (rows * 3 < usual || rows > 3 * Math.max(1, usual));
/** What a strand did with something, in words. */
export function touchWords({ way, kind, instance, rows, failed }: Pick<StrandData, 'way' | 'kind' | 'instance' | 'rows' | 'failed'>): string {
  const done = way === 'reads' ? 'read' : 'written';
  return [`${kind} ${done}`, instance, rows === null ? '' : `${count(rows)} rows`, failed ? 'failed' : ''].filter((one) => one !== '').join(', ');
}
/** A run that touched something, behind its name. */
export const runWords = ({ at, rows, instance, failed }: TouchingRun): string =>
  [dayAndClock(at), rows === null ? '' : `${count(rows)} rows`, instance, failed ? 'failed' : ''].filter((one) => one !== '').join(', ');
