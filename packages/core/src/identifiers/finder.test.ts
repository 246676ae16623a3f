import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Finder } from './finder.ts';
import { identifierKey } from './hash.ts';
import { normalPhone } from './normal.ts';
import { STANDARD_KINDS } from './supplied.ts';
import { KEEP, type IdentifierKind } from './types.ts';

const order: IdentifierKind = {
  name: 'order',
  label: 'order',
  role: 'business',
  patterns: ['LX-\\d{4,6}'],
  fields: ['orderNumber'],
  normal: KEEP,
  scope: 'global',
  leaseMs: null,
};
const kinds = [...STANDARD_KINDS, order];
const found = (text: string, fields: Record<string, string> = {}, host = 'h1'): string[] =>
  new Finder(kinds).find(text, fields, host).map((one) => `${kinds[one.kind]!.name} ${one.value}`);

describe('finding identifiers', () => {
  test('an order number that begins another one is not confused with it', () => {
    expect(found('handed LX-2048 over')).toEqual(['order LX-2048']);
    expect(found('handed LX-204817 over')).toEqual(['order LX-204817']);
    expect(found('handed LX-20481799 over')).toEqual([]);
    expect(found('XLX-204817 and LX-204817_b')).toEqual([]);
    expect(found('(LX-204817), "LX-204818";')).toEqual(['order LX-204817', 'order LX-204818']);
  });

  test('a trace is found in a trace context, alone, and in fields, and is one key', () => {
    const trace = '6f3ca1b2c3d4e5f60718293a4b5c6d7e';
    const keyed = (text: string, fields = {}): number[] => new Finder(kinds).find(text, fields, '').map((one) => one.key);
    expect(keyed(`trace 00-${trace}-00f067aa0ba902b7-01`)).toEqual([identifierKey('trace', '', trace)]);
    expect(keyed(`registered, trace ${trace}, ok`)).toEqual([identifierKey('trace', '', trace)]);
    expect(keyed('', { 'http.traceId': trace.toUpperCase() })).toEqual([]);
    expect(keyed('', { request: trace })).toEqual([identifierKey('trace', '', trace)]);
    expect(keyed(`x${trace}`)).toEqual([]);
  });

  test('a run of characters is found wherever it stands, and only where it stands alone', () => {
    const hex = fc.string({ unit: fc.constantFrom(...'0123456789abcdef'), minLength: 32, maxLength: 32 });
    const around = fc.string({ unit: fc.constantFrom(...' .,;=()[]"\'xyz\n'), maxLength: 60 });
    fc.assert(
      fc.property(around, hex, around, (before, value, after) => {
        const alone = !/[\w]$/.test(before) && !/^[\w]/.test(after);
        expect(found(before + value + after).includes(`trace ${value}`)).toBe(alone);
      }),
    );
  });

  test('phone numbers in every notation are one party', () => {
    for (const text of [
      '030 23125 417',
      '+49 30 23125417',
      '0049 (30) 23125-417',
      '030/23125417',
      '+49 (0)30 23125 417',
      '493023125417'.replace(/^49/, '+49'),
    ]) {
      expect(normalPhone(text)).toBe('+493023125417');
    }
    expect(normalPhone('417')).toBe('417');
    expect(found('From: <sip:+493023125417@voice.example>', { caller: '030 23125 417' })).toEqual(['phone +493023125417']);
  });

  test('values that are too long to be identifiers are left alone', () => {
    expect(found('', { 'call-id': 'x'.repeat(10_000) })).toEqual([]);
  });

  test('the scope of a kind sets equal values of two hosts apart', () => {
    const local: IdentifierKind = { ...order, name: 'session', patterns: [], fields: ['sid'], scope: 'host' };
    const key = (host: string): number => new Finder([local]).find('', { sid: '7' }, host)[0]!.key;
    expect(key('h1')).not.toBe(key('h2'));
    expect(key('h1')).toBe(identifierKey('session', 'h1', '7'));
  });

  test('one record never names the same identifier twice', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('LX-2048', 'LX-204817', ' ', ',', 'x')), (parts) => {
        const all = found(parts.join(' '), { orderNumber: 'LX-2048' });
        expect(new Set(all).size).toBe(all.length);
      }),
    );
  });
});

test('a Call-ID behind that word in a text is one; an address of mail, and a header that belongs to no call, are none', () => {
  const finder = new Finder(STANDARD_KINDS);
  const calls = (text: string): string[] => finder.find(text, {}, '').filter(({ kind }) => STANDARD_KINDS[kind]!.name === 'call').map(({ value }) => value); // prettier-ignore
  expect(calls('call 1-14453@127.0.0.1 put on')).toEqual(['1-14453@127.0.0.1']);
  expect(calls('bridged call-id=a84b4c76e66710@pc33.example (desk)')).toEqual(['a84b4c76e66710@pc33.example']);
  expect(calls('CallID=f81d4fae-7dec@foo.example, CALL 9@x')).toEqual(['f81d4fae-7dec@foo.example']);
  expect(calls('please call anna@shop.example; recall 7@x; callback for k3 done')).toEqual([]);
  expect(calls('REGISTER sip:x SIP/2.0\nCall-ID: 843817637684230@998sdasdh09')).toEqual([]);
  // the value of a field is one whatever it looks like
  expect(finder.find('', { callid: 'plain' }, '').map(({ value }) => value)).toEqual(['plain']);
});
