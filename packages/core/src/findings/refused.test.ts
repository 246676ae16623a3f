import { describe, expect, test } from '@jest/globals';
import { said } from '../usual/testing/legs.ts';
import { refusal } from './refused.ts';
import { headline } from './sentence.ts';

const records = [
  said(0, 'shop', 'order 5 taken'),
  said(8, 'limits', 'checked 5', { traits: 'result=over' }),
  said(20, 'shop', 'order 5 declined\nsee the limits'),
];

describe('a refusal', () => {
  test('is told by who turned it away, in the first line of its words', () => {
    const found = refusal(records, 2, undefined);
    expect([found.kind, found.record, found.failedIn, found.component, found.evidence]).toEqual(['refused', 2, 'shop', 'shop', [2]]);
    expect(headline(found.sentence)).toBe('Refused by shop: “order 5 declined”.');
  });

  test('is decided where an earlier record tells it from the good ones', () => {
    const found = refusal(records, 2, 1);
    expect([found.record, found.failedIn, found.component, found.evidence]).toEqual([1, 'shop', 'limits', [1, 2]]);
    expect(headline(found.sentence)).toBe('Refused by shop: “order 5 declined”, after limits: “checked 5” with result=over.');
    expect(found.signature).not.toBe(refusal(records, 2, undefined).signature);
  });
});
