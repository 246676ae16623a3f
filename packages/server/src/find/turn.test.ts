import { expect, test } from '@jest/globals';
import { Turn } from './turn.ts';

const work = (ms: number): void => {
  for (const until = performance.now() + ms; performance.now() < until;);
};

test('short steps go on for a while, long ones let others in after each', async () => {
  const turn = new Turn();
  expect(Array.from({ length: 200 }, () => turn.isOver())).not.toContain(true);
  work(20);
  expect(Array.from({ length: 16 }, () => turn.isOver())).toContain(true);
  let others = 0;
  setImmediate(() => others++);
  await turn.yielded();
  expect(others).toBe(1);
  work(13);
  expect(turn.isOver()).toBe(true);
});

test('it ends with whoever asked', async () => {
  const asker = new AbortController();
  const turn = new Turn(asker.signal);
  asker.abort(new Error('gone'));
  await expect(turn.yielded()).rejects.toThrow('gone');
});
