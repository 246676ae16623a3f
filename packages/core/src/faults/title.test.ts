import { expect, test } from '@jest/globals';
import { faultTitle } from './title.ts';

test('a fault is called by the innermost that was thrown and the call, else by what is said', () => {
  const thrown = { types: ['IllegalStateException', 'PrismOffGridException'], calls: ['Rings.shift', 'Rings.turn'], said: '', traits: '' };
  expect(faultTitle(thrown)).toBe('PrismOffGridException in Rings.shift');
  expect(faultTitle({ ...thrown, types: [] })).toBe('broke off in Rings.shift');
  const said = { types: [], calls: [], said: 'no blank for ‹›', traits: 'status=503' };
  expect(faultTitle(said)).toBe('no blank for ‹› (status=503)');
  expect(faultTitle({ ...said, said: '', traits: '' })).toBe('a record without words');
});
