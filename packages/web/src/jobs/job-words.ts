import type { Job, JobRun, JobState, RunOddity } from '@fadenweg/api';
import { ms } from '../strands/duration-text.ts';
import { count, dayAndClock } from '../time/format.ts';

export const JOB_STATES: Record<JobState, string> = { missed: 'did not start', failed: 'failed', odd: 'odd', running: 'running', good: 'good' };
const ODD: Record<RunOddity, string> = { thin: 'far fewer than usual', many: 'far more than usual', long: 'far longer than usual', overlapped: 'began before the last had ended', late: 'began late' }; // prettier-ignore

/** What a run says of rows; '' where it says nothing. */
export function rowsWords({ read, written, rejected, skipped }: Pick<JobRun, 'read' | 'written' | 'rejected' | 'skipped'>): string {
  const part = (many: number | null, what: string): string[] => (many === null ? [] : [`${count(many)} ${what}`]);
  return [...part(read, 'read'), ...part(written, 'written'), ...part(rejected, 'rejected'), ...part(skipped, 'skipped')].join(', ');
}
/** Its volume beside the usual one. */
export function volumeWords({ read, written, usual }: JobRun): string {
  const volume = read ?? written;
  if (volume === null) return '';
  return usual === null || usual.volume === null ? count(volume) : `${count(volume)}, usually ${count(usual.volume)}`;
}
export const lastedWords = ({ durationMs, usual }: JobRun): string =>
  usual === null ? ms(durationMs) : `${ms(durationMs)}, usually ${ms(usual.durationMs)}`;
/** What is odd about a run; '' where nothing is. */
export const oddWords = ({ odd, dueAt, startedAt }: Pick<JobRun, 'odd' | 'dueAt' | 'startedAt'>): string =>
  odd.map((one) => (one === 'late' && dueAt !== null ? `began ${ms(Date.parse(startedAt) - Date.parse(dueAt))} late` : ODD[one])).join(', ');

/** What stands beside a job's name: what is amiss, and how often. */
export function amissWords({ why, missed, late, amiss, runs, silentSince }: Job): string {
  return [
    why,
    ...(missed.length > 0 ? [`${count(missed.length)} ${missed.length === 1 ? 'run' : 'runs'} did not start`] : []),
    ...(silentSince !== null ? [`nothing is there of where they begin since ${dayAndClock(silentSince).slice(5, 16)}`] : []),
    ...(late > 0 ? [`${count(late)} began late`] : []),
    ...(amiss > 0 ? [`${count(amiss)} of ${count(runs)} runs amiss`] : []),
  ]
    .filter((one, i, all) => one !== '' && !(i === 0 && one === 'did not start' && all.length > 1))
    .join(' · ');
}
