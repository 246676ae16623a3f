import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fieldValue, keyValues } from './keyvalues.ts';
import type { Fields } from './types.ts';

const of = (text: string): Fields => {
  const fields: Fields = {};
  keyValues(text, fields);
  return fields;
};

describe('key=value pairs in a text', () => {
  test.each<[string, Fields]>([
    ['a=1 b=two', { a: 1, b: 'two' }],
    ['queue=orders.in message=m-7f3a90', { queue: 'orders.in', message: 'm-7f3a90' }],
    ['msg="with blanks" n=2', { msg: 'with blanks', n: 2 }],
    ['msg="says \\"no\\" twice"', { msg: 'says "no" twice' }],
    ['took (n=5), then (m=6);', { n: 5, m: 6 }],
    ['caller="030 23125 417" answered', { caller: '030 23125 417' }],
    ['a.b-c_d=x', { 'a.b-c_d': 'x' }],
    ['open="never closed', { open: 'never closed' }],
    ['=nothing a= b=', {}],
    ['no pairs here', {}],
    ['a=b=c', { a: 'b=c' }],
  ])('%s', (text, fields) => expect(of(text)).toEqual(fields));

  test('names that are wanted apart are collected apart', () => {
    const fields: Fields = {};
    const apart: Fields = {};
    keyValues('ts=1 level=info n=2', fields, { names: new Set(['ts', 'level']), into: apart });
    expect([fields, apart]).toEqual([{ n: 2 }, { ts: 1, level: 'info' }]);
  });

  test('what was written is read again', () => {
    const name = fc.stringMatching(/^[a-z][a-z0-9_.]{0,8}$/);
    const value = fc.string({ unit: 'grapheme-ascii', maxLength: 12 });
    fc.assert(
      fc.property(fc.dictionary(name, value, { maxKeys: 6 }), (wanted) => {
        const text = Object.entries(wanted)
          .map(([key, one]) => `${key}="${one.replace(/[\\"]/g, '\\$&')}"`)
          .join(' ');
        expect(of(text)).toEqual({ ...wanted });
      }),
    );
  });

  test('it never covers more than the text', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'ab= "\\,.1') }), (text) => {
        const covered = keyValues(text, {});
        expect(covered).toBeGreaterThanOrEqual(0);
        expect(covered).toBeLessThanOrEqual(text.length);
      }),
    );
  });
});

describe('values', () => {
  test.each([
    ['12', 12],
    ['-3.5', -3.5],
    ['0417', '0417'],
    ['1e5', '1e5'],
    ['12ms', '12ms'],
    ['true', true],
    ['false', false],
    ['12345678901234567890', '12345678901234567890'],
    ['', ''],
  ])('%s', (text, value) => expect(fieldValue(text)).toBe(value));
});
