import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { pairUp } from './pair-up.ts';
import { APART, COPIES, drawnTellers } from './testing/drawn-tellers.ts';
import type { Stretch } from './types.ts';
import { wordsOf } from './words.ts';

const stretch = (events: readonly (readonly [at: number, text: string])[], coarse = 1000): Stretch => ({
  coarse,
  told: events.map(([at, text]) => ({ at, words: wordsOf([text]), said: wordsOf([text]), fields: {}, host: '', component: '', named: false })),
});

describe('pairs', () => {
  it('are one to one, and near in time', () => {
    fc.assert(
      fc.property(fc.integer(), fc.constantFrom(...COPIES, ...APART), (seed, story) => {
        const { of, among } = drawnTellers(seed, story);
        const pairs = [...pairUp(of, among)];
        const taken = pairs.filter((place) => place >= 0);
        expect(new Set(taken).size).toBe(taken.length);
        pairs.forEach((place, i) => {
          if (place >= 0) expect(Math.abs(among.told[place]!.at - of.told[i]!.at)).toBeLessThanOrEqual(Math.max(of.coarse, among.coarse) + 100_000);
        });
      }),
    );
  });
  it('leave what was written once only: a message that was sent again stays', () => {
    const sent = stretch([[0, 'INVITE of call 417'], [500_000, 'INVITE of call 417'], [900_000, 'bye of call 417']]); // prettier-ignore
    const seen = stretch([[40, 'INVITE of call 417'], [900_020, 'bye of call 417']]); // prettier-ignore
    expect([...pairUp(sent, seen)]).toEqual([0, -1, 1]);
    expect([...pairUp(seen, sent)]).toEqual([0, 2]);
  });
  it('take the nearest of those that are equally alike', () => {
    const coarse = stretch([[3_000_000, 'door opened'], [4_000_000, 'door opened']], 1_000_000); // prettier-ignore
    expect([...pairUp(stretch([[3_900_000, 'door opened']]), coarse)]).toEqual([1]);
  });
  it('find one among very many that are frequent', () => {
    const busy = stretch(Array.from({ length: 5000 }, (_, i) => [i * 10, `stored part of shelf ${i % 7} as ${i}`]));
    expect([...pairUp(stretch([[20_000, 'stored part of shelf 5 as 2000']]), busy)]).toEqual([2000]);
  });
});
