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
  test('that tell how long they took end behind what lies within that time', () => {
    const inner = [record(1200, 'web'), record(1210, 'desk'), record(1225, 'web')];
    expect(told([record(1000, 'edge', true, 30_000), ...inner])).toEqual([['web 1200', 1200], ['desk 1210', 1210], ['web 1225', 1225], ['edge 1000', 1225]]); // prettier-ignore
    // what came later, and long before, is no part of it
    const ids = (records: StrandRecord[]): string[] => told(records).map(([id]) => id);
    expect(ids([record(400, 'web'), record(1000, 'edge', true, 30_000), ...inner, record(1900, 'mail')])).toEqual(['web 400', 'web 1200', 'desk 1210', 'web 1225', 'edge 1000', 'mail 1900']); // prettier-ignore
    // one that lasted for seconds began before its second
    expect(ids([record(600, 'web'), record(610, 'desk'), record(9000, 'edge', true, 8_470_000), record(9500, 'mail')])).toEqual(['web 600', 'desk 610', 'edge 9000', 'mail 9500']); // prettier-ignore
    expect(ids([record(800, 'web'), record(810, 'desk'), record(9000, 'edge', true, 8_470_000), record(9260, 'web')])).toEqual(['web 800', 'desk 810', 'web 9260', 'edge 9000']); // prettier-ignore
  });
  test('that tell how long they took stay where they are if more lies within before', () => {
    expect(told([record(980, 'web'), record(990, 'desk'), record(1000, 'edge', true, 30_000), record(1500, 'web')])).toEqual([
      ['web 980', 980],
      ['desk 990', 990],
      ['edge 1000', 1000],
      ['web 1500', 1500],
    ]);
  });
  test('two requests of one second have each what lies within it', () => {
    expect(told([record(1000, 'edge', true, 30_000), record(1000, 'edge', true, 20_000), record(1200, 'web'), record(1210, 'web'), record(1600, 'web'), record(1605, 'web')])).toEqual([
      ['web 1200', 1200],
      ['web 1210', 1210],
      ['edge 1000', 1210],
      ['web 1600', 1600],
      ['web 1605', 1605],
      ['edge 1000', 1605],
    ]); // prettier-ignore
  });

  test('that tell how long they took stay before what their component wrote at the very time of what lies within', () => {
    expect(told([record(1000, 'edge', true, 30_000), record(1210, 'web'), record(1210, 'edge')])).toEqual([['edge 1000', 1000], ['web 1210', 1210], ['edge 1210', 1210]]); // prettier-ignore
  });

  test('never leave their second, and the order is one of time', () => {
    const took = fc.option(fc.nat(3_000_000), { nil: NaN });
    const some = fc.array(fc.tuple(fc.nat(5000), fc.constantFrom('a', 'b', 'c'), fc.boolean(), took), { maxLength: 25 });
    fc.assert(
      fc.property(some, (list) => {
        const records = list.map(([ms, component, coarse, took]) => record(coarse ? Math.floor(ms / 1000) * 1000 : ms, component, coarse, took)).sort((a, b) => a.at - b.at); // prettier-ignore
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
