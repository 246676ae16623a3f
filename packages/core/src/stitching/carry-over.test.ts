import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { carryOver, NAMELESS, STRANGE, type LaneRecords } from './carry-over.ts';

interface One {
  lane: number;
  at: number;
  strand: number;
  shape: number;
}
const MS = 1000;
const columns = (list: readonly One[]): LaneRecords => ({
  lane: Int32Array.from(list, (one) => one.lane),
  at: Float64Array.from(list, (one) => one.at),
  strand: Int32Array.from(list, (one) => one.strand),
  shape: Float64Array.from(list, (one) => one.shape),
  length: list.length,
});
/** The strand that each record is carried over to, null for none. */
const carried = (list: readonly One[]): (number | null)[] => [...carryOver(columns(list))].map((from) => (from < 0 ? null : list[from]!.strand));

/** Work on strands, one after the other in each lane: begin, nameless inside, end; idle in between. */
function work(strands: number, lanes: number, idle: number, inside = 1): One[] {
  const list: One[] = [];
  for (let strand = 0; strand < strands; strand++) {
    const lane = strand % lanes;
    const at = Math.floor(strand / lanes) * (20 * MS + idle) + lane;
    list.push({ lane, at, strand, shape: 1 });
    for (let i = 0; i < inside; i++) list.push({ lane, at: at + (i + 1) * 3 * MS, strand: NAMELESS, shape: 2 });
    list.push({ lane, at: at + 15 * MS, strand, shape: 3 }, { lane, at: at + 18 * MS, strand, shape: 4 });
  }
  return list.sort((a, b) => a.at - b.at || a.lane - b.lane);
}
const SECOND = 1_000_000;

describe('records without an identifier', () => {
  test('between two of one strand in their lane belong to it', () => {
    const list = work(40, 4, 60 * SECOND);
    const found = carried(list);
    list.forEach((one, i) => one.shape === 2 && expect(found[i]).toBe(carriedTruth(list, i)));
    expect(found.filter((one) => one !== null)).toHaveLength(40);
  });
  test('of an unfinished strand go to the record before where their shape usually stands so', () => {
    const list = work(40, 1, 60 * SECOND);
    const at = list.at(-1)!.at + 60 * SECOND;
    list.push({ lane: 0, at, strand: 77, shape: 1 }, { lane: 0, at: at + 3 * MS, strand: NAMELESS, shape: 2 });
    expect(carried(list).at(-1)).toBe(77);
  });
  test('are never carried over a long pause, nor over what names something else', () => {
    const list = work(40, 1, 60 * SECOND);
    const at = list.at(-1)!.at + 60 * SECOND;
    list.push(
      { lane: 0, at, strand: 77, shape: 1 },
      { lane: 0, at: at + 30 * SECOND, strand: NAMELESS, shape: 2 },
      { lane: 0, at: at + 60 * SECOND, strand: 77, shape: 3 },
      { lane: 0, at: at + 90 * SECOND, strand: 78, shape: 1 },
      { lane: 0, at: at + 90 * SECOND + MS, strand: STRANGE, shape: 9 },
      { lane: 0, at: at + 90 * SECOND + 2 * MS, strand: NAMELESS, shape: 2 },
    );
    expect(carried(list).slice(-5)).toEqual([null, null, null, null, null]);
  });
  test('of a shape that comes as often while nothing is worked on are left alone', () => {
    const list = work(40, 1, 60 * SECOND, 0);
    const noise: One[] = [];
    for (let at = 0; at < list.at(-1)!.at; at += 1.37 * SECOND) noise.push({ lane: 0, at, strand: NAMELESS, shape: 5 });
    const all = [...list, ...noise].sort((a, b) => a.at - b.at);
    expect(carried(all).every((one) => one === null)).toBe(true);
  });
  test('which open the work on a strand go to the record after them', () => {
    const list: One[] = [];
    for (let strand = 0; strand < 30; strand++) {
      const at = strand * 60 * SECOND;
      list.push(
        { lane: 0, at, strand: NAMELESS, shape: 6 },
        { lane: 0, at: at + 2 * MS, strand, shape: 1 },
        { lane: 0, at: at + 9 * MS, strand, shape: 3 },
      );
    }
    const found = carried(list);
    list.forEach((one, i) => one.shape === 6 && expect(found[i]).toBe(list[i + 1]!.strand));
  });
  test('in a lane that works on several strands at once are left alone, while those of other lanes are not', () => {
    const alone = work(40, 1, 60 * SECOND);
    const mixed: One[] = [];
    for (let strand = 0; strand < 40; strand++) {
      const at = 100 * SECOND + strand * 8 * MS;
      mixed.push({ lane: 9, at, strand: 100 + strand, shape: 1 }, { lane: 9, at: at + 2 * MS, strand: NAMELESS, shape: 2 }, { lane: 9, at: at + 13 * MS, strand: 100 + strand, shape: 3 }); // prettier-ignore
    }
    const list = [...alone, ...mixed].sort((a, b) => a.at - b.at);
    const found = carried(list);
    list.forEach((one, i) => one.shape === 2 && expect(found[i] === null).toBe(one.lane === 9));
  });
  test('while a lane waits long for an answer, what it says as often while it idles is left alone', () => {
    const list: One[] = [];
    let at = 17 * SECOND;
    for (let strand = 0; strand < 200; strand++) {
      list.push(
        { lane: 0, at, strand, shape: 1 },
        { lane: 0, at: at + 3 * MS, strand: NAMELESS, shape: 2 },
        { lane: 0, at: at + 240 * MS, strand, shape: 3 },
      );
      // one of eight is answered later, after anything from a second to minutes, in the same lane
      const later = strand % 8 === 0 ? 1.25 ** (strand / 8) * SECOND : 0;
      if (later > 0) list.push({ lane: 0, at: at + later, strand, shape: 4 });
      at += later + (1 + ((strand * 37) % 97)) * 2 * SECOND;
    }
    for (let idle = 0; idle < at; idle += 41.3 * SECOND) list.push({ lane: 0, at: idle, strand: NAMELESS, shape: 5 });
    list.sort((a, b) => a.at - b.at);
    const found = carried(list);
    list.forEach((one, i) => one.shape === 5 && expect(found[i]).toBeNull());
    expect(list.every((one, i) => one.shape !== 2 || found[i] !== null)).toBe(true);
  });
  test('nothing is carried over where there is too little to learn from', () => {
    expect(carried(work(3, 1, 60 * SECOND)).every((one) => one === null)).toBe(true);
  });
});

/** The strand whose begin stands before in the lane. */
function carriedTruth(list: readonly One[], i: number): number {
  for (let k = i - 1; ; k--) if (list[k]!.lane === list[i]!.lane && list[k]!.strand >= 0) return list[k]!.strand;
}

test('whatever the records: only nameless ones are carried, from a record of a strand in the same lane with nothing else named between', () => {
  const one = fc.record({
    lane: fc.integer({ min: 0, max: 3 }),
    step: fc.integer({ min: 0, max: 50_000 }),
    strand: fc.oneof({ weight: 3, arbitrary: fc.integer({ min: 0, max: 4 }) }, fc.constant(NAMELESS), fc.constant(STRANGE)),
    shape: fc.integer({ min: 0, max: 3 }),
  });
  fc.assert(
    fc.property(fc.array(one, { minLength: 30, maxLength: 200 }), (steps) => {
      let at = 0;
      const list = steps.map(({ step, ...rest }) => ({ ...rest, at: (at += step) }));
      const found = carryOver(columns(list));
      found.forEach((from, i) => {
        if (from < 0) return;
        expect(list[i]!.strand).toBe(NAMELESS);
        expect(list[from]!.lane).toBe(list[i]!.lane);
        expect(list[from]!.strand).toBeGreaterThanOrEqual(0);
        const between = list.slice(Math.min(from, i) + 1, Math.max(from, i)).filter((other) => other.lane === list[i]!.lane);
        expect(between.every((other) => other.strand === NAMELESS)).toBe(true);
      });
      // renaming lanes and strands changes nothing
      const renamed = carryOver(
        columns(list.map((record) => ({ ...record, lane: record.lane * 7 + 1, strand: record.strand < 0 ? record.strand : 9 - record.strand }))),
      );
      expect([...renamed]).toEqual([...found]);
    }),
  );
});
