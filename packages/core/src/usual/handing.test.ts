import { describe, expect, test } from '@jest/globals';
import { handedAgain, hands } from './handing.ts';
import { said } from './testing/legs.ts';

const record = (component: string, ...keys: number[]) => said(0, component, 'x', { keys });

describe('what is handed on in a leg', () => {
  test('is what one names first and another component names later', () => {
    expect(hands([record('desk', 1), record('desk', 1, 2), record('stamp', 2), record('desk', 1)])).toEqual([
      { record: 0, taker: null },
      { record: 1, taker: 2 },
    ]);
  });

  test('is taken up by the first other one, of several names by the earliest of them', () => {
    const records = [record('desk', 1, 2, 3), record('stamp', 3), record('clerk', 2), record('stamp', 2)];
    expect(hands(records)).toEqual([{ record: 0, taker: 1 }]);
  });

  test('is nothing where only the same component goes on with it', () => {
    expect(hands([record('desk', 1), record('desk', 1)])).toEqual([{ record: 0, taker: null }]);
    expect(hands([])).toEqual([]);
  });
});

describe('components that were handed something more than once', () => {
  const again = (...records: ReturnType<typeof record>[]) => [...handedAgain(records, hands(records))];
  test('are those that took up two names, each of which somebody else had made', () => {
    expect(again(record('desk', 1), record('desk', 2), record('stamp', 1), record('stamp', 2))).toEqual(['stamp']);
  });
  test('not those that took up one name often, nor two different ones', () => {
    expect(again(record('desk', 1), record('stamp', 1), record('stamp', 1))).toEqual([]);
    expect(again(record('desk', 1), record('desk', 2), record('stamp', 1), record('clerk', 2))).toEqual([]);
  });
});
