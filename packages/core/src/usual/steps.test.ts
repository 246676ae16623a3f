import { expect, test } from '@jest/globals';
import { pathOf } from '../path/path.ts';
import { usualOfSteps } from './steps.ts';
import { dice, milling, said, usualOf } from './testing/legs.ts';

const usual = usualOf(200);
const of = (more: Parameters<typeof milling>[1]) => {
  const records = milling(dice(5), { start: 0, ...more });
  const path = pathOf(records, () => false);
  const found = usualOfSteps(records, path, usual);
  return Object.fromEntries(path.steps.map((step) => [step.component, found.get(step.id)]));
};

test('a step usually takes what its own waits usually take', () => {
  const { mill, cart } = of({});
  expect(mill!.usual / 1e6).toBeCloseTo(4, 0);
  expect(mill!.excess).toBe(0);
  // one record alone says nothing of how long it was at work
  expect(cart).toBeUndefined();
});

test('what took longer than the usual varies by is excess', () => {
  const { mill } = of({ grinding: 30_000 });
  expect(mill!.excess / 1e6).toBeCloseTo(26, 0);
  expect(mill!.usual / 1e6).toBeCloseTo(4, 0);
});

test('what is not known is left out', () => {
  const records = [said(0, 'cat', 'meows'), said(900, 'cat', 'meows again')];
  expect(
    usualOfSteps(
      records,
      pathOf(records, () => false),
      usual,
    ).size,
  ).toBe(0);
});
