import { describe, expect, it } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import { estimateClocks } from './estimate.ts';
import type { ClockEstimate, ClockRecord } from './types.ts';

const MS = 1000;
const SECOND = 1_000_000;
const HOUR = 3600 * SECOND;
const START = 1_790_000_000 * SECOND;

/** Evenly spread numbers below 1, the same for the same seed (mulberry32). */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

const [DOOR, DESK, BANK, STORE] = [0, 1, 2, 3];
type Ahead = (at: number) => number;
interface World {
  strands: number;
  hours: number;
  ahead: Partial<Record<number, Ahead>>;
  /** Written times are cut to this. */
  grain?: number;
}

/** The door calls the desk, which calls the bank; afterwards, whenever it likes, the store takes a message and works. */
function world({ strands, hours, ahead, grain = MS }: World, seed = 1): ClockRecord[][] {
  const next = random(seed);
  const about = (time: number): number => time * (0.4 + 1.2 * next());
  return Array.from({ length: strands }, (_, i) => {
    let at = START + (i / strands) * hours * HOUR;
    const records: ClockRecord[] = [];
    const say = (clock: number, shape: number, wait: number, marks = 0, keys: number[] = []): void => {
      at += wait;
      const told = at + (ahead[clock]?.(at) ?? 0);
      records.push({ at: Math.floor(told / grain) * grain, took: NaN, clock, shape, marks, keys });
    };
    say(DOOR, 1, 0);
    say(DESK, 2, about(4 * MS));
    say(DESK, 3, about(10 * MS));
    say(BANK, 4, about(5 * MS));
    say(BANK, 5, about(250 * MS));
    say(DESK, 6, about(4 * MS));
    say(DESK, 7, about(3 * MS), MARK.sends, [i]);
    say(DOOR, 8, about(4 * MS));
    say(STORE, 9, about(20 * SECOND), MARK.receives, [i]);
    say(STORE, 10, about(30 * SECOND));
    return records;
  });
}
const constant =
  (by: number): Ahead =>
  () =>
    by;
const off = (estimates: readonly ClockEstimate[], clock: number): number[] => estimates[clock]!.spans.map((span) => span.ahead);

describe('clocks', () => {
  it('says nothing of clocks that are right', () => {
    const found = estimateClocks(world({ strands: 1500, hours: 10, ahead: {} }), 4);
    for (const clock of [DOOR, DESK, BANK]) {
      expect(off(found, clock)).toEqual([0]);
      expect(found[clock]!.spans[0]!.within).toBeLessThan(20 * MS);
    }
  });

  it.each([1.7 * SECOND, -40 * SECOND, 0.2 * SECOND])('finds a clock that is %d µs ahead', (by) => {
    const found = estimateClocks(world({ strands: 1500, hours: 10, ahead: { [BANK]: constant(by) } }), 4);
    expect(off(found, DOOR)).toEqual([0]);
    expect(off(found, DESK)).toEqual([0]);
    expect(found[BANK]!.spans).toHaveLength(1);
    const { ahead, within } = found[BANK]!.spans[0]!;
    expect(Math.abs(ahead - by)).toBeLessThanOrEqual(within + MS);
    expect(within).toBeLessThan(20 * MS);
  });

  it('finds the one between two others that agree, and measures by these', () => {
    const found = estimateClocks(world({ strands: 900, hours: 3, ahead: { [DESK]: constant(5 * SECOND) } }), 4);
    expect([off(found, DOOR), off(found, BANK)]).toEqual([[0], [0]]);
    expect(Math.abs(off(found, DESK)[0]! - 5 * SECOND)).toBeLessThan(20 * MS);
  });

  it('does not bound what only hears from others: says between what it may lie', () => {
    const found = estimateClocks(world({ strands: 900, hours: 3, ahead: { [STORE]: constant(SECOND) } }), 4);
    expect(found[STORE]!.spans).toEqual([]);
    expect(found[STORE]!.hops).toBeGreaterThan(800);
  });

  it('is not misled by work that comes later and takes about as long as something before', () => {
    const next = random(5);
    const strands = Array.from({ length: 1000 }, (_, i): ClockRecord[] => {
      const t = START + i * 10 * SECOND;
      const [pause, work] = [300 * MS * (0.8 + 0.4 * next()), 250 * MS * (0.8 + 0.4 * next())];
      const record = (at: number, clock: number, shape: number): ClockRecord => ({ at: Math.floor(at), took: NaN, clock, shape, marks: 0, keys: [] });
      return [record(t, 0, 1), record(t + pause, 0, 2), record(t + 5 * SECOND, 1, 3), record(t + 5 * SECOND + work, 1, 4)];
    });
    const found = estimateClocks(strands, 2);
    expect([found[0]!.spans, found[1]!.spans]).toEqual([[], []]);
  });

  it('is not misled by short times that are about as long as each other, a little apart', () => {
    const next = random(6);
    const strands = Array.from({ length: 1000 }, (_, i): ClockRecord[] => {
      const t = START + i * 10 * SECOND;
      const record = (at: number, clock: number, shape: number): ClockRecord => ({
        at: Math.floor(at / MS) * MS,
        took: NaN,
        clock,
        shape,
        marks: 0,
        keys: [],
      });
      const [a, b] = [2 + 8 * next(), 2 + 6 * next()];
      return [record(t, 0, 1), record(t + a * MS, 0, 2), record(t + 75 * MS, 1, 3), record(t + (75 + b) * MS, 1, 4)];
    });
    const found = estimateClocks(strands, 2);
    expect([found[0]!.spans, found[1]!.spans]).toEqual([[], []]);
  });

  it('tells that clocks agree where one is called by the other for about the same time always', () => {
    const next = random(7);
    const strands = Array.from({ length: 600 }, (_, i): ClockRecord[] => {
      const t = START + i * 10 * SECOND;
      const record = (at: number, clock: number, shape: number): ClockRecord => ({ at: Math.floor(at), took: NaN, clock, shape, marks: 0, keys: [] });
      const wait = (): number => MS * (3 + 5 * next());
      const first = t + wait();
      const second = first + 40 * MS;
      return [record(t, 0, 1), record(first, 1, 3), record(second, 1, 4), record(second + wait(), 0, 2)];
    });
    const found = estimateClocks(strands, 2);
    expect([off(found, 0), off(found, 1)]).toEqual([[0], [0]]);
    expect(found[1]!.spans[0]!.within).toBeLessThan(10 * MS);
    // the same with a clock that is off proves nothing
    const amiss = strands.map((records) => records.map((one) => (one.clock === 1 ? { ...one, at: one.at + SECOND } : one)));
    expect(estimateClocks(amiss, 2).map((one) => one.spans)).toEqual([[], []]);
  });

  it('finds a clock that drifts', () => {
    const drift = 40e-6;
    const found = estimateClocks(world({ strands: 6000, hours: 24, ahead: { [BANK]: (at) => (at - START) * drift } }), 4);
    const spans = found[BANK]!.spans;
    expect(spans.length).toBeLessThanOrEqual(2);
    for (const share of [0.1, 0.5, 0.9]) {
      const at = START + share * 24 * HOUR;
      const span = [...spans].reverse().find((one) => one.from <= at) ?? spans[0]!;
      expect(Math.abs(span.ahead + span.drift * (at - span.from) - (at - START) * drift)).toBeLessThan(30 * MS);
    }
  });

  it('finds when a clock was set', () => {
    const moment = START + 13.37 * HOUR;
    const ahead: Ahead = (at) => (at < moment ? 2.5 * SECOND : 0);
    const found = estimateClocks(world({ strands: 6000, hours: 24, ahead: { [BANK]: ahead } }), 4);
    const spans = found[BANK]!.spans;
    expect(spans).toHaveLength(2);
    expect(Math.abs(spans[0]!.ahead - 2.5 * SECOND)).toBeLessThan(20 * MS);
    expect(spans[1]!.ahead).toBe(0);
    expect(Math.abs(spans[1]!.from - moment)).toBeLessThan(60 * SECOND);
  });

  it('does not bound a clock that writes whole seconds by calls that are shorter', () => {
    const coarse = world({ strands: 900, hours: 3, ahead: { [BANK]: constant(90 * SECOND) } }).map((records) =>
      records.map((record) => (record.clock === BANK ? { ...record, at: Math.floor(record.at / SECOND) * SECOND } : record)),
    );
    expect(estimateClocks(coarse, 4)[BANK]!.spans).toEqual([]);
  });

  it('gives the same in whatever order the strands come', () => {
    const strands = world({ strands: 900, hours: 3, ahead: { [BANK]: constant(SECOND) } });
    expect(estimateClocks([...strands].reverse(), 4)).toEqual(estimateClocks(strands, 4));
  });

  it('says nothing of nothing', () => {
    expect(estimateClocks([], 0)).toEqual([]);
    expect(estimateClocks([], 2).map((one) => [one.spans, one.hops])).toEqual([[[], 0], [[], 0]]); // prettier-ignore
  });
});
