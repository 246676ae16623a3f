import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Encoding } from './encoding.ts';
import { frame, LONGEST_RECORD, type Frame, type Place } from './framing.ts';
import { guessFormats, openReader, sampleOf } from './registry.ts';

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const CONTEXT = { zone: 'UTC', modified: Date.UTC(2026, 11, 31) * 1000 };

/**
 * All frames of a source, given to the framer in blocks of one size.
 *
 * @param anew the reader is opened again for each block, with what it has saved, as after a restart
 */
function frames(
  bytes: Uint8Array,
  format: string,
  block: number,
  encoding: Encoding = 'utf-8',
  sample = '2026-11-24 10:00:00 INFO a - b',
  anew = false,
): Frame[] {
  const open = (memory?: unknown) => openReader(format, sampleOf('x', sample, true), { ...CONTEXT, memory });
  let reader = open();
  const all: Frame[] = [];
  let place: Place = { byte: 0, line: 1 };
  let reach = block;
  while (place.byte < bytes.length) {
    const chunk = bytes.subarray(place.byte, place.byte + reach);
    const last = place.byte + chunk.length >= bytes.length;
    const next = frame(chunk, place, encoding, reader, last, (one) => all.push(one));
    reach = next.byte === place.byte ? reach + block : block;
    if (last && next.byte === place.byte) throw new Error('nothing was consumed at the end');
    place = next;
    if (anew) reader = open(JSON.parse(JSON.stringify(reader.save?.() ?? null)) ?? undefined);
  }
  return all;
}

const line = fc.oneof(
  fc.constantFrom(
    '2026-11-24 10:00:00 INFO a - begins',
    '\tat some.place(File.java:3)',
    '',
    '{"time":"2026-11-24T10:00:00Z"}',
    'a,"b',
    'c",d',
    'größe 12 µm — ok',
  ),
  fc.string({ unit: 'grapheme' }).map((text) => text.replace(/\n/g, ' ')),
);
const ends = fc.constantFrom('\n', '\r\n');

/** Pieces of documents, whole and broken. */
const piece = fc.constantFrom(
  '<log>',
  '<event t="2026-11-24T10:00:00Z">größe</event>',
  '<event a="x>y"/>',
  '<event><![CDATA[</event>]]></event>',
  '<event><b>',
  '<!-- c -->',
  'text between',
  '</log>\n',
  '{"resourceSpans":[{"resource":{"a":1},"scopeSpans":[{"spans":[',
  '{"name":"a","startTimeUnixNano":"1"}',
  ',',
  ']}]}]}\n',
  '[{"time":"2026-11-24T10:00:00Z","x":"größe }"}',
  ']',
  '{"a":{"b":[1,2]}}\n',
  '"',
  'broken {',
);

describe('framing of documents', () => {
  test.each(['xml-events', 'xes', 'otlp-json', 'json-documents'])('%s: pieces never overlap, and are the same whatever the blocks', (format) => {
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), fc.integer({ min: 1, max: 100 }), (pieces, block) => {
        const bytes = bytesOf(pieces.join(''));
        const sample = '<log><event>2026-11-24T10:00:00Z</event><event>2026-11-24T10:00:00Z</event></log>';
        const whole = frames(bytes, format, bytes.length + 1, 'utf-8', sample);
        let at = 0;
        for (const one of whole) {
          expect(one.byteFrom).toBeGreaterThanOrEqual(at);
          expect(one.byteTo).toBeGreaterThan(one.byteFrom);
          at = one.byteTo;
        }
        expect(at).toBeLessThanOrEqual(bytes.length);
        expect(frames(bytes, format, block, 'utf-8', sample)).toEqual(whole);
        expect(frames(bytes, format, block, 'utf-8', sample, true)).toEqual(whole);
      }),
      { numRuns: 300 },
    );
  });

  test('nothing but markup and white space is left out', () => {
    const text = '<?xml version="1.0"?>\n<log>\n<event>a 10:00:00</event>\nstray words\n<event>b 10:00:00</event>\n</log>\n';
    expect(frames(bytesOf(text), 'xml-events', 9, 'utf-8', text).map((one) => [one.line, one.text.trim()])).toEqual([
      [3, '<event>a 10:00:00</event>'],
      [3, 'stray words'],
      [5, '<event>b 10:00:00</event>'],
    ]);
  });

  test('an element that never ends is cut, and its bytes are kept', () => {
    const text = `<event>${'x'.repeat(LONGEST_RECORD + 10)}`;
    const found = frames(bytesOf(text), 'xml-events', 1 << 20, 'utf-8', text.slice(0, 100));
    expect(found.map((one) => [one.byteFrom, one.byteTo, one.cut])).toEqual([
      [0, LONGEST_RECORD, true],
      [LONGEST_RECORD, text.length, false],
    ]);
  });
});

describe('framing', () => {
  test.each([
    'postgresql-stderr',
    'syslog',
    'table',
    'w3c-extended',
    'http-wire',
    'text',
    'json-lines',
    'postgresql-csvlog',
    'logfmt',
    'plain',
    'sip-trace',
  ])('%s: records tile the input byte for byte, whatever the blocks', (format) => {
    fc.assert(
      fc.property(fc.array(fc.tuple(line, ends), { maxLength: 40 }), fc.integer({ min: 1, max: 200 }), fc.boolean(), (lines, block, ended) => {
        const text = lines.map(([content, end]) => content + end).join('') + (ended ? '' : 'the rest');
        const bytes = bytesOf(text);
        const whole = frames(bytes, format, bytes.length + 1);
        let at = 0;
        for (const one of whole) {
          expect(one.byteFrom).toBe(at);
          at = one.byteTo;
        }
        expect(at).toBe(bytes.length);
        expect(frames(bytes, format, block)).toEqual(whole);
      }),
      { numRuns: 150 },
    );
  });

  test('line numbers count every line from 1, also those inside of records', () => {
    const text = '2026-11-24 10:00:00 ERROR a - failed\n\tat one\n\tat two\n\n2026-11-24 10:00:01 INFO a - next\n';
    expect(frames(bytesOf(text), 'text', 7).map((one) => [one.line, one.text])).toEqual([
      [1, '2026-11-24 10:00:00 ERROR a - failed\n\tat one\n\tat two'],
      [5, '2026-11-24 10:00:01 INFO a - next'],
    ]);
  });

  test('a line that is longer than any record may be is cut, and nothing of it is lost', () => {
    const text = `first\n${'x'.repeat(2 * LONGEST_RECORD + 5)}\nlast\n`;
    const found = frames(bytesOf(text), 'plain', 1 << 20);
    expect(found.map((one) => [one.text.length, one.cut, one.line])).toEqual([
      [5, false, 1],
      [LONGEST_RECORD, true, 2],
      [LONGEST_RECORD, true, 2],
      [5, true, 2],
      [4, false, 3],
    ]);
    expect(frames(bytesOf(text), 'plain', text.length + 1)).toEqual(found);
    expect(found.at(-1)!.byteTo).toBe(text.length);
  });

  test('bytes that are no valid UTF-8 keep their place', () => {
    const bytes = Uint8Array.from([...bytesOf('one\n'), 0xff, 0xfe, 0xc3, 10, ...bytesOf('three\n')]);
    expect(frames(bytes, 'plain', 3).map((one) => [one.byteFrom, one.byteTo])).toEqual([
      [0, 4],
      [4, 8],
      [8, 14],
    ]);
  });

  test('UTF-16 is framed by its own bytes', () => {
    const text = '\uFEFFone\nzwei größer\n';
    const bytes = new Uint8Array(text.length * 2);
    for (let i = 0; i < text.length; i++) bytes.set([text.charCodeAt(i) & 255, text.charCodeAt(i) >> 8], i * 2);
    const found = frames(bytes, 'plain', 10, 'utf-16le');
    expect(found.map((one) => one.text)).toEqual(['one', 'zwei größer']);
    expect(found.at(-1)!.byteTo).toBe(bytes.length);
  });

  test('a format is guessed for anything, and its reader takes anything', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
        const text = lines.join('\n');
        const best = guessFormats(sampleOf('any', text, true))[0]!;
        expect(best.confidence).toBeGreaterThan(0);
        expect(best.confidence).toBeLessThanOrEqual(1);
      }),
      { numRuns: 100 },
    );
  });
});
