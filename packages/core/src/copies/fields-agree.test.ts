import { describe, expect, it } from '@jest/globals';
import { fieldsAgree } from './fields-agree.ts';
import type { Told } from './types.ts';

const NOTHING = new Int32Array(0);
const told = (fields: Told['fields']): Told => ({ at: 0, words: NOTHING, said: NOTHING, fields, host: '', component: '', named: false });
const pairs = (values: readonly (readonly [unknown, unknown])[]): [Told, Told][] =>
  values.map(([a, b]) => [told({ of: a, own: 1 }), told({ of: b })]);
const ten = (a: (i: number) => unknown, b: (i: number) => unknown) => pairs(Array.from({ length: 10 }, (_, i) => [a(i), b(i)] as const));

describe('fields of one name', () => {
  it('agree where they hold the same, or one holds the other', () => {
    expect(fieldsAgree(ten((i) => i, (i) => String(i)), false)).toBe(true); // prettier-ignore
    expect(fieldsAgree(ten((i) => `192.0.2.${i}:5060`, (i) => `192.0.2.${i}`), false)).toBe(true); // prettier-ignore
  });
  it('agree where one value stands for the other throughout', () => {
    expect(fieldsAgree(ten((i) => (i % 2 ? 'sent' : 'read'), (i) => (i % 2 ? 'out' : 'in')), false)).toBe(true); // prettier-ignore
    // a value that never changes is a word for another one in one program alone
    expect(fieldsAgree(ten(() => 'sent', () => 'out'), true)).toBe(true); // prettier-ignore
    expect(fieldsAgree(ten(() => 'sent', () => 'out'), false)).toBe(false); // prettier-ignore
  });
  it('do not agree where many stand beside one: callers, and the proxy before them', () => {
    expect(fieldsAgree(ten((i) => `198.51.100.${i + 20}`, () => '127.0.0.1'), true)).toBe(false); // prettier-ignore
  });
  it('say nothing in a few pairs', () => {
    expect(fieldsAgree(ten((i) => `198.51.100.${i + 20}`, () => '127.0.0.1').slice(0, 4), true)).toBe(true); // prettier-ignore
  });
});
