import { expect, test } from '@jest/globals';
import type { Job, JobRun } from '@fadenweg/api';
import { amissWords, lastedWords, oddWords, rowsWords, volumeWords } from './job-words.ts';
import { threadsOf } from './threads.ts';

const run: JobRun = {
  strand: 'run:PL-1',
  name: 'PL-1',
  startedAt: '2026-11-24T01:00:00.000000Z',
  endedAt: '2026-11-24T01:00:13.000000Z',
  durationMs: 13_000,
  outcome: 'done',
  headline: '',
  read: 12,
  written: 11,
  rejected: 1,
  skipped: null,
  odd: ['thin', 'long'],
  dueAt: null,
  usual: { durationMs: 4000, volume: 4232 },
};
test('rows and duration beside the usual', () => {
  expect(rowsWords(run)).toBe('12 read, 11 written, 1 rejected');
  expect(volumeWords(run)).toBe('12, usually 4,232');
  expect(volumeWords({ ...run, usual: null })).toBe('12');
  expect(volumeWords({ ...run, read: null, written: null })).toBe('');
  expect(lastedWords(run)).toMatch(/^13.*, usually 4/);
  expect(oddWords(run)).toBe('far fewer than usual, far longer than usual');
  expect(oddWords({ ...run, odd: ['late'], dueAt: '2026-11-24T00:38:00.000000Z' })).toBe('began 22 min late');
});
test('what is amiss is told once', () => {
  const job = { why: 'did not start', missed: ['a', 'b'], silentSince: null, late: 0, amiss: 1, runs: 9 } as unknown as Job;
  expect(amissWords(job)).toBe('2 runs did not start · 1 of 9 runs amiss');
  expect(amissWords({ ...job, silentSince: '2026-11-24T12:00:00Z' })).toMatch(
    /^2 runs did not start · nothing is there of where they begin since 11-24 \d\d:00 ·/,
  );
  expect(amissWords({ ...job, why: '', missed: [], late: 2 })).toBe('2 began late · 1 of 9 runs amiss');
  expect(amissWords({ ...job, why: 'far fewer rows than usual', missed: [], amiss: 0 })).toBe('far fewer rows than usual');
});
test('runs beside each other: each as long as it lasted, those that overlap side by side', () => {
  const later = { ...run, strand: 'run:PL-2', startedAt: '2026-11-24T01:00:10.000000Z', endedAt: '2026-11-24T02:00:00.000000Z' };
  const [from, to] = [Date.parse('2026-11-24T00:00:00Z'), Date.parse('2026-11-25T00:00:00Z')];
  const [own] = threadsOf(
    [{ flow: 'p', label: 'prices', runs: [run, later], missed: ['2026-11-24T03:00:00Z'], silentSince: null, cut: false }],
    from,
    to,
    240,
  );
  expect(own!.threads.map((one) => one.track)).toEqual([0, 1]);
  expect(own!.threads[1]!.y2 - own!.threads[1]!.y1).toBeCloseTo(10, 0);
  expect(own!.threads[0]!.y2 - own!.threads[0]!.y1).toBeGreaterThanOrEqual(3);
  expect(own!.missed).toEqual([30]);
});
