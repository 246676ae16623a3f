import { expect, test } from '@jest/globals';
import { Gate } from './gate.ts';

test('so many are inside at one time, in the order in which they came, also where one fails', async () => {
  const gate = new Gate(2);
  let inside = 0;
  let most = 0;
  const begun: number[] = [];
  const run = (i: number): Promise<number> =>
    gate.pass(async () => {
      begun.push(i);
      most = Math.max(most, ++inside);
      await new Promise((resolve) => setTimeout(resolve, 3));
      inside--;
      if (i === 1) throw new Error('one fails');
      return i;
    });
  const results = await Promise.allSettled(Array.from({ length: 7 }, (_, i) => run(i)));
  expect(results.map((one) => one.status)).toEqual(['fulfilled', 'rejected', ...Array<string>(5).fill('fulfilled')]);
  expect([most, begun]).toEqual([2, [0, 1, 2, 3, 4, 5, 6]]);
});
