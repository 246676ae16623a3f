import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MARK } from '../path/marks.ts';
import { dice } from '../usual/testing/legs.ts';
import { boundsOf, resolutions } from './calls.ts';
import type { ClockRecord } from './types.ts';

const MS = 1000;
const SECOND = 1_000_000;
const START = 1_790_000_000 * SECOND;
const [DOOR, DESK] = [0, 1];

const record = (at: number, clock: number, shape: number, took = NaN): ClockRecord => ({ at, took, clock, shape, marks: 0, keys: [] });

/** The door asks the desk, which works for a while and answers; the desk's clock is so much ahead. */
function asked(count: number, ahead: number, way = (): number => 2 * MS): ClockRecord[][] {
  const random = dice(9);
  return Array.from({ length: count }, (_, i) => {
    let at = START + i * SECOND;
    const records = [record(at, DOOR, 1)];
    records.push(record((at += way()) + ahead, DESK, 2));
    records.push(record((at += Math.round((20 + 400 * random()) * MS)) + ahead, DESK, 3));
    records.push(record(at + way(), DOOR, 4));
    return records;
  });
}
const ONE_MS = [MS, MS];
const fromDoor = (strands: readonly ClockRecord[][], resolution = ONE_MS) =>
  boundsOf(strands, resolution).filter(({ a, b }) => a === DOOR && b === DESK);

describe('what a call tells of two clocks', () => {
  test('holds the truth, whatever it is and however long the way', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30_000, max: 30_000 }), fc.integer({ min: 1, max: 40 }), (ahead, way) => {
        const bounds = fromDoor(asked(60, ahead * MS, () => way * MS)).filter(({ likely }) => !likely);
        expect(bounds).toHaveLength(60);
        for (const { low, high } of bounds) {
          expect(low).toBeLessThanOrEqual(ahead * MS);
          expect(high).toBeGreaterThanOrEqual(ahead * MS);
          // both ways, and what cannot be told apart
          expect(high - low).toBeLessThanOrEqual(2 * way * MS + 2 * MS);
        }
      }),
      { numRuns: 30 },
    );
  });

  test('is nothing from too few of its kind', () => {
    expect(fromDoor(asked(19, 500 * MS))).toEqual([]);
    expect(fromDoor(asked(20, 500 * MS))).not.toEqual([]);
  });

  test('is nothing where the inner time has nothing to do with the outer one', () => {
    const random = dice(4);
    const strands = Array.from({ length: 200 }, (_, i) => {
      const at = START + i * SECOND;
      const outer = (1 + 900 * random()) * MS;
      const begin = at + 3000 * SECOND + random() * 800 * MS;
      return [record(at, DOOR, 1), record(Math.round(at + outer), DOOR, 4), record(Math.round(begin), DESK, 2), record(Math.round(begin + 100 * MS * random()), DESK, 3)]; // prettier-ignore
    });
    expect(fromDoor(strands, [1, 1])).toEqual([]);
  });

  test('holds where the inner one tells whole seconds and is nearly always shorter, if long calls are long inside', () => {
    const random = dice(6);
    const ahead = 2400 * MS;
    const whole = (at: number): number => Math.floor(at / SECOND) * SECOND;
    const strands = Array.from({ length: 300 }, (_, i) => {
      const at = START + i * 20 * SECOND + Math.round(random() * SECOND);
      const work = Math.round((i % 15 ? 30 + 100 * random() : 3000 + 2000 * random()) * MS);
      const inner = (when: number, shape: number) => ({ ...record(whole(when + ahead), DESK, shape), marks: MARK.coarse });
      return [record(at, DOOR, 1), inner(at + 2 * MS, 2), inner(at + 2 * MS + work, 3), record(at + 4 * MS + work, DOOR, 4)];
    });
    const bounds = fromDoor(strands, [MS, SECOND]);
    expect(bounds.length).toBeGreaterThan(200);
    const [low, high] = [Math.max(...bounds.map((one) => one.low)), Math.min(...bounds.map((one) => one.high))];
    expect(low).toBeLessThanOrEqual(ahead);
    expect(high).toBeGreaterThanOrEqual(ahead);
    // hundreds of whole seconds together tell much less than one
    expect(high - low).toBeLessThan(300 * MS);
    expect(fromDoor(strands.filter((_, i) => i % 15), [MS, SECOND])).toEqual([]); // prettier-ignore
  });

  test('strands of very many records are left out', () => {
    const long = Array.from({ length: 301 }, (_, i) => record(START + i * MS, i % 2, i));
    expect(boundsOf([long], ONE_MS)).toEqual([]);
  });
});

test('how coarsely a clock writes is told by its finest time', () => {
  const strands = [
    [record(START, 0, 1), record(START + 5 * SECOND, 0, 1), record(START + 3 * SECOND, 1, 1)],
    [record(START + 250 * MS, 1, 1), record(START + 7, 2, 1)],
  ];
  expect(resolutions(strands, 4)).toEqual([SECOND, MS, 1, SECOND]);
});
