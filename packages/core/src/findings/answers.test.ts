import { describe, expect, test } from '@jest/globals';
import { usualOf, said } from '../usual/testing/legs.ts';
import { answerStatus, reports, turnedAway, turnsAway } from './answers.ts';

describe('the status that a record states', () => {
  test.each([
    ['answered', 'status=404', 404],
    ['answered 12 ms', 'code=S500', NaN],
    ['status 422 in 3 ms', '', 422],
    ['"status": 503', '', 503],
    ['http=200 OK', '', 200],
    ['status 4221', '', NaN],
    ['took 404 ms', '', NaN],
    ['port 500 is closed', '', NaN],
  ])('of %s %s', (message, traits, status) => expect(answerStatus({ message, traits })).toBe(status));
  test('turns away where who asked has to ask otherwise', () =>
    expect([400, 404, 422, 408, 429, 499, 399, 500, NaN].map(turnsAway)).toEqual([true, true, true, false, false, false, false, false, false]));
});

describe('the last answer', () => {
  const door = (status: number) => said(9, 'door', 'answered', { traits: `status=${status}` });
  test('turns a leg away, an earlier one does not', () => {
    expect(turnedAway([said(0, 'shop', 'asked'), door(422)], null)).toBe(1);
    expect(turnedAway([door(422), said(10, 'door', 'answered', { traits: 'status=200' })], null)).toBe(-1);
  });
  test('does not where good ones end so', () => {
    const usual = usualOf(100);
    const seen = { ...usual, sayingOf: () => usual.of.sayings[0]! } as unknown as typeof usual;
    expect(turnedAway([door(404)], seen)).toBe(-1);
  });
});

describe('reports of another one’s answer', () => {
  test('are what states a status of failure, and what names one that another states', () => {
    const records = [
      said(0, 'stock', 'shelf 12 is empty'),
      said(1, 'stock', 'answered', { traits: 'status=500' }),
      said(2, 'shop', 'stock said 500'),
      said(3, 'shop', 'order 500-12 put aside'),
    ];
    expect([...reports(records)]).toEqual([1, 2]);
  });
  test('are no answers of SIP: these are the word of who gives them', () => {
    expect(reports([said(0, 'switch', 'SIP/2.0 488 Not Acceptable Here', { traits: 'status=488' })]).size).toBe(0);
  });
  test('are none where nobody answered so', () => expect(reports([said(0, 'shop', 'read 500 rows')]).size).toBe(0));
});
