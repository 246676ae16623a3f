import { describe, expect, test } from '@jest/globals';
import { recordId } from '../evidence/record-id.ts';
import { Arrivals, joined } from './arrivals.ts';

const batch = (source: number, to: number, records = 5, from = 0) => ({ source, from, to, records, first: 10, last: 20 });

describe('what has come in', () => {
  test('is told in its order, behind what was seen', () => {
    const arrivals = new Arrivals('run');
    const heard: number[] = [];
    const stop = arrivals.listen(() => heard.push(arrivals.place));
    arrivals.stored(batch(1, 100));
    arrivals.stored(batch(2, 40));
    arrivals.stored(batch(2, 40, 0, 40));
    stop();
    arrivals.stored(batch(1, 200, 5, 100));
    expect(heard).toEqual([1, 2]);
    expect(arrivals.after(1, 10)!.map((one) => one.ids)).toEqual([
      [recordId(2, 0), recordId(2, 40)],
      [recordId(1, 100), recordId(1, 200)],
    ]);
    expect(arrivals.after(0, 1)).toHaveLength(1);
    expect(arrivals.after(3, 10)).toEqual([]);
  });
  test('is known by its place as long as it is remembered, and by this start alone', () => {
    const arrivals = new Arrivals('run');
    expect(arrivals.numberOf(arrivals.placeOf(0))).toBe(0);
    for (let i = 0; i < 23_000; i++) arrivals.stored(batch(1, i + 1, 5, i));
    expect(arrivals.numberOf(arrivals.placeOf(22_999))).toBe(22_999);
    for (const place of ['run-1', 'run-23001', 'run-x', 'other-22999', '']) expect(arrivals.numberOf(place)).toBeNull();
    expect(arrivals.after(1, 10)).toBeNull();
  });
  test('of one source behind each other is one range', () => {
    const arrivals = new Arrivals('run');
    arrivals.stored(batch(2, 40));
    arrivals.stored(batch(1, 100));
    arrivals.stored(batch(1, 250, 5, 100));
    arrivals.stored(batch(1, 400, 5, 300));
    expect(joined(arrivals.after(0, 10)!)).toEqual([
      [recordId(1, 0), recordId(1, 250)],
      [recordId(1, 300), recordId(1, 400)],
      [recordId(2, 0), recordId(2, 40)],
    ]);
  });
});
