import { expect, jest, test } from '@jest/globals';
import { KeptAWhile } from './kept-a-while.ts';

test('who comes meanwhile waits for the same answer; large ones stay for a while, small ones and failures do not', async () => {
  jest.useFakeTimers();
  let made = 0;
  const kept = new KeptAWhile<number>(2, 1000, (answer) => answer >= 10);
  const ask = (key: string, answer: number): Promise<number> => kept.get(key, async () => (made++, Promise.resolve(answer)));
  expect(await Promise.all([ask('small', 1), ask('small', 1)])).toEqual([1, 1]);
  expect(made).toBe(1);
  await ask('small', 1);
  expect(made).toBe(2);
  await ask('large', 10);
  await ask('large', 11);
  expect(made).toBe(3);
  await ask('larger', 12);
  await ask('largest', 13);
  expect(await ask('large', 14)).toBe(14);
  jest.advanceTimersByTime(1001);
  expect(await ask('largest', 15)).toBe(15);
  await expect(kept.get('fault', () => Promise.reject(new Error('away')))).rejects.toThrow('away');
  expect(await ask('fault', 3)).toBe(3);
  jest.useRealTimers();
});
