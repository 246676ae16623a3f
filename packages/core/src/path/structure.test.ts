import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MARK } from './marks.ts';
import { pathOf as wholePath } from './path.ts';
import type { StrandRecord } from './types.ts';

const ORDER = 1;
const pathOf = (records: readonly StrandRecord[]) => wholePath(records, (key) => key >= 200);
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
  keys: [ORDER],
  ...more,
});
/** Component, component of the caller, attempt, group of those side by side. */
const told = (records: readonly StrandRecord[]): unknown[] => {
  const { steps } = pathOf(records);
  return steps.map((step) => [step.component, step.parent === null ? null : steps[step.parent - 1]!.component, step.attempt, step.parallel]);
};

describe('who called whom', () => {
  test('one after the other: each is called by who spoke last', () =>
    expect(told([record(0, 'web'), record(1, 'desk'), record(2, 'store'), record(3, 'store'), record(4, 'desk'), record(5, 'web')])).toEqual([
      ['web', null, 1, null],
      ['desk', 'web', 1, null],
      ['store', 'desk', 1, null],
    ]));

  test('the identifier that the fewest name tells who handed over, whoever spoke in between', () =>
    expect(
      told([
        record(0, 'desk', { keys: [ORDER, 101] }),
        record(1, 'desk', { keys: [ORDER, 102] }),
        record(2, 'keys', { keys: [ORDER, 101] }),
        record(3, 'mail', { keys: [ORDER, 102] }),
        record(60, 'keys', { keys: [ORDER, 101] }),
        record(90, 'mail', { keys: [ORDER, 102] }),
        record(95, 'desk'),
      ]),
    ).toEqual([
      ['desk', null, 1, null],
      ['keys', 'desk', 1, 1],
      ['mail', 'desk', 1, 1],
    ]));

  test('who began while another was at work and ended after it was not called by it', () => {
    const [own, other] = [{ keys: [ORDER, 101] }, { keys: [ORDER, 102] }];
    expect(told([record(0, 'desk'), record(2, 'keys', own), record(3, 'mail', other), record(60, 'keys', own), record(90, 'mail', other)])).toEqual([
      ['desk', null, 1, null],
      ['keys', 'desk', 1, 1],
      ['mail', 'desk', 1, 1],
    ]);
  });

  test('at its begin a component was handed what it names first, not what it names at its end', () =>
    expect(
      told([
        record(0, 'desk'),
        record(3, 'bus', { keys: [101] }),
        record(5, 'mill', { keys: [ORDER, 101] }),
        record(40, 'mill', { keys: [ORDER, 102], took: 35_000 }),
        record(41, 'bus', { keys: [102] }),
      ]),
    ).toEqual([
      ['desk', null, 1, null],
      ['bus', 'desk', 1, null],
      ['mill', 'bus', 1, null],
    ]));

  test('what was handed on and goes on later stands beside nothing', () =>
    expect(
      told([
        record(0, 'desk', { keys: [ORDER, 101, 102] }),
        record(2, 'mill', { keys: [ORDER, 101] }),
        record(5, 'mill', { keys: [ORDER, 103] }),
        record(9, 'cart', { keys: [ORDER, 103] }),
        record(80, 'mail', { keys: [ORDER, 102] }),
        record(85, 'cart', { keys: [ORDER, 103] }),
        record(90, 'mail', { keys: [ORDER, 102] }),
      ]),
    ).toEqual([
      ['desk', null, 1, null],
      ['mill', 'desk', 1, null],
      ['cart', 'mill', 1, null],
      ['mail', 'desk', 1, null],
    ]));

  test('what it alone knows of stays within it', () => {
    const branch = { keys: [ORDER, 101] };
    expect(told([record(0, 'desk'), record(2, 'keys', branch), record(60, 'keys', branch), record(90, 'lock', { ...branch, took: 80_000 })])).toEqual(
      [
        ['desk', null, 1, null],
        ['keys', 'desk', 1, null],
        ['lock', 'keys', 1, null],
      ],
    );
  });
});

describe('attempts', () => {
  const failing = { marks: MARK.failing };

  test('what failed and is called again is tried again', () =>
    expect(
      told([record(0, 'desk'), record(2, 'bank', failing), record(3, 'desk'), record(9, 'bank', failing), record(10, 'desk'), record(20, 'bank')]),
    ).toEqual([
      ['desk', null, 1, null],
      ['bank', 'desk', 1, null],
      ['bank', 'desk', 2, null],
      ['bank', 'desk', 3, null],
    ]));

  test('so it is where only the caller says that it failed', () =>
    expect(told([record(0, 'desk'), record(2, 'bank'), record(3, 'desk', failing), record(9, 'bank'), record(10, 'desk')])[2]).toEqual([
      'bank',
      'desk',
      2,
      null,
    ]));

  test('what is asked again under another reference is tried again, though its caller says nothing', () => {
    const asked = (at: number, key: number) => record(at, 'bank', { shape: 5, keys: [ORDER, key] });
    const answered = (at: number, key: number, level: 3 | 4) => record(at, 'bank', { shape: 6, level, keys: [key] });
    const twice = (first: 3 | 4) =>
      told([record(0, 'desk'), asked(2, 101), answered(9, 101, first), asked(12, 102), answered(15, 102, 3), record(20, 'desk')]);
    expect(twice(4).slice(1)).toEqual([
      ['bank', 'desk', 1, null],
      ['bank', 'desk', 2, null],
    ]);
    expect(twice(3)[2]).toEqual(['bank', 'desk', 1, null]);
  });

  test('a second call of what went well is none', () =>
    expect(told([record(0, 'desk'), record(2, 'bank'), record(3, 'desk'), record(9, 'bank'), record(10, 'desk')])[2]).toEqual([
      'bank',
      'desk',
      1,
      null,
    ]));
});

test('steps form a tree, and those side by side have one caller', () => {
  const one = fc.record({
    component: fc.constantFrom('a', 'b', 'c', 'd'),
    keys: fc.subarray([ORDER, 100, 101, 102]),
    marks: fc.constantFrom(0, MARK.failing),
  });
  fc.assert(
    fc.property(fc.array(one, { minLength: 1, maxLength: 40 }), (list) => {
      const { steps, legs } = pathOf(list.map(({ component, ...more }, i) => record(i * 3, component, more)));
      expect(steps.filter((step) => step.parent === null).length).toBeGreaterThanOrEqual(legs.length);
      for (const step of steps) {
        if (step.parent !== null) expect(step.parent).toBeLessThan(step.id);
        expect(step.attempt).toBeGreaterThanOrEqual(1);
        if (step.parallel === null) continue;
        const group = steps.filter((other) => other.leg === step.leg && other.parallel === step.parallel);
        expect(group.length).toBeGreaterThan(1);
        expect(new Set(group.map((other) => other.parent)).size).toBe(1);
      }
    }),
  );
});
