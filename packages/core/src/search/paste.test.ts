import { describe, expect, test } from '@jest/globals';
import { STANDARD_KINDS } from '../identifiers/supplied.ts';
import { KEEP, type IdentifierKind } from '../identifiers/types.ts';
import { isList, listedIn, candidatesIn } from './paste.ts';

const order: IdentifierKind = {
  name: 'order',
  label: 'order',
  role: 'business',
  patterns: ['LX-\\d{6}'],
  fields: [],
  normal: KEEP,
  scope: 'global',
  leaseMs: null,
};
const kinds = [...STANDARD_KINDS, order];
const found = (text: string): string[] =>
  candidatesIn(text, kinds)
    .filter((one) => one.sure || one.kind === 'phone')
    .map((one) => `${one.kind} ${one.value}`);

describe('what a pasted text holds', () => {
  test('a lone order number, with blanks around it', () => expect(found('  LX-204817 \n')).toEqual(['order LX-204817']));
  test('a whole log line: the order first, then what ties', () => {
    expect(
      found('2026-11-24 10:41:58,938 INFO [exec-1] o.b.OrderIntake - registered LX-204817, trace 6f3ca1b2c3d4e5f60718293a4b5c6d7e').slice(0, 2),
    ).toEqual(['order LX-204817', 'trace 6f3ca1b2c3d4e5f60718293a4b5c6d7e']);
  });
  test('fields of a JSON line and of key=value pairs', () => {
    expect(found('{"call":{"callId":"abc@tel"},"n":1}')).toContain('call abc@tel');
    expect(found('… asked call_id=abc@tel-1 ok')).toContain('call abc@tel-1');
  });
  test('a header line of a SIP message', () => expect(found('Call-ID: 97bafc@tel-1.example')).toContain('call 97bafc@tel-1.example'));
  test.each(['030 23125 417', '+49 30 23125-417', '(030) 23125417'])('the phone number %s', (text) =>
    expect(found(text)).toContain('phone +493023125417'),
  );
  test('a lone word may be a value of any kind with fields', () =>
    expect(candidatesIn('abc@tel', kinds).map((one) => `${one.kind} ${one.value} ${one.sure}`)).toContain('call abc@tel false'));
  test('nothing in plain words', () => expect(found('it does not work')).toEqual([]));

  test('a list of identifiers is one, whatever stands between; a sentence or a log line is none', () => {
    expect(listedIn('LX-204817, "LX-204818";LX-204819\nLX-204817\t(LX-204820).')).toEqual(['LX-204817', 'LX-204818', 'LX-204819', 'LX-204820']);
    expect(isList('LX-204817\nLX-204818 LX-204819,LX-204820\n', kinds)).toBe(true);
    expect(isList('LX-204817 LX-204818 LX-204819', kinds)).toBe(false);
    expect(isList('the orders LX-204817 and LX-204818 are late, so is LX-204819', kinds)).toBe(false);
    expect(isList('', kinds)).toBe(false);
  });
});
