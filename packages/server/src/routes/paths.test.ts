import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { founderOfId, strandId } from '../repositories/identifiers.ts';
import { parseRecordKey, recordKey } from '../services/present.ts';
import { cleanPath } from './imports.ts';

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

test('a record’s id in the API is read again; anything else is none', () => {
  expect(parseRecordKey(recordKey({ at: 1_795_513_318_912_345, id: 68_719_476_800 }))).toEqual({ at: 1_795_513_318_912_345, id: 68_719_476_800 });
  for (const text of ['', '1', 'a-b', '1-2-3', '-1-2', '1-'.repeat(20)]) expect(parseRecordKey(text)).toBeNull();
});

test('a strand’s id names its founder, also where the value holds colons', () => {
  expect(strandId('order', '', 'LX-1')).toBe('order:LX-1');
  expect(strandId('session', 'host-1', 'a:b')).toBe('session@host-1:a:b');
  expect(founderOfId('session@host-1:a:b')).toBe(founderOfId(strandId('session', 'host-1', 'a:b')));
  expect(founderOfId('session:a:b')).not.toBe(founderOfId('session@host-1:a:b'));
  expect(founderOfId('no colon')).toBeNull();
  expect(founderOfId('UPPER:x')).toBeNull();
});
