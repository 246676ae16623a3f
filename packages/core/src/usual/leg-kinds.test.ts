import { describe, expect, test } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import { beginOf, groupedByBegin } from './leg-kinds.ts';
import { keyOf } from './continuing.ts';
import { said } from './testing/legs.ts';

/** What every leg goes on with, so that three records are its begin. */
const work = (start: number) => Array.from({ length: 12 }, (_, i) => said(start + 2 + i, 'store', `looked up ${'abcdefghijkl'[i]}`));
const ordering = (start: number) => [
  said(start, 'door', 'request'),
  said(start + 1, 'desk', 'order taken'),
  ...work(start),
  said(start + 19, 'door', 'answered'),
];
const asking = (start: number) => [
  said(start, 'door', 'request'),
  said(start + 1, 'desk', 'state asked for'),
  ...work(start),
  said(start + 19, 'door', 'answered'),
];

describe('legs by how they begin', () => {
  const legs = [...Array.from({ length: 30 }, (_, i) => ordering(i * 100)), ...Array.from({ length: 12 }, (_, i) => asking(i * 100))];
  test('are told apart by the rarest of what stands at their begin', () => {
    const groups = groupedByBegin(legs, 10);
    expect(groups.map(({ by, legs }) => [by.component, legs.length])).toEqual([['desk', 30], ['desk', 12]]); // prettier-ignore
    expect(groups[1]!.legs[0]).toBe(30);
  });
  test('of what is told in whole seconds nobody knows what was first in them', () => {
    const second = (start: number, marks: number) => {
      const [desk, door] = [said(start, 'desk', 'label asked for'), { ...said(start, 'door', 'label sent'), marks }];
      return start % 2 === 0 ? [desk, door] : [door, desk];
    };
    const own = (marks: number) =>
      groupedByBegin(
        Array.from({ length: 30 }, (_, i) => second(i * 101, marks)),
        12,
      );
    expect(own(0)).toEqual([]);
    expect(own(MARK.coarse).map(({ legs }) => legs.length)).toEqual([30]);
  });
  test('form no group where they are few, nor where only something common tells the begin', () => {
    expect(groupedByBegin(legs, 20).map(({ by, legs }) => [by.component, legs.length])).toEqual([['desk', 30]]);
    const stuck = Array.from({ length: 14 }, (_, i) => [said(i, 'door', 'request')]);
    expect(groupedByBegin([...legs, ...stuck], 10).map(({ by, count, legs }) => [by.component, count, legs.length])).toEqual([['desk', 30, 30], ['desk', 12, 12]]); // prettier-ignore
  });
  test('are not told by what stands in their middle as often as at their begin', () => {
    const tries = legs.map((leg) => [...leg, said(leg[0]!.at / 1000 + 20, 'desk', 'order taken')]);
    const anywhere = tries.map((leg, i) => (i % 2 ? leg : [said(0, 'door', 'request'), said(1, 'door', 'a'), said(2, 'door', 'b'), ...leg.slice(1)]));
    expect(groupedByBegin(anywhere, 10).some(({ by }) => by.component === 'desk' && by.shape === said(0, 'x', 'order taken').shape)).toBe(false);
  });
  test('are known further on where a clock that is off put something before the begin', () => {
    const begin = said(9, 'desk', 'order taken');
    const early = ['u', 'v', 'w'].map((words, i) => said(i, 'store', `looked up ${words}`));
    expect(beginOf([...early, begin], (key) => (key === keyOf(begin) ? 30 : undefined))).toBe(begin);
    expect(beginOf(early, (key) => (key === keyOf(begin) ? 30 : undefined))).toBeUndefined();
  });
  test('of short legs are told by the first record alone: a step that only some have is no kind', () => {
    const run = (start: number, rejects: boolean) => [
      said(start, 'batch', 'started'),
      said(start + 1, 'batch', 'read all'),
      ...(rejects ? [said(start + 2, 'batch', 'rejected some')] : []),
      said(start + 3, 'batch', 'wrote them'),
    ];
    const groups = groupedByBegin(Array.from({ length: 60 }, (_, i) => run(i * 10, i % 4 === 0)), 10); // prettier-ignore
    expect(groups.map(({ legs }) => legs.length)).toEqual([60]);
  });
});
