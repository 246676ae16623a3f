import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { RowReader } from './copy-out.ts';
import { CopyRows } from './copy-rows.ts';
import { layout } from './layout.ts';

const LAYOUT = layout({ id: 'big', kind: 'small', line: 'int', value: 'text', flow: 'text?', took: 'big?', keys: 'bigs', more: 'bigs?' });
/** Bytes before the first row: the head of binary COPY. */
const HEAD = 19;

test('rows are read as they were written, nothing apart from empty', () => {
  const big = fc.maxSafeInteger();
  const row = fc.record({
    id: big,
    kind: fc.integer({ min: -32_768, max: 32_767 }),
    line: fc.integer(),
    value: fc.string({ unit: 'grapheme' }),
    flow: fc.option(fc.string({ unit: 'grapheme' })),
    took: fc.option(big),
    keys: fc.array(big, { maxLength: 5 }),
    more: fc.option(fc.array(big, { minLength: 1, maxLength: 3 })),
  });
  fc.assert(
    fc.property(fc.array(row, { maxLength: 6 }), (rows) => {
      const writer = new CopyRows();
      for (const one of rows) LAYOUT.write(writer, one);
      const reader = new RowReader();
      reader.buffer = Buffer.from(writer.finish());
      reader.position = HEAD;
      for (const one of rows) {
        reader.position += 2;
        expect(LAYOUT.read(reader)).toEqual({
          ...one,
          value: one.value.replaceAll('\0', '\u2400'),
          flow: one.flow?.replaceAll('\0', '\u2400') ?? null,
        });
      }
    }),
  );
});

test('its columns stand in one order everywhere', () => {
  expect(LAYOUT.sql()).toBe('id, kind, line, value, flow, took, keys, more');
  expect(LAYOUT.sql('s').startsWith('s.id, s.kind')).toBe(true);
});
