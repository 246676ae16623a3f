import { describe, expect, test } from '@jest/globals';
import { goodOnes, silentOnes, type Lesson } from './good-ones.ts';
import { dice, lessons, milling, said } from './testing/legs.ts';

const MINUTE = 60_000_000;
const random = dice(8);
const plain = () => milling(random).map((one) => ({ ...one, marks: 0 }));

describe('legs of which nobody knows whether they came to their end', () => {
  test('are good where they end as many do, not where they are stuck at what is mostly followed by more', () => {
    const all = lessons([...Array.from({ length: 60 }, plain), ...Array.from({ length: 6 }, () => plain().slice(0, 3))], 'stalled');
    expect(goodOnes(all)).toHaveLength(60);
  });
  test('are good where everybody’s last words are those of many, whoever happened to speak last', () => {
    const mixed = Array.from({ length: 60 }, (_, i) => {
      const leg = plain();
      // clocks that are off put any of six last
      const others = ['a', 'b', 'c', 'd', 'e', 'f'].map((component, k) => said(leg[0]!.at / 1000 + 9000 + ((k + i) % 6), component, 'over'));
      return [...leg, ...others].sort((x, y) => x.at - y.at);
    });
    expect(goodOnes(lessons(mixed, 'stalled'))).toHaveLength(60);
  });
  test('are those that ended alone, where enough are known to have', () => {
    expect(goodOnes([...lessons(Array.from({ length: 20 }, plain), 'done'), ...lessons(Array.from({ length: 30 }, plain), 'stalled')])).toHaveLength(
      20,
    );
  });
});

test('what was silent for long enough in short evidence does not go on; where patience is declared it may', () => {
  const until = 5 * MINUTE;
  const running = (patient?: boolean): Lesson[] => lessons(Array.from({ length: 10 }, () => milling(random, { start: 0 })), 'running').map((one) => ({ ...one, until, patient })); // prettier-ignore
  expect(silentOnes(running()).map((one) => one.outcome)).toEqual(Array(10).fill('stalled'));
  expect(silentOnes(running(true)).map((one) => one.outcome)).toEqual(Array(10).fill('running'));
});
