import { expect, test } from '@jest/globals';
import { flowBeginning, isStrand, loudest } from './begins.ts';
import type { Usual } from './index-of.ts';

const usual = (
  begins: { component: string; shape: number; share: number }[],
  sayings: { component: string; shape: number; legs: number }[] = [],
): Usual => ({ of: { legs: 10, begins, sayings } }) as unknown as Usual;
const flows = new Map([
  ['order', usual([{ component: 'edge', shape: 1, share: 0.7 }, { component: 'desk', shape: 2, share: 0.3 }])], // prettier-ignore
  ['claim', usual([{ component: 'edge', shape: 1, share: 0.2 }])],
  ['old', { of: { legs: 10, sayings: [{ component: 'desk', shape: 9, legs: 9 }, { component: 'desk', shape: 8, legs: 4 }] } } as unknown as Usual], // prettier-ignore
]);

test('what has no number belongs to the flow of which most begin like it', () => {
  expect(flowBeginning(flows, { component: 'edge', shape: 1 })).toBe('order');
  expect(flowBeginning(flows, { component: 'desk', shape: 2 })).toBe('order');
  expect(flowBeginning(flows, { component: 'desk', shape: 1 })).toBeNull();
  // what nearly all of them say somewhere
  expect(flowBeginning(flows, { component: 'desk', shape: 9 })).toBe('old');
  expect(flowBeginning(flows, { component: 'desk', shape: 8 })).toBeNull();
});
test('what has no number is a strand where it belongs to a flow or failed; where no flows are declared, if it says more than one thing', () => {
  expect([isStrand('order', 'done', 1, 3, true), isStrand(null, 'failed', 1, 5, true), isStrand(null, 'done', 5, 3, true)]).toEqual([
    true,
    true,
    false,
  ]);
  expect([isStrand(null, 'done', 5, 3, false), isStrand(null, 'done', 1, 3, false)]).toEqual([true, false]);
});
test('what was turned away and belongs to no flow is a strand where somebody warned of it', () => {
  const levels = [3, 4, 3].map((level) => ({ level }));
  expect([isStrand(null, 'refused', 3, loudest(levels), true), isStrand(null, 'refused', 3, loudest(levels.slice(2)), true)]).toEqual([true, false]);
});
