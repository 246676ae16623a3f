import type { Departure } from '@fadenweg/api';
import { durationWords } from '@fadenweg/core/findings';
import type { OffSchedule } from '../jobs/jobs.ts';
import { microsOf } from '../platform/http/inputs.ts';

/** How grave it is that a run did not begin when it was due, or began late. */
const MISSED = 3;
const LATE = 1;
/** So many times are named. */
const NAMED = 3;

/** Runs that did not begin when they were due, and runs that began late: a line each for a job. */
export function jobDepartures(jobs: readonly OffSchedule[], zone: string): Departure[] {
  const format = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone });
  const clock = (iso: string): string => format.format(new Date(iso));
  return jobs.flatMap((job) => [...(job.missed.length > 0 ? [missed(job, clock)] : []), ...(job.late.length > 0 ? [begunLate(job, clock)] : [])]);
}
const named = (times: readonly string[]): string =>
  `${times.slice(0, NAMED).join(', ')}${times.length > NAMED ? ` and ${times.length - NAMED} more` : ''}`;

function missed({ flow, environment, label, missed: times, lastBegun, silentSince }: OffSchedule, clock: (iso: string) => string): Departure {
  return {
    ...lineOf(flow, label),
    key: `missed ${flow} ${environment}`,
    what: 'gone',
    title: `${label}: no run began at ${named(times.map(clock))}${silentSince === null ? '' : `; nothing at all is there of where its runs begin since ${clock(silentSince)}`}`,
    from: times[0]!,
    to: times.at(-1)!,
    ongoing: lastBegun < times.at(-1)!,
    count: times.length,
    weight: MISSED,
  };
}
function begunLate({ flow, environment, label, late }: OffSchedule, clock: (iso: string) => string): Departure {
  const by = ({ startedAt, dueAt }: OffSchedule['late'][number]): number => microsOf(startedAt) - microsOf(dueAt);
  const words = late.map((run) => `${run.name}, due at ${clock(run.dueAt)}, ${durationWords(by(run))} later`);
  return {
    ...lineOf(flow, label),
    key: `late ${flow} ${environment}`,
    what: 'slow',
    title: `${label} began late: ${named(words)}`,
    from: late[0]!.dueAt,
    to: late.at(-1)!.startedAt,
    ongoing: false,
    count: late.length,
    weight: LATE,
  };
}
const lineOf = (flow: string, label: string): Omit<Departure, 'key' | 'what' | 'title' | 'from' | 'to' | 'ongoing' | 'count' | 'weight'> => ({
  outcome: null,
  flows: [{ flow, label }],
  component: '',
  host: '',
  of: null,
  expected: null,
  parties: [],
  hosts: [],
  change: null,
  finding: null,
  isOfSchedule: true,
  noted: null,
});
