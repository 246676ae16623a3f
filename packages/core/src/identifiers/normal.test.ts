import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { normalPhone, normalValue } from './normal.ts';
import { KEEP } from './types.ts';

describe('normal forms', () => {
  test.each([
    ['Ab-12', KEEP, 'Ab-12'],
    ['Ab-12', { ...KEEP, case: 'lower' as const }, 'ab-12'],
    ['ab 12/7', { ...KEEP, separators: 'drop' as const }, 'ab127'],
    ['RC-00042', { ...KEEP, leadingZeros: 'drop' as const }, 'RC-42'],
    ['000', { ...KEEP, leadingZeros: 'drop' as const }, '0'],
    ['rc-0042', { ...KEEP, case: 'upper' as const, separators: 'drop' as const, leadingZeros: 'drop' as const }, 'RC42'],
  ])('%s', (text, form, value) => expect(normalValue(text, form)).toBe(value));

  test('making a value alike twice changes nothing', () => {
    const form = fc.record({
      case: fc.constantFrom('keep' as const, 'lower' as const, 'upper' as const),
      separators: fc.constantFrom('keep' as const, 'drop' as const),
      leadingZeros: fc.constantFrom('keep' as const, 'drop' as const),
      phone: fc.constant(false),
    });
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'aB09-_/ .') }), form, (text, one) => {
        const once = normalValue(text, one);
        expect(normalValue(once, one)).toBe(once);
      }),
    );
  });
});

describe('phone numbers', () => {
  test.each([
    ['+49 30 23125 417', '+493023125417'],
    ['0049 30 23125417', '+493023125417'],
    ['030/23125-417', '+493023125417'],
    ['+49 (0)30 23125417', '+493023125417'],
    ['+1 212 555 0100', '+12125550100'],
    ['23125417', '23125417'],
    ['417', '417'],
  ])('%s', (text, value) => expect(normalPhone(text)).toBe(value));
  test('the country of national numbers can be another one', () => expect(normalPhone('01 23456789', '33')).toBe('+33123456789'));
});
