import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CopyRows } from './copy-rows.ts';
import { RowReader, rowEnd } from './copy-out.ts';

/** Bytes before the first row. */
const HEAD = 19;
const MOST = Number.MAX_SAFE_INTEGER;
const field = fc.oneof(
  fc.record({ type: fc.constant('small' as const), value: fc.integer({ min: -32_768, max: 32_767 }) }),
  fc.record({ type: fc.constant('int' as const), value: fc.integer({ min: -2_147_483_648, max: 2_147_483_647 }) }),
  fc.record({ type: fc.constant('big' as const), value: fc.oneof(fc.integer({ min: -MOST, max: MOST }), fc.constantFrom(0, -1, MOST, -MOST, 2 ** 32, -(2 ** 32), 2 ** 31)) }), // prettier-ignore
  fc.record({ type: fc.constant('bigs' as const), value: fc.array(fc.integer({ min: -MOST, max: MOST }), { maxLength: 5 }) }),
  fc.record({ type: fc.constant('text' as const), value: fc.string({ unit: 'grapheme', maxLength: 300 }).map((text) => text.replaceAll('\0', '')) }), // prettier-ignore
  fc.record({ type: fc.constant('nothing' as const), value: fc.constant(null) }),
);
type Field = typeof field extends fc.Arbitrary<infer T> ? T : never;
const table = fc.array(fc.array(field, { minLength: 1, maxLength: 12 }), { maxLength: 8 });

function written(rows: readonly (readonly Field[])[]): Buffer {
  const writer = new CopyRows(8);
  for (const row of rows) {
    writer.begin(row.length);
    for (const one of row) {
      if (one.type === 'nothing') writer.nothing();
      else if (one.type === 'text') writer.text(one.value);
      else if (one.type === 'bigs') writer.bigs(one.value);
      else writer[one.type](one.value);
    }
  }
  return writer.finish() as Buffer;
}
function read(reader: RowReader, { type }: Field): Field['value'] {
  if (type === 'nothing') {
    const number = reader.big();
    return Number.isNaN(number) ? null : number;
  }
  return reader[type]();
}

describe('rows in binary COPY format', () => {
  test('are read as they were written, field by field', () => {
    fc.assert(
      fc.property(table, (rows) => {
        const reader = new RowReader();
        reader.buffer = written(rows);
        reader.position = HEAD;
        for (const row of rows) {
          const end = rowEnd(reader.buffer, reader.position);
          reader.position += 2;
          expect(row.map((one) => read(reader, one))).toEqual(row.map(({ value }) => (Object.is(value, -0) ? 0 : value)));
          expect(reader.position).toBe(end);
        }
        // the end of all rows
        expect(reader.buffer.readInt16BE(reader.position)).toBe(-1);
      }),
    );
  });

  test('are whole or told to be cut, wherever they are cut', () => {
    fc.assert(
      fc.property(fc.array(field, { minLength: 1, maxLength: 6 }), (row) => {
        const buffer = written([row]);
        const end = rowEnd(buffer, HEAD);
        expect(end).toBe(buffer.length - 2);
        for (let cut = HEAD; cut < end; cut++) expect([cut, rowEnd(buffer.subarray(0, cut), HEAD)]).toEqual([cut, -1]);
      }),
      { numRuns: 40 },
    );
  });

  test('give nothing as no number, no text and no list', () => {
    const reader = new RowReader();
    reader.buffer = written([[{ type: 'nothing', value: null }, { type: 'nothing', value: null }, { type: 'nothing', value: null }, { type: 'int', value: 7 }]]); // prettier-ignore
    reader.position = HEAD + 2;
    expect([reader.big(), reader.text(), reader.bigs(), reader.int()]).toEqual([NaN, '', [], 7]);
  });
});
