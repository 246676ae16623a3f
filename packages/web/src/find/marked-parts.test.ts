import { expect, test } from '@jest/globals';
import { markedParts } from './marked-parts.ts';

const marks = (text: string, ...words: string[]): string => markedParts(text, words).map((part) => (part.word !== null ? `[${part.text}]` : part.text)).join(''); // prettier-ignore

test('words are marked where they occur, whatever their case', () => {
  expect(marks('Lock timeout, lock lost', 'lock', 'TIME')).toBe('[Lock] [time]out, [lock] lost');
  expect(marks('nothing here', 'x')).toBe('nothing here');
  expect(marks('', 'x')).toBe('');
  expect(marks('abc', '')).toBe('abc');
});

test('overlapping words never cover a letter twice', () => {
  const parts = markedParts('timeout', ['time', 'meout', 'out']);
  expect(parts.map((part) => part.text).join('')).toBe('timeout');
  expect(parts.every((part) => part.word !== null)).toBe(true);
});

test('a text whose length changes with its case is left as it is', () => expect(marks('İİ lock', 'lock')).toBe('İİ lock'));
