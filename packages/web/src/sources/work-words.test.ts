import { expect, test } from '@jest/globals';
import type { WorkInfo } from '@fadenweg/api';
import { inOrder, stateWords } from './work-words.ts';

const now = Date.parse('2026-11-24T10:00:00Z');
const one = { share: null, tries: 0, dueAt: '2026-11-24T10:00:00Z' };
test.each([
  [{ ...one, state: 'running' }, 'runs'],
  [{ ...one, state: 'running', share: 0.256 }, 'runs, 26 %'],
  [{ ...one, state: 'waiting' }, 'waits for its turn'],
  [{ ...one, state: 'waiting', dueAt: '2026-11-24T10:00:40Z' }, 'in 40 s'],
  [{ ...one, state: 'waiting', dueAt: '2026-11-24T10:09:40Z' }, 'in 10 min'],
  [{ ...one, state: 'waiting', tries: 1, dueAt: '2026-11-24T10:00:04Z' }, 'tried 1 time, again in 4 s'],
  [{ ...one, state: 'waiting', tries: 3 }, 'tried 3 times, again in a moment'],
  [{ ...one, state: 'failed', tries: 6 }, 'failed after 6 tries'],
  [{ ...one, state: 'failed', tries: 1 }, 'failed after 1 try'],
  [{ ...one, state: 'done' }, 'done'],
  [{ ...one, state: 'cancelled' }, 'cancelled'],
] as const)('%j is told as “%s”', (piece, words) => expect(stateWords(piece, now)).toBe(words));

test('what failed stands first, then what runs, then what waits, the soonest first', () => {
  const rows = [
    { id: 5, state: 'waiting', dueAt: '2026-11-24T10:09:00Z' },
    { id: 4, state: 'waiting', dueAt: '2026-11-24T10:01:00Z' },
    { id: 3, state: 'running', dueAt: '2026-11-24T10:00:00Z' },
    { id: 2, state: 'failed', dueAt: '2026-11-24T09:00:00Z' },
  ] as WorkInfo[];
  expect(inOrder(rows).map((row) => row.id)).toEqual([2, 3, 4, 5]);
});
test('what ended comes with the latest first, however it ended', () => {
  const ended = (id: number, state: 'done' | 'cancelled', endedAt: string): WorkInfo =>
    ({ id, state, endedAt, madeAt: endedAt, dueAt: endedAt }) as WorkInfo;
  const rows = [ended(1, 'done', '2026-11-24T10:00:01Z'), ended(2, 'cancelled', '2026-11-24T10:00:03Z'), ended(3, 'done', '2026-11-24T10:00:02Z')];
  expect(inOrder(rows).map((row) => row.id)).toEqual([2, 3, 1]);
});
