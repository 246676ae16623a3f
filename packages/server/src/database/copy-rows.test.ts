import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { RowReader } from './copy-out.ts';
import { byteOfId, recordId, sourceOfId } from '../evidence/record-id.ts';
import { CopyRows } from './copy-rows.ts';

/** A reader that stands behind the header and the number of fields of the first row. */
function reader(rows: CopyRows): RowReader {
  const own = new RowReader();
  own.buffer = Buffer.from(rows.finish());
  own.position = 19 + 2;
  return own;
}

describe('rows in binary COPY format', () => {
  test('what is written is read again, over the whole range of whole numbers', () => {
    const whole = fc.integer({ min: -Number.MAX_SAFE_INTEGER, max: Number.MAX_SAFE_INTEGER });
    fc.assert(
      fc.property(
        whole,
        fc.integer({ min: -32768, max: 32767 }),
        fc.string({ unit: 'grapheme' }),
        fc.array(whole, { minLength: 1, maxLength: 5 }),
        (big, small, text, list) => {
          const rows = new CopyRows(32);
          rows.begin(5);
          rows.big(big);
          rows.small(small);
          rows.text(text);
          rows.bigs(list);
          rows.nothing();
          const read = reader(rows);
          expect(read.big() + 0).toBe(big + 0);
          expect(read.small()).toBe(small);
          expect(read.text()).toBe(text.replaceAll('\0', '\u2400'));
          expect(read.bigs().map((one) => one + 0)).toEqual(list.map((one) => one + 0));
          expect(read.big()).toBeNaN();
        },
      ),
    );
  });

  test('a row that outgrows the buffer loses nothing', () => {
    const rows = new CopyRows(20);
    rows.begin(1);
    rows.text('x'.repeat(100_000));
    expect(reader(rows).text()).toHaveLength(100_000);
    expect(rows.count).toBe(1);
  });

  test('an object of plain values is the JSON text that says the same', () => {
    const text = fc.oneof(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'binary' }), fc.string({ minLength: 150, maxLength: 400 }));
    const value = fc.oneof(text, fc.double(), fc.integer(), fc.boolean());
    const storable = (one: string): string => one.replaceAll('\0', '\u2400').replace(/\p{Surrogate}/gu, '\ufffd');
    const names = new Map<string, string>();
    fc.assert(
      fc.property(fc.array(fc.tuple(text, value), { minLength: 1, maxLength: 6 }), (members) => {
        const fields: Record<string, string | number | boolean> = {};
        for (const [name, one] of members) if (name !== '__proto__') fields[name] = one;
        if (Object.keys(fields).length === 0) return;
        const rows = new CopyRows(20, names);
        rows.begin(2);
        rows.object(fields);
        rows.small(7);
        const read = reader(rows);
        const wanted = Object.entries(fields).map(([name, one]) => [
          storable(name),
          typeof one === 'string' ? storable(one) : typeof one === 'number' && !Number.isFinite(one) ? null : one === 0 ? 0 : one,
        ]);
        expect(JSON.parse(read.text())).toEqual(Object.fromEntries(wanted));
        expect(read.small()).toBe(7);
      }),
    );
  });

  test('an object without members is nothing at all', () => {
    const rows = new CopyRows();
    rows.begin(1);
    rows.object({});
    expect(reader(rows).big()).toBeNaN();
  });

  test('bytes are kept as they are', () => {
    const rows = new CopyRows();
    rows.begin(1);
    rows.bytes(Uint8Array.from([0, 255, 10, 13]));
    expect([...rows.finish().subarray(19 + 2 + 4, 19 + 2 + 8)]).toEqual([0, 255, 10, 13]);
  });
});

test('a record’s id tells its source and its place there', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 2 ** 17 - 1 }), fc.integer({ min: 0, max: 2 ** 36 - 1 }), (source, byte) => {
      const id = recordId(source, byte);
      expect(Number.isSafeInteger(id)).toBe(true);
      expect([sourceOfId(id), byteOfId(id)]).toEqual([source, byte]);
    }),
  );
});
