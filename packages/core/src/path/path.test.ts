import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MARK, Marker } from './marks.ts';
import { pathOf as wholePath } from './path.ts';
import type { StrandRecord } from './types.ts';
import { emptyDraft } from '../reading/types.ts';

/** Links are keys from 100 on. */
const pathOf = (records: readonly StrandRecord[]) => wholePath(records, (key) => key >= 100);
const record = (at: number, component: string, more: Partial<StrandRecord> = {}): StrandRecord => ({
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
  keys: [],
  ...more,
});

describe('steps and the split of the time', () => {
  test('legs have steps of their own, and the time between them is nobody’s', () => {
    const path = pathOf([
      record(0, 'web', { keys: [100] }),
      record(5, 'desk', { keys: [100] }),
      record(9, 'web', { keys: [100] }),
      record(9000, 'web', { keys: [200] }),
      record(9004, 'desk', { keys: [200] }),
      record(9010, 'web', { keys: [200] }),
    ]);
    expect(path.legs.map((leg) => [leg.records, leg.startedAt, leg.endedAt])).toEqual([
      [[0, 1, 2], 0, 9000],
      [[3, 4, 5], 9_000_000, 9_010_000],
    ]);
    expect(path.steps.map((step) => [step.id, step.leg, step.component, step.parent, step.records])).toEqual([
      [1, 1, 'web', null, [0, 2]],
      [2, 1, 'desk', 1, [1]],
      [3, 2, 'web', null, [3, 5]],
      [4, 2, 'desk', 3, [4]],
    ]);
    expect(path.hops.map((hop) => [hop.from, hop.to, hop.record])).toEqual([[1, 2, 1], [2, 1, 2], [3, 4, 4], [4, 3, 5]]); // prettier-ignore
    expect([...path.stepOf]).toEqual([0, 1, 0, 2, 3, 2]);
    expect([path.duration, path.endedAt - path.startedAt]).toEqual([19_000, 9_010_000]);
  });

  test('a component that speaks again continues its step, until its caller has spoken in between', () => {
    const { steps } = pathOf([record(0, 'desk'), record(2, 'store'), record(5, 'store'), record(6, 'desk'), record(8, 'store')]);
    expect(steps.map((step) => [step.component, step.parent, step.attempt, step.records.length])).toEqual([
      ['desk', null, 1, 2],
      ['store', 1, 1, 2],
      ['store', 1, 1, 1],
    ]);
  });

  test('a record that states a duration began that much earlier', () => {
    const { steps, startedAt } = pathOf([record(10, 'portal'), record(40, 'edge', { took: 38_000 })]);
    expect(startedAt).toBe(2000);
    expect(steps.map((step) => [step.component, step.parent])).toEqual([
      ['edge', null],
      ['portal', null],
    ]);
  });

  test('a lock wait that the database tells of is nobody’s work', () => {
    const { time } = pathOf([
      record(0, 'store'),
      record(1004, 'labdb', { marks: MARK.waits, took: 1_000_000 }),
      record(8004, 'labdb'),
      record(8008, 'store'),
    ]);
    expect(time[0]).toEqual({ component: 'labdb', kind: 'lock-wait', time: 8_000_000 });
  });

  test('between a record that sends and the next component lies the queue', () => {
    const { time } = pathOf([record(0, 'relay', { marks: MARK.sends }), record(700, 'relay', { marks: MARK.receives }), record(701, 'store')]);
    expect(time.find((share) => share.kind === 'queue')).toEqual({ component: 'relay', kind: 'queue', time: 700_000 });
  });

  test('who speaks before and behind works in between, also while another that began later goes on afterwards', () => {
    const { time } = pathOf([
      record(0, 'desk'),
      record(10, 'relay'),
      record(20, 'relay'),
      record(30, 'desk'),
      record(680, 'desk'),
      record(700, 'relay'),
    ]);
    expect(time.find((share) => share.component === 'desk' && share.kind === 'work')!.time).toBeGreaterThanOrEqual(650_000);
    expect(time.some((share) => share.component === 'relay' && share.kind === 'waiting')).toBe(false);
  });

  test('what a broker has delivered is with whoever speaks next, and the broker does not wait for what becomes of it', () => {
    const { time } = pathOf([
      record(0, 'desk'),
      record(2, 'relay', { marks: MARK.sends }),
      record(12, 'relay', { marks: MARK.receives }),
      record(4012, 'mill'),
      record(5012, 'cart'),
      record(6012, 'relay', { marks: MARK.sends }),
      record(6013, 'desk'),
    ]);
    const of = (component: string, kind: string): number => time.find((share) => share.component === component && share.kind === kind)?.time ?? 0;
    expect(of('relay', 'queue')).toBe(11_000);
    expect(of('mill', 'work')).toBe(4_000_000);
    expect(of('relay', 'waiting') + of('relay', 'work')).toBe(0);
  });

  test('a hop names what both records share', () => {
    expect(pathOf([record(0, 'a', { keys: [1, 7] }), record(3, 'b', { keys: [7] })]).hops).toEqual([
      { from: 1, to: 2, record: 1, delay: 3000, by: [7] },
    ]);
  });

  const any = fc
    .array(
      fc.record({
        gap: fc.integer({ min: 0, max: 5000 }),
        component: fc.constantFrom('a', 'b', 'c', 'd'),
        took: fc.option(fc.integer({ min: 0, max: 9_000_000 })),
        marks: fc.integer({ min: 0, max: 511 }),
        keys: fc.uniqueArray(fc.integer({ min: 98, max: 103 }), { maxLength: 2 }),
      }),
      { minLength: 1, maxLength: 30 },
    )
    .map((list) => {
      let at = 10_000;
      return list.map(({ gap, component, took, marks, keys }) => record((at += gap), component, { marks, keys, took: took ?? NaN }));
    });

  /** Length of what intervals cover together. */
  const covered = (intervals: readonly { startedAt: number; endedAt: number }[]): number => {
    let [sum, until] = [0, -Infinity];
    for (const { startedAt, endedAt } of [...intervals].sort((a, b) => a.startedAt - b.startedAt)) {
      sum += Math.max(0, endedAt - Math.max(startedAt, until));
      until = Math.max(until, endedAt);
    }
    return sum;
  };

  test('the shares add up to what the legs cover, and every record is in exactly one step of its leg', () => {
    fc.assert(
      fc.property(any, (records) => {
        const path = pathOf(records);
        expect(path.time.reduce((sum, share) => sum + share.time, 0)).toBe(covered(path.legs));
        expect(path.duration).toBe(covered(path.legs));
        for (const leg of path.legs) expect(leg.records.every((index) => path.steps[path.stepOf[index]!]!.leg === leg.id)).toBe(true);
        expect(path.time.every((share) => share.time > 0)).toBe(true);
        const indexes = path.steps.flatMap((step) => step.records).sort((a, b) => a - b);
        expect(indexes).toEqual(records.map((_, index) => index));
        for (const step of path.steps) expect(step.endedAt).toBeGreaterThanOrEqual(step.startedAt);
      }),
      { numRuns: 400 },
    );
  });
});

describe('marks', () => {
  const marker = new Marker([
    { component: 'desk', contains: 'released to', means: 'done' },
    { component: null, contains: 'expected hiccup', means: 'harmless' },
  ]);
  const marks = (message: string, level: 3 | 4 | 5, fields = {}, component = 'desk'): number =>
    marker.marks({ ...emptyDraft(), message, level, fields }, component);
  test('errors fail, declared rules speak for their component, harmless errors do not count', () => {
    expect(marks('it broke', 5)).toBe(MARK.failing);
    expect(marks('LX-1 released to surfacing', 3)).toBe(MARK.done);
    expect(marks('LX-1 released to surfacing', 3, {}, 'portal')).toBe(0);
    expect(marks('expected hiccup', 5)).toBe(MARK.harmless);
  });
  test('SIP: challenges are normal working, busy turns away, other refusals of a request fail', () => {
    const sip = (status: number): number => marks(`SIP/2.0 ${status} x`, 3, { 'call-id': 'c', cseq: '1 INVITE', status });
    expect(sip(407)).toBe(0);
    expect(sip(486)).toBe(MARK.refusing);
    expect(sip(488)).toBe(MARK.failing);
    expect(marks('BYE sip:x SIP/2.0', 3, { 'call-id': 'c', cseq: '3 BYE', method: 'BYE' })).toBe(MARK.ends);
  });
});
