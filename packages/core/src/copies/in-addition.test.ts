import { describe, expect, it } from '@jest/globals';
import { inAddition } from './in-addition.ts';
import { wordsOf } from './words.ts';

describe('what a copy tells in addition', () => {
  it('is what is not said yet', () => {
    const words = wordsOf(['order LX-204817 stored', 'worker-3']);
    expect(inAddition(words, { thread: 'worker-3' }, { thread: 'other', name: 'LX-204817', sequence: 17 })).toEqual({ sequence: 17 });
    expect(inAddition(words, {}, { thread: 'worker-3' })).toBe(null);
  });
});
