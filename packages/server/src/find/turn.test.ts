import { expect, test } from '@jest/globals';
import { Turn } from './turn.ts';

test('short steps go on for a while, long ones let others in after each', async () => {
  let now = 0;
  const turn = new Turn(undefined, () => now);
  const asked = (times: number): boolean[] => Array.from({ length: times }, () => turn.isOver());
  expect(asked(200)).not.toContain(true);
  now += 20;
  expect(asked(16)).toContain(true);
  let others = 0;
  setImmediate(() => others++);
  await turn.yielded();
  expect(others).toBe(1);
  // short again: the clock is looked at once in a while, then each step counts
  now += 13;
  expect(turn.isOver()).toBe(true);
  await turn.yielded();
  now += 5;
  expect(asked(16)).not.toContain(true);
  now += 8;
  expect(asked(16)).toContain(true);
});

test('it ends with whoever asked', async () => {
  const asker = new AbortController();
  const turn = new Turn(asker.signal);
  asker.abort(new Error('gone'));
  await expect(turn.yielded()).rejects.toThrow('gone');
});
