import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { shapeHash, shapeText } from './shape.ts';

test('messages that differ in numbers, quoted texts and values alone have one shape', () => {
  expect(shapeText('reserve blank B-1.60/70 for LX-204817 took=12 "so it is"')).toBe('reserve blank ‹›/‹› for ‹› took=‹› ‹›');
  expect(shapeHash('duration: 2.913 ms  execute a1')).toBe(shapeHash('duration: 88.1 ms  execute b7'));
  expect(shapeHash('order released')).not.toBe(shapeHash('order refused'));
  expect(shapeHash('failed\n\tat one')).toBe(shapeHash('failed\n\tat two'));
});

test('names of fields in JSON are words, values and what may be an identifier are not', () => {
  expect(shapeText('{"state":"sent","ctx":{"42-a" : 3}}')).toBe('{"state":‹›,"ctx":{‹› : ‹›}}');
  expect(shapeText('said "good morning": twice')).toBe('said "good morning": twice');
  expect(shapeHash('{"a":"x","b":1}')).not.toBe(shapeHash('{"a":"x","c":1}'));
});

test('equal shapes have equal hashes, whatever the text', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: 'grapheme', maxLength: 80 }),
      fc.integer({ min: 0, max: 99_999 }),
      fc.integer({ min: 0, max: 99_999 }),
      (text, a, b) => {
        const first = `step ${a} of ${text.replace(/["\u201c]/g, '')}`;
        const second = `step ${b} of ${text.replace(/["\u201c]/g, '')}`;
        expect(shapeText(first)).toBe(shapeText(second));
        expect(shapeHash(first)).toBe(shapeHash(second));
      },
    ),
  );
});
