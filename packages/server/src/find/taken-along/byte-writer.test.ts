import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '@fadenweg/core/units';
import { ByteWriter } from './byte-writer.ts';

const YEAR = 366 * 86_400_000_000;

describe('bytes one after another', () => {
  test('are what was added, whatever was added before', () => {
    const part = fc.oneof(
      fc.uint8Array({ maxLength: 80 }).map((bytes) => ({ write: (to: ByteWriter) => to.add(Buffer.from(bytes)), told: Buffer.from(bytes) })),
      fc.maxSafeInteger().map((value) => ({ write: (to: ByteWriter) => to.whole(value), told: Buffer.from(String(value)) })),
      fc.integer({ min: -YEAR, max: 100 * YEAR }).map((at) => ({ write: (to: ByteWriter) => to.instant(at), told: Buffer.from(isoMicros(at)) })),
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 40 }), fc.integer({ min: 1, max: 64 }), (parts, size) => {
        const writer = new ByteWriter(size);
        for (const { write } of parts) write(writer);
        expect(writer.taken()).toEqual(Buffer.concat(parts.map(({ told }) => told)));
        writer.whole(0);
        expect(writer.taken().toString()).toBe('0');
      }),
    );
  });

  test('stay as they were taken when further ones are written', () => {
    const writer = new ByteWriter(16);
    writer.add(Buffer.from('order'));
    const first = writer.taken();
    writer.add(Buffer.from('price'));
    expect(first.toString()).toBe('order');
  });
});
