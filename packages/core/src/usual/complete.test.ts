import { describe, expect, test } from '@jest/globals';
import { isComplete } from './complete.ts';
import { Usual } from './index-of.ts';
import { learnUsual } from './learn.ts';
import { dice, lessons, milling, said, usualOf } from './testing/legs.ts';

const usual = usualOf(200);
const leg = milling(dice(4));

describe('a leg that has all that good ones have', () => {
  test('has come to its end, in whatever order it stands', () => {
    expect(isComplete(leg, usual)).toBe(true);
    expect(isComplete([...leg].reverse(), usual)).toBe(true);
  });
  test('has not where one thing lacks', () => {
    for (const lacking of leg) expect(isComplete(leg.filter((one) => one !== lacking), usual)).toBe(false); // prettier-ignore
  });
  test('has where it says it with another result that good ones have too', () => {
    const random = dice(2);
    const both = new Usual(
      learnUsual('milling', lessons(Array.from({ length: 200 }, (_, i) => milling(random, { answer: i % 3 ? 'ok' : 'late' }))))!,
    );
    expect(isComplete(milling(random, { answer: 'late' }), both)).toBe(true);
    expect(isComplete(milling(random, { answer: 'lost' }), both)).toBe(false);
  });
  test('nothing is known where good ones have hardly anything in common', () => {
    const odd = new Usual(
      learnUsual(
        'odd',
        lessons(Array.from({ length: 60 }, (_, i) => [said(i, 'a', 'begun'), said(i + 5, 'a', `word${'abcdefghij'[i % 10]} said`)])),
      )!,
    );
    expect(isComplete([said(0, 'a', 'begun')], odd)).toBe(false);
  });
});
