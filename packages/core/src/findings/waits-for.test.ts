import { describe, expect, test } from '@jest/globals';
import { said } from '../usual/testing/legs.ts';
import { waitsFor } from './waits-for.ts';

const records = [said(0, 'shop', 'asking stock for 12'), said(1, 'stock', 'asking cellar'), said(2, 'cellar', 'shelf empty')];

describe('who waits for whom', () => {
  test('whoever names another one, and whom that one names', () => {
    const waits = waitsFor(records);
    expect([waits('shop', 'stock'), waits('shop', 'cellar'), waits('stock', 'shop'), waits('cellar', 'shop')]).toEqual([true, true, false, false]);
  });
  test('is not known where both name each other', () => {
    const waits = waitsFor([...records, said(3, 'stock', 'answer to shop')]);
    expect([waits('shop', 'stock'), waits('stock', 'shop')]).toEqual([false, false]);
  });
  test('is not told by a part of a word, or by a name so short that it may be one', () => {
    const waits = waitsFor([said(0, 'shop', 'livestock and restocking, an apt-get'), said(1, 'stock', 'a'), said(2, 'apt', 'b')]);
    expect([waits('shop', 'stock'), waits('shop', 'apt')]).toEqual([false, false]);
  });
  test('ends where components name each other in a ring', () => {
    const waits = waitsFor([said(0, 'shop', 'to stock'), said(1, 'stock', 'to mill'), said(2, 'mill', 'to shop')]);
    expect(waits('shop', 'elsewhere')).toBe(false);
  });
});
