import { describe, expect, test } from '@jest/globals';
import { arranged } from './arrange.ts';
import { MARK } from './marks.ts';
import { pathOf } from './path.ts';
import type { StrandRecord } from './types.ts';

const record = (ms: number, component: string, took = NaN, marks = 0): StrandRecord => ({
  id: `${component} ${ms}`,
  at: ms * 1000,
  component,
  host: '',
  level: 3,
  marks,
  took: took * 1000,
  message: '',
  shape: 0,
  traits: '',
  keys: [1],
});
const path = (records: StrandRecord[]) => pathOf(arranged(records).records, () => true);

describe('what stands at the begin of what it tells', () => {
  const span = (ms: number, component: string, took: number, failing = 0): StrandRecord => record(ms, component, took, MARK.begins | failing);

  test('lasts from there on, and holds what lies within', () => {
    const { steps, startedAt, endedAt } = path([span(1000, 'desk', 500), span(1100, 'store', 200), record(1150, 'labdb'), record(1700, 'mail')]);
    expect(steps.map((step) => [step.component, step.parent, step.startedAt / 1000, step.endedAt / 1000])).toEqual([
      ['desk', null, 1000, 1500],
      ['store', 1, 1100, 1300],
      ['labdb', 2, 1150, 1150],
      ['mail', 3, 1700, 1700],
    ]);
    expect([startedAt / 1000, endedAt / 1000]).toEqual([1000, 1700]);
  });

  test('takes the same time as where it is told at its end', () => {
    const atEnd = path([record(1150, 'labdb'), record(1300, 'store', 200), record(1500, 'desk', 500)]);
    const atBegin = path([span(1000, 'desk', 500), span(1100, 'store', 200), record(1150, 'labdb')]);
    const told = ({ steps }: typeof atEnd) => steps.map((step) => [step.component, step.startedAt, step.endedAt]).sort();
    expect(told(atBegin)).toEqual(told(atEnd));
    expect([atBegin.startedAt, atBegin.endedAt, atBegin.duration]).toEqual([atEnd.startedAt, atEnd.endedAt, atEnd.duration]);
  });

  test('that lasts beyond all others ends the strand', () => {
    expect(path([span(1000, 'desk', 6400), record(1200, 'store')]).endedAt / 1000).toBe(7400);
  });

  test('failed at its end, behind what failed within', () => {
    const { records, places } = arranged([span(1000, 'desk', 500, MARK.failing), span(1100, 'store', 200, MARK.failing), record(1150, 'labdb', NaN, MARK.failing), record(2000, 'desk')]); // prettier-ignore
    expect(records.map((one) => [one.id, one.at / 1000])).toEqual([['labdb 1150', 1150], ['store 1100', 1300], ['desk 1000', 1500], ['desk 2000', 2000]]); // prettier-ignore
    expect(places).toEqual([2, 1, 0, 3]);
  });
});
