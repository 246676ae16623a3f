import { expect, test } from '@jest/globals';
import type { OffSchedule } from '../jobs/jobs.ts';
import { jobDepartures } from './job-departures.ts';

const at = (hour: number, minute: number): string => new Date(Date.UTC(2026, 10, 24, hour, minute)).toISOString();
const job = (lastBegun: string, missed: string[], late: OffSchedule['late'] = []): OffSchedule => ({ flow: 'price-list-job', environment: 'works', label: 'price-list job', missed, late, lastBegun, silentSince: null }); // prettier-ignore

test('runs that did not begin are one line of their job, with the times in the zone of who asks', () => {
  const missed = [at(19, 30), at(20, 30), at(21, 30), at(22, 30)];
  const [line, more] = jobDepartures([job(at(23, 30), missed)], 'Europe/Berlin');
  expect(line).toMatchObject({ what: 'gone', title: 'price-list job: no run began at 20:30, 21:30, 22:30 and 1 more', from: at(19, 30), to: at(22, 30), count: 4, ongoing: false, isOfSchedule: true, flows: [{ flow: 'price-list-job' }] }); // prettier-ignore
  expect(more).toBeUndefined();
});
test('a job whose last due run did not begin goes on not beginning', () => {
  expect(jobDepartures([job(at(18, 30), [at(19, 30)])], 'UTC')[0]).toMatchObject({ ongoing: true, count: 1 });
  expect(jobDepartures([job(at(20, 30), [at(19, 30)])], 'UTC')[0]).toMatchObject({ ongoing: false, count: 1 });
});
test('that nothing at all is there since is told, as a log that ended looks like runs that did not begin', () => {
  expect(jobDepartures([{ ...job(at(18, 30), [at(19, 30)]), silentSince: at(19, 2) }], 'UTC')[0]!.title).toBe('price-list job: no run began at 19:30; nothing at all is there of where its runs begin since 19:02'); // prettier-ignore
});
test('the same job in two environments is two lines, each with its own note', () => {
  const own = job(at(18, 30), [at(19, 30)]);
  const keys = jobDepartures([own, { ...own, environment: 'trial' }], 'UTC').map(({ key }) => key);
  expect(new Set(keys).size).toBe(2);
});
test('runs that began late are another, milder; jobs that keep to their times are none', () => {
  const [line] = jobDepartures([job(at(19, 47), [], [{ name: 'PL-7', startedAt: at(19, 47), dueAt: at(19, 30) }]), job(at(18, 30), [])], 'UTC');
  expect(line).toMatchObject({
    what: 'slow',
    title: 'price-list job began late: PL-7, due at 19:30, 17 min later',
    from: at(19, 30),
    to: at(19, 47),
    count: 1,
  });
});
