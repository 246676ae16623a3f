import { expect, test } from '@jest/globals';
import { weighedParts, weightReason } from './weighed.ts';

test('a text is cut where words weigh, and nothing is lost', () => {
  const text = 'order failed: disk full\nsecond line failed';
  expect(weighedParts(text).map((part) => part.text).join('')).toBe(text); // prettier-ignore
  expect(weighedParts(text).filter((part) => part.weight > 0)).toEqual([{ text: 'failed', weight: 2 }, { text: 'disk full', weight: 3 }]); // prettier-ignore
  expect(weighedParts('')).toEqual([]);
});
test('what makes it weigh is told once each', () => {
  expect(weightReason({ message: 'failed, failed, timeout' })).toBe('2 words weigh: “failed”, “timeout”');
  expect(weightReason({ message: 'no errors' })).toBe('');
});
