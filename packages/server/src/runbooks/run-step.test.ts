import { expect, test } from '@jest/globals';
import type { StepSum } from '@fadenweg/core/runbooks';
import { windowsOf } from './run-step.ts';

const window = { from: 0, to: 1000 };
const second = (n: number): string => `1970-01-01T00:00:${String(n).padStart(2, '0')}Z`;
const sum = (...times: number[]): StepSum => ({ count: times.length, partial: false, first: times.length > 0 ? second(times[0]!) : null, last: null, times: times.map(second), values: [], strands: [], sentences: [] }); // prettier-ignore
const around = (at: 'first' | 'each') => ({ around: { step: 's', at, before: '2s', after: '1s' } });

test('a step looks at the whole window, or around what an earlier one found, each stretch once', () => {
  expect(windowsOf({ around: null }, { window, earlier: {} })).toEqual([window]);
  expect(windowsOf(around('each'), { window, earlier: { s: sum(10, 12, 30) } })).toEqual([
    { from: 8_000_000, to: 13_000_000 },
    { from: 28_000_000, to: 31_000_000 },
  ]);
  expect(windowsOf(around('first'), { window, earlier: { s: sum(10, 30) } })).toEqual([{ from: 8_000_000, to: 11_000_000 }]);
  expect(windowsOf(around('each'), { window, earlier: { s: sum() } })).toEqual([]);
});
