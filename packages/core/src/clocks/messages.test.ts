import { describe, expect, it } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import { believableMessages, messages } from './messages.ts';
import type { ClockRecord } from './types.ts';

const record = (clock: number, at: number, shape: number, marks: number, key: number): ClockRecord => ({ clock, at, shape, marks, keys: [key], took: 0 }) as unknown as ClockRecord; // prettier-ignore
/** Now and then it takes much longer: a long tail, made of one number after the other. */
const taking = (i: number): number => 2000 + ((i * 7919) % 100) ** 2 * 3;
/** Strands of two clocks of which the second is ahead. */
const strands = (count: number, ahead: (i: number) => number, turned: boolean): ClockRecord[][] =>
  Array.from({ length: count }, (_, i) => {
    const at = i * 60_000_000;
    const sends = record(0, turned ? at + taking(i) : at, 1, MARK.sends, i);
    return [sends, record(1, (turned ? at : at + taking(i)) + ahead(i), 2, MARK.receives, i)];
  });

describe('messages between two clocks', () => {
  it('are believed whatever the difference of the clocks, also while it drifts', () => {
    for (const ahead of [() => 0, () => -5_000_000, (i: number) => 700_000 - i * 60]) {
      const all = strands(300, ahead, false);
      const kinds = believableMessages(all);
      expect(kinds.size).toBe(1);
      const [bound] = messages(all[3]!, [1, 1], kinds);
      expect(bound).toMatchObject({ a: 0, b: 1, low: -Infinity, high: taking(3) + ahead(3) + 1 });
    }
  });
  it('are not where what receives comes before what sends', () => {
    for (const ahead of [() => 0, () => 5_000_000]) {
      const all = strands(300, ahead, true);
      const kinds = believableMessages(all);
      expect(kinds.size).toBe(0);
      expect(messages(all[3]!, [1, 1], kinds)).toEqual([]);
    }
  });
  it('are judged by some dozens at least', () => {
    expect(believableMessages(strands(19, () => 0, false)).size).toBe(0);
  });
});
