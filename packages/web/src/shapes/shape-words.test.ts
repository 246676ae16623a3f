import { expect, test } from '@jest/globals';
import { parseSearch } from '@fadenweg/core/search';
import type { DifferentShapes, ShapeDetail } from '@fadenweg/api';
import { comparedWords, endsWords, oftenWords, searchOf, spreadWords, valueSearch, wordPlaces } from './shape-words.ts';

test('how often, and how often usually', () => {
  expect(oftenWords({ kind: 'new', count: 1, expected: 0 })).toBe('once');
  expect(oftenWords({ kind: 'surging', count: 412, expected: 3.21 })).toBe('412, usually 3.2');
  expect(oftenWords({ kind: 'gone', count: 0, expected: 61.4 })).toBe('none, usually 61');
});

test('what it is compared with, and what moved as a whole', () => {
  const one = { stretches: 7, since: '2026-11-24T05:00:00Z', shift: null } as DifferentShapes;
  expect(comparedWords(one, 'before', (iso) => iso.slice(0, 10))).toBe('compared with 7 stretches as long before it, since 2026-11-24');
  expect(comparedWords({ ...one, shift: 2.04 }, 'days', (iso) => iso.slice(0, 10))).toMatch(/same hours of 7 earlier days.*2\.0 times as often/);
  const others = ['window', 'environment', 'host'].map((baseline) => comparedWords({ ...one, stretches: 1 }, baseline, String));
  expect(others.map((text) => text.split(',')[0])).toEqual([
    'compared with 1 stretch as long of another time',
    'compared with another environment at the same time',
    'compared with all other hosts at the same time',
  ]);
  expect(comparedWords({ ...one, stretches: 0, since: null }, 'days', String)).toMatch(/nothing was collected/);
});

test('its records are found by words that may hold anything', () => {
  const search = searchOf({ text: "can't read ‹› of 'order'", component: 'dispatch' });
  expect(parseSearch(search).problem ?? null).toBeNull();
});

test('what its strands end with, and how numbers lie', () => {
  const one = { strands: 32, failed: 30, usuallyFailed: 0.004 } as ShapeDetail;
  expect(endsWords(one)).toBe('30 of 32 that were looked at failed; of all strands of these flows less than 1\u00a0%.');
  expect(endsWords({ ...one, usuallyFailed: 0.05 })).toMatch(/flows 5\u00a0%\.$/);
  expect(endsWords({ ...one, usuallyFailed: 0 })).toMatch(/flows none\.$/);
  expect(spreadWords({ count: 9, min: 1, p50: 2.555, p90: 1200, p99: 1300, max: 1400, bins: [] })).toBe(
    'least 1, middle 2.56, nine of ten up to 1,200, most 1,400',
  );
});

test('a value of a parameter as a search, and words that may be parameters', () => {
  expect(parseSearch(valueSearch('amount', "it's")).problem ?? null).toBeNull();
  expect(wordPlaces('door north of ‹›')).toEqual([
    { word: 'door', text: '‹› north of ‹›' },
    { word: 'north', text: 'door ‹› of ‹›' },
    { word: 'of', text: 'door north ‹› ‹›' },
  ]);
});
