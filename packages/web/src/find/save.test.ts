import { expect, test } from '@jest/globals';
import { csv } from './save.ts';

test('cells are quoted where they need it, and none becomes a formula', () => {
  expect(csv([['a', 'b "c"', 'd,e', 'f\ng']])).toBe('a,"b ""c""","d,e","f\ng"\r\n');
  expect(csv([['=1+1'], ['+49'], ['-5'], ['-x'], ['@a']])).toBe("'=1+1\r\n'+49\r\n-5\r\n'-x\r\n'@a\r\n");
});
