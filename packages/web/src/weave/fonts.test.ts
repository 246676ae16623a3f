import { describe, expect, it } from '@jest/globals';
import { holdsAny } from './fonts.ts';

describe('a range of characters', () => {
  const letters = new Set(['ß', '→'].map((letter) => letter.codePointAt(0)!));
  it('holds a character in one of its parts', () => {
    expect(holdsAny('U+0100-02BA, U+0000-00FF', letters)).toBe(true);
    expect(holdsAny('U+2192', letters)).toBe(true);
    expect(holdsAny('U+21??', letters)).toBe(true);
    expect(holdsAny('U+0400-045F, U+0490', letters)).toBe(false);
  });
  it('holds all where there is none', () => {
    expect(holdsAny('', letters)).toBe(true);
  });
});
