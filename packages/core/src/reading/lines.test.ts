import { expect, test } from '@jest/globals';
import { lineStarts } from './lines.ts';

const wide = (text: string, order: 'le' | 'be'): Uint8Array => {
  const bytes = Buffer.from(text, 'utf16le');
  return order === 'le' ? bytes : bytes.swap16();
};

test('lines begin behind line feeds', () => {
  expect(lineStarts(Buffer.from('a\nbc\r\n\nd'), 'utf-8')).toEqual([0, 2, 6, 7]);
  expect(lineStarts(Buffer.from(''), 'utf-8')).toEqual([0]);
  expect(lineStarts(Buffer.from('a\nb\nc\n'), 'windows-1252', 2)).toEqual([0, 2]);
});
test('in UTF-16 a byte that looks like one is none', () => {
  // U+0A00 and U+000A hold the same bytes in the two orders
  expect(lineStarts(wide('\u0a00x\ny', 'le'), 'utf-16le')).toEqual([0, 6]);
  expect(lineStarts(wide('\u0a00x\ny', 'be'), 'utf-16be')).toEqual([0, 6]);
  expect(lineStarts(wide('\u010a\u0a01', 'le'), 'utf-16le')).toEqual([0]);
});
