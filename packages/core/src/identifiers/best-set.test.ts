import { describe, expect, test } from '@jest/globals';
import { bestSet } from './best-set.ts';
import type { SuggestRecord } from './suggest.ts';

const hex = (i: number): string => `${((i + 3) * 2654435761) % 4294967296}`.padStart(10, '7').slice(0, 4) + (((i + 7) * 40503) >>> 0).toString(16).padStart(8, 'a').slice(-8); // prettier-ignore
/** Orders with a check letter, each through three components, with a request number that only two of them write; a shop that many share; an order is spelled without signs by the last. */
function trade(count: number): SuggestRecord[] {
  const letters = 'ABCDEFGH';
  return Array.from({ length: count }, (_, i): SuggestRecord[] => {
    const order = `KB-${204_000 + i * 3}-${letters[i % 8]!}`;
    const say = (component: string, text: string): SuggestRecord => ({ component, text, fields: {}, known: [] });
    return [
      say('door', `asked by shop-${100 + (i % 9)} request ${hex(i)}`),
      say('desk', `taken ${order} request ${hex(i)}`),
      say('desk', `stored ${order}`),
      say('press', `done ${order.toLowerCase().replaceAll('-', '')} in ${i % 50} ms`),
      say('press', 'idle'),
    ];
  }).flat();
}

describe('the set that names transactions best', () => {
  test('what comes again in several components and is alone in what long numbers tie together, in all its spellings', () => {
    const best = bestSet(trade(200))!;
    const [first] = best.kinds;
    expect(best.kinds.filter((one) => one.role === 'business')).toHaveLength(1);
    expect(first).toMatchObject({ role: 'business', normal: { case: 'upper', separators: 'drop' } });
    expect(first!.patterns.some((pattern) => new RegExp(`^(?:${pattern})$`).test('KB-204123-Z'))).toBe(true);
    expect(first!.patterns.some((pattern) => new RegExp(`^(?:${pattern})$`).test('kb204123z'))).toBe(true);
    expect(best.transactions).toBe(200);
    expect(best.components).toEqual(['desk', 'door', 'press']);
    // all but those that idle, as far as request and order tie them
    expect(best.share).toBeCloseTo(0.8, 1);
  });
  test('of what nothing comes again, and of little, there is none', () => {
    expect(bestSet(trade(10))).toBeNull();
    expect(bestSet(trade(200).filter(({ component }) => component === 'door').map((one) => ({ ...one, text: 'asked' })))).toBeNull(); // prettier-ignore
  });
  test('customers that come again with other orders are shared, orders that are asked for much later are not', () => {
    const records = Array.from({ length: 400 }, (_, i): SuggestRecord[] => {
      const customer = `C${1000 + ((i * 7919) % 131)}`;
      const say = (component: string, text: string): SuggestRecord => ({ component, text, fields: {}, known: [] });
      const earlier = i - 90;
      return [
        say('door', `order WB${52_000 + i * 2} of ${customer} request ${hex(i)}`),
        say('desk', `order WB${52_000 + i * 2} of ${customer} request ${hex(i)}`),
        ...(i % 3 === 0 && earlier >= 0 ? [say('door', `asked for WB${52_000 + earlier * 2}`), say('desk', `told WB${52_000 + earlier * 2}`)] : []),
      ];
    }).flat();
    const roles = bestSet(records)!.kinds.map(({ patterns, role }) => [patterns[0]!.slice(0, 2), role]);
    expect(roles).toEqual([['WB', 'business'], ['C\\', 'shared']]); // prettier-ignore
  });
  test('what is given out in no order names what nothing else does, or ties', () => {
    const records = Array.from({ length: 200 }, (_, i): SuggestRecord[] => {
      const say = (component: string, text: string): SuggestRecord => ({ component, text, fields: {}, known: [] });
      const [plot, claim] = [`FL-${30_000 + ((i * 7919) % 9973)}`, `GT-${40_000 + ((i * 6007) % 9967)}`];
      return [
        say('door', `order WB${52_000 + i} on ${plot} request ${hex(i)}`),
        say('desk', `order WB${52_000 + i} on ${plot} request ${hex(i)}`),
        say('door', `claim ${claim} request ${hex(i + 1000)}`),
        say('desk', `claim ${claim} request ${hex(i + 1000)}`),
      ];
    }).flat();
    const roles = bestSet(records)!.kinds.map(({ patterns, role }) => [patterns[0]!.slice(0, 2), role]);
    expect(new Map(roles as [string, string][])).toEqual(new Map([['WB', 'business'], ['GT', 'business'], ['FL', 'link']])); // prettier-ignore
  });
});
