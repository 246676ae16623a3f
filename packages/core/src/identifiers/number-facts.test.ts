import { describe, expect, test } from '@jest/globals';
import { numberClasses } from './number-classes.ts';
import { factsOf, piecesOf } from './number-facts.ts';
import type { SuggestRecord } from './suggest.ts';

const say = (component: string, text: string, link?: string): SuggestRecord => ({
  component,
  text,
  fields: {},
  known: link === undefined ? [] : [{ role: 'link', value: link, kind: 1 }],
});
/** Orders in the order in which they are given out, each of two records that one link ties, for one of few customers. */
const records = Array.from({ length: 120 }, (_, i) => [
  say('desk', `taken KB-${4000 + i} for CU-${10 + (i % 7)}`, `l-${i}`),
  say('press', `done KB-${4000 + i}`, `l-${i}`),
]).flat();
const classes = numberClasses(records, 5);
const pieces = piecesOf(records, classes);
const facts = (first: string) =>
  factsOf(
    classes.find(({ values }) => values.has(first))!,
    records,
    pieces,
  );

describe('what is tied by links', () => {
  test('is a piece with its records', () => {
    expect(pieces.of(0)).toBe(pieces.of(1));
    expect(pieces.of(0)).not.toBe(pieces.of(2));
    expect(pieces.size(5)).toBe(2);
  });
  test('is none by a link that very many records name', () => {
    const many = Array.from({ length: 100 }, (_, i) => say('desk', `number ${i}`, 'one'));
    expect(piecesOf(many, []).size(0)).toBe(1);
  });
});

describe('how the values of a class behave', () => {
  test('those that are given out one after another rise, name one piece each and come again in several components', () => {
    const [order] = classes.flatMap((one) => (one.values.size === 120 ? [factsOf(one, records, pieces)] : []));
    expect(order).toMatchObject({ rises: true, across: 1, again: 1, recurring: 1, single: 1, alone: 1, far: [], named: 240 });
    expect(order!.byPiece.size).toBe(120);
  });
  test('those that are shared name many pieces, far off from each other', () => {
    const value = [...classes.find(({ values }) => values.size === 7)!.values.keys()][0]!;
    const customer = facts(value);
    expect(customer).toMatchObject({ again: 1, single: 0, across: 0, named: 120 });
    expect(customer.far).toHaveLength(7);
  });
});
