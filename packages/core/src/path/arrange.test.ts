import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { arranged } from './arrange.ts';
import { MARK } from './marks.ts';
import type { StrandRecord } from './types.ts';

const record = (ms: number, component: string, coarse = false, took = NaN): StrandRecord => ({
  id: `${component} ${ms}`,
  at: ms * 1000,
  component,
  host: '',
  level: 3,
  marks: coarse ? MARK.coarse : 0,
  took,
  message: '',
  shape: 0,
  traits: '',
  keys: [],
});
const told = (records: StrandRecord[]): [string, number][] => arranged(records).records.map((one) => [one.id, one.at / 1000]);

describe('records whose time is told in whole seconds', () => {
  test('stand behind what others wrote in that second, at the time of the one before', () => {
    expect(told([record(900, 'web'), record(1000, 'mail', true), record(1200, 'desk'), record(1300, 'web'), record(2100, 'web')])).toEqual([
      ['web 900', 900],
      ['desk 1200', 1200],
      ['web 1300', 1300],
      ['mail 1000', 1300],
      ['web 2100', 2100],
    ]);
  });
  test('keep their order among themselves, and stay before what their component wrote next', () => {
    expect(told([record(1000, 'mail', true), record(1000, 'post', true), record(1400, 'mail'), record(1900, 'web')])).toEqual([
      ['mail 1000', 1000],
      ['mail 1400', 1400],
      ['web 1900', 1900],
      ['post 1000', 1900],
    ]);
  });
  test('stay where they are if they tell how long they took', () => {
    expect(told([record(1000, 'edge', true, 30_000), record(1200, 'web')])).toEqual([['edge 1000', 1000], ['web 1200', 1200]]); // prettier-ignore
  });

  test('never leave their second, and the order is one of time', () => {
    const some = fc.array(fc.tuple(fc.nat(5000), fc.constantFrom('a', 'b', 'c'), fc.boolean()), { maxLength: 25 });
    fc.assert(
      fc.property(some, (list) => {
        const records = list.map(([ms, component, coarse]) => record(coarse ? Math.floor(ms / 1000) * 1000 : ms, component, coarse)).sort((a, b) => a.at - b.at); // prettier-ignore
        const { records: now, places } = arranged(records);
        expect([...places].sort((a, b) => a - b)).toEqual(records.map((_, i) => i));
        now.forEach((one, i) => {
          const was = records[places[i]!]!;
          expect(one.at - was.at).toBeGreaterThanOrEqual(0);
          expect(one.at - was.at).toBeLessThan(was.marks & MARK.coarse ? 1_000_000 : 1);
          if (i > 0) expect(one.at).toBeGreaterThanOrEqual(now[i - 1]!.at);
        });
        for (const component of ['a', 'b', 'c']) {
          const own = places.filter((place) => records[place]!.component === component);
          expect(own).toEqual([...own].sort((a, b) => a - b));
        }
      }),
    );
  });
});
