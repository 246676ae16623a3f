import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { areSnapshots, type TableRow } from './snapshots.ts';

const START = Date.UTC(2026, 10, 24, 10) * 1000;
const seen = (step: number, jitter: (i: number) => number, rowsAt: (i: number) => TableRow['fields'][]): TableRow[] =>
  Array.from({ length: 60 }, (_, i) => rowsAt(i).map((fields, place) => ({ at: START + i * step + jitter(i) + place * 13, fields }))).flat();

describe('rows of a table', () => {
  it('are states where the same things are seen again and again', () => {
    fc.assert(
      fc.property(fc.constantFrom(500_000, 2_000_000, 30_000_000, 300_000_000), fc.integer({ min: 2, max: 9 }), fc.array(fc.integer({ min: 0, max: 9000 }), { minLength: 60, maxLength: 60 }), (step, queues, late) => {
        const depths = (i: number) => Array.from({ length: queues }, (_, queue) => ({ queue: `shelf-${queue}`, messages: (i * 7 + queue) % 11, age: i * 1.7 + queue }));
        expect(areSnapshots(seen(step, (i) => late[i]!, depths))).toBe(true);
      }),
    ); // prettier-ignore
  });
  it('are states also where sessions come and go, and nothing is seen at some instants', () => {
    const sessions = (i: number) => (i % 9 === 4 ? [] : Array.from({ length: 1 + (i % 3) }, (_, place) => ({ session: 700 + Math.floor(i / 6) + place, doing: place === 0 ? 'idle' : 'active', query: `update shelf ${i}` })));
    expect(areSnapshots(seen(2_000_000, (i) => i * 5000, sessions))).toBe(true);
  }); // prettier-ignore
  it('are events where each is of something of its own, however regular', () => {
    const shipped = (i: number) => Array.from({ length: 5 }, (_, place) => ({ order: `LX-${100_000 + i * 5 + place}`, carrier: ['north', 'south', 'east', 'west'][place % 4]! }));
    expect(areSnapshots(seen(3_600_000_000, () => 0, shipped))).toBe(false);
    expect(areSnapshots(seen(300_000_000, () => 0, (i) => [{ job: 'nightly', run: i, state: 'done' }]))).toBe(false);
  }); // prettier-ignore
  it('are events where they come when they come', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 300_000, max: 60_000_000 }), { minLength: 60, maxLength: 60 }), (gaps) => {
        fc.pre(new Set(gaps).size > 40);
        let at = START;
        const rows = gaps.flatMap((gap, i) => {
          at += gap;
          return [{ at, fields: { desk: 'a', what: i % 3 } }, { at, fields: { desk: 'b', what: i % 3 } }];
        }); // prettier-ignore
        expect(areSnapshots(rows)).toBe(false);
      }),
      { seed: 7 },
    );
  });
});
