import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { piecesOf } from './pieces.ts';

test('pieces are the text again, each short, none cuts a character in two', () => {
  const part = fc.constantFrom('a', ' ', '\n', '😀', 'word ', 'x'.repeat(3000), '😀'.repeat(900));
  fc.assert(
    fc.property(fc.array(part, { maxLength: 200 }), (parts) => {
      const text = parts.join('');
      const pieces = piecesOf(text);
      expect(pieces.join('')).toBe(text);
      if (pieces.length === 1) return expect(text.length).toBeLessThanOrEqual(40_000);
      for (const piece of pieces) {
        expect(piece.length).toBeLessThanOrEqual(4000);
        expect(piece).not.toMatch(/[\ud800-\udbff]$/);
      }
    }),
  );
});
