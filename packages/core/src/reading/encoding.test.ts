import { describe, expect, test } from '@jest/globals';
import { decode, guessEncoding, looksBinary } from './encoding.ts';

const bytes = (...codes: number[]): Uint8Array => Uint8Array.from(codes);
const ascii = (text: string): number[] => [...text].map((char) => char.charCodeAt(0));

describe('encodings', () => {
  test('UTF-8, Latin and UTF-16 are told apart by their first bytes', () => {
    expect(guessEncoding(bytes(...ascii('plain')))).toBe('utf-8');
    expect(guessEncoding(bytes(...ascii('Pr'), 0xc3, 0xbc, ...ascii('fung')))).toBe('utf-8');
    expect(guessEncoding(bytes(...ascii('Pr'), 0xfc, ...ascii('fung der Sache')))).toBe('windows-1252');
    expect(guessEncoding(bytes(0xff, 0xfe, 0x41, 0))).toBe('utf-16le');
    expect(guessEncoding(bytes(0xfe, 0xff, 0, 0x41))).toBe('utf-16be');
  });
  test('a character that the sample cuts off does not make it Latin', () => {
    expect(guessEncoding(bytes(...ascii('some words'), 0xe2, 0x82))).toBe('utf-8');
  });
  test('broken sequences become the replacement character, one line break stays one', () => {
    expect(decode(bytes(0x41, 0xff, 0x0a, 0x42), 'utf-8')).toBe('A\ufffd\nB');
  });
  test('binary data is recognised, a log with a few odd bytes is not', () => {
    expect(looksBinary(Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) % 256))).toBe(true);
    expect(looksBinary(bytes(...ascii('a\tb\r\n\u001b[31mred\u001b[0m\n'), 0, 1))).toBe(false);
    expect(looksBinary(bytes())).toBe(false);
    expect(looksBinary(bytes(0xff, 0xfe, 0x41, 0, 0x42, 0, 0x43, 0, 0x44, 0, 0x45, 0, 0x46, 0, 0x47, 0))).toBe(false);
  });
});
