import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { IdentifierKind, Mention } from '../identifiers/types.ts';
import { HomeChooser } from './home.ts';

const kind = (name: string, role: IdentifierKind['role'], leaseMs: number | null = null): IdentifierKind => ({
  name,
  label: name,
  role,
  scope: 'global',
  leaseMs,
  normal: { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false },
  patterns: [],
  fields: [],
});
const KINDS = [
  kind('order', 'business'),
  kind('claim', 'business'),
  kind('trace', 'link'),
  kind('session', 'link', 900_000),
  kind('phone', 'shared'),
];
const [ORDER, CLAIM, TRACE, SESSION, PHONE] = [0, 1, 2, 3, 4] as const;
const named = (...kinds: number[]): Mention[] => kinds.map((one, i) => ({ kind: one, key: one * 100 + i }) as Mention);
const choose = (chooser: HomeChooser, ...kinds: number[]): number | undefined => {
  const mentions = named(...kinds);
  return mentions[chooser.choose(mentions)]?.kind;
};

describe('by which identifier a record belongs to its strand', () => {
  test.each([
    [[PHONE], undefined],
    [[SESSION, PHONE], SESSION],
    [[SESSION, TRACE], TRACE],
    [[TRACE, SESSION, ORDER], ORDER],
    [[], undefined],
  ] as const)('of %j it is %j', (kinds, home) => expect(choose(new HomeChooser(KINDS), ...kinds)).toBe(home));

  test('of several business identifiers it is that whose kind acts in the source', () => {
    const calls = new HomeChooser(KINDS);
    for (let i = 0; i < 5; i++) choose(calls, CLAIM);
    for (let i = 0; i < 9; i++) expect(choose(calls, ORDER, CLAIM)).toBe(CLAIM);
  });

  test('where several act, a lasting link tells', () => {
    const desk = new HomeChooser(KINDS);
    for (let i = 0; i < 5; i++) choose(desk, ...(i % 2 ? [CLAIM] : [ORDER]));
    expect(choose(desk, ORDER, CLAIM, TRACE)).toBe(TRACE);
    expect(choose(desk, ORDER, CLAIM, SESSION)).toBe(ORDER);
  });

  test('what was seen goes on from its state, wherever the source is cut', () => {
    const records = fc.array(fc.uniqueArray(fc.constantFrom(ORDER, CLAIM, TRACE, SESSION, PHONE), { maxLength: 4 }), { maxLength: 40 });
    fc.assert(
      fc.property(records, fc.nat(40), (list, cut) => {
        const whole = new HomeChooser(KINDS);
        const told = list.map((kinds) => whole.choose(named(...kinds)));
        const first = new HomeChooser(KINDS);
        const parts = list.slice(0, cut).map((kinds) => first.choose(named(...kinds)));
        const second = new HomeChooser(KINDS, structuredClone(first.state()));
        parts.push(...list.slice(cut).map((kinds) => second.choose(named(...kinds))));
        expect(parts).toEqual(told);
        // nobody's phone ever ties, and a business identifier is never left for a lesser one but a lasting link
        list.forEach((kinds, i) => {
          const home = told[i]! < 0 ? undefined : kinds[told[i]!];
          expect(home).not.toBe(PHONE);
          const business = kinds.filter((one) => KINDS[one]!.role === 'business').length;
          if (business === 1) expect(KINDS[home!]!.role).toBe('business');
          if (business > 1) expect([ORDER, CLAIM, TRACE]).toContain(home);
          expect(home === undefined).toBe(kinds.every((one) => one === PHONE));
        });
      }),
    );
  });
});
