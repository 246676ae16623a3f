import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { encodedIn } from './encoded.ts';

const texts = (message: string): string[] => encodedIn(message).map(({ how, text }) => `${how}: ${text}`);
const base64 = (text: string): string => Buffer.from(text).toString('base64');

describe('what is encoded in a message', () => {
  it('is told with its place', () => {
    const message = `body=${base64('order LX-204817 für Lindau')} done`;
    const [one] = encodedIn(message);
    expect(one).toMatchObject({ how: 'base64', text: 'order LX-204817 für Lindau' });
    expect(message.slice(one!.from, one!.to)).toBe(base64('order LX-204817 für Lindau'));
  });
  it('may be a token of several parts, an address, bytes in hexadecimal', () => {
    const part = (value: object): string => Buffer.from(JSON.stringify(value)).toString('base64url');
    expect(texts(`token ${part({ alg: 'none' })}.${part({ sub: 'anna', shop: 17 })}.`)).toEqual([
      'base64: {"alg":"none"}',
      'base64: {"sub":"anna","shop":17}',
    ]);
    expect(texts('GET /find?q=caf%C3%A9+noir%26more')).toEqual(['url: /find?q=café noir&more']);
    expect(texts(`raw 0x${Buffer.from('stock is short').toString('hex')};`)).toEqual(['hex: stock is short']);
  });
  it('is nothing in words, numbers of traces, and bytes that are no text', () => {
    expect(texts('Donaudampfschifffahrtsgesellschaft')).toEqual([]);
    expect(texts('trace 4bf92f3577b34da6a3ce929d0e0e4736 of 35f9e5a088f21421ac63623ba3937a51')).toEqual([]);
    expect(texts('100%25 of 50%ZZ and %E0%A4')).toEqual(['url: 100%']);
  });
  it('is what was encoded, whatever it was', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[A-Za-z0-9 ]{12,60}$/), (text) => {
        const found = encodedIn(`x ${base64(text)} y`);
        // a text whose Base64 is hexadecimal as well cannot be told; nothing else may be made of it
        expect(found.every((one) => one.how !== 'base64' || one.text === text)).toBe(true);
        expect(found.length).toBe(1);
      }),
    );
  });
  it('is found in time in two megabytes', () => {
    expect(encodedIn('a%'.repeat(1_000_000)).length).toBe(0);
  });
});
