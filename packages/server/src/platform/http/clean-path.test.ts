import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cleanPath } from './clean-path.ts';

test.each([
  ['order-desk/a.log', 'order-desk/a.log'],
  ['../../etc/passwd', 'etc/passwd'],
  ['/abs/olute.log', 'abs/olute.log'],
  ['C:\\logs\\app.log', 'C:/logs/app.log'],
  ['a/./b/../c.log', 'a/b/c.log'],
  ['bad\u0000na\nme', 'badname'],
  ['', 'unnamed'],
  ['..', 'unnamed'],
])('the path %j is kept as %j', (path, clean) => expect(cleanPath(path)).toBe(clean));

test('no path leads out of its folder', () => {
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom(...'./\\a\u0000\n') }), (path) => {
      const clean = cleanPath(path);
      expect(clean.split('/')).not.toContain('..');
      expect(clean.startsWith('/')).toBe(false);
      expect(clean.length).toBeGreaterThan(0);
    }),
  );
});
