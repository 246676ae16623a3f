import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { legsOf } from './legs.ts';
import { MARK } from './marks.ts';
import type { StrandRecord } from './types.ts';

/** Order 1; links are 10 and more. */
const [ORDER, TRACE, MESSAGE, QUERY, SHOP] = [1, 10, 11, 12, 2];
const isLink = (key: number): boolean => key >= 10;
const record = (at: number, component: string, keys: number[] = [], more: Partial<StrandRecord> = {}): StrandRecord => ({
  id: String(at),
  at: at * 1000,
  component,
  host: '',
  level: 3,
  marks: 0,
  took: NaN,
  message: '',
  shape: 0,
  traits: '',
  keys,
  ...more,
});
const legs = (records: StrandRecord[]): number[] => [...legsOf(records, isLink)];

describe('legs', () => {
  test('begin at the door with a link of their own: a query hours later, and whatever it calls', () => {
    expect(
      legs([
        record(0, 'web', [TRACE, ORDER]),
        record(5, 'desk', [TRACE]),
        record(9, 'web', [TRACE]),
        record(9_000_000, 'web', [QUERY, ORDER, SHOP]),
        record(9_000_004, 'desk', [QUERY, ORDER]),
        record(9_000_005, 'desk'),
        record(9_000_009, 'web', [QUERY]),
      ]),
    ).toEqual([1, 1, 1, 2, 2, 2, 2]);
  });
  test('do not begin at a message that is handed on, nor at machines that name the order alone', () => {
    expect(
      legs([
        record(0, 'web', [TRACE, ORDER]),
        record(5, 'desk', [TRACE, ORDER]),
        record(6, 'desk', [MESSAGE, ORDER]),
        record(40, 'relay', [MESSAGE]),
        record(70_000, 'cell', [ORDER]),
        record(140_000, 'cell', [ORDER]),
        record(150_000, 'web', [TRACE]),
      ]),
    ).toEqual([1, 1, 1, 1, 1, 1, 1]);
  });
  test('run side by side: a query in the middle takes nothing away', () => {
    expect(
      legs([
        record(0, 'web', [TRACE, ORDER]),
        record(5, 'desk', [TRACE]),
        record(10, 'web', [QUERY, ORDER]),
        record(11, 'cell', [ORDER]),
        record(12, 'web', [QUERY]),
        record(13, 'desk', [TRACE]),
        record(14, 'cell', [ORDER]),
      ]),
    ).toEqual([1, 1, 2, 1, 2, 1, 1]);
  });
  test('begin where a proxy that speaks last began first, and at marked entries', () => {
    const edge = { took: 30_000 };
    expect(legs([record(4, 'web', [TRACE]), record(30, 'edge', [TRACE], edge), record(500, 'edge', [QUERY, ORDER])])).toEqual([1, 1, 2]);
    expect(legs([record(0, 'web', [TRACE]), record(9, 'desk', [QUERY], { marks: MARK.entry })])).toEqual([1, 2]);
  });
  test('a strand without links is one leg; of nothing there are none', () => {
    expect(legs([record(0, 'cell', [ORDER]), record(9e6, 'cell', [ORDER])])).toEqual([1, 1]);
    expect(legs([])).toEqual([]);
  });
  test('what is tied by links is never torn apart, and numbers rise as legs begin', () => {
    const some = fc.array(fc.tuple(fc.constantFrom('web', 'desk', 'relay'), fc.uniqueArray(fc.integer({ min: 8, max: 15 }), { maxLength: 3 })), { maxLength: 20 }); // prettier-ignore
    fc.assert(
      fc.property(some, (lines) => {
        const records = lines.map(([component, keys], i) => record(i, component, keys));
        const found = legs(records);
        records.forEach((one, i) => {
          for (let j = 0; j < i; j++) if (one.keys.some((key) => isLink(key) && records[j]!.keys.includes(key))) expect(found[i]).toBe(found[j]);
          expect(found[i]).toBeLessThanOrEqual(Math.max(0, ...found.slice(0, i)) + 1);
        });
      }),
    );
  });
});
