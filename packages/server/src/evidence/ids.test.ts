import { expect, test } from '@jest/globals';
import { founderOfId, strandId } from './identifiers.ts';
import { parseRecordKey, recordKey } from './record-key.ts';

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
