import { describe, expect, test } from '@jest/globals';
import { LaneSample } from './lane-sample.ts';

/** Four lines at work at once, one transaction after the other on each; between two names of it a record names nothing. */
function worked(turn: (i: number) => { line: string; of: number }): LaneSample {
  const sample = new LaneSample(undefined);
  for (let i = 0; i < 400; i++) {
    const { line, of } = turn(i);
    sample.note({ ln: line, menu: `m${i % 7}`, ms: i * 13 }, i % 3 === 1 ? 0 : of, false);
  }
  return sample;
}
const line = (i: number): number => (i * 7 + (i >> 2)) % 4;

describe('a field that parts the work as a thread would', () => {
  test('its values come again, and nothing is mixed within one of them', () => {
    expect(worked((i) => ({ line: `L${line(i)}`, of: 1000 * line(i) + 1 + (i >> 5) })).told(true)).toBe('ln');
  });
  test('nothing is told before there is enough, and of too little nothing', () => {
    const sample = new LaneSample(undefined);
    sample.note({ ln: 'L1' }, 1, false);
    expect(sample.told(false)).toBeUndefined();
    expect(sample.told(true)).toBe('');
  });
  test('where transactions are mixed whatever the field says, it parts nothing', () => {
    expect(worked((i) => ({ line: `L${line(i)}`, of: 1 + (i % 5) })).told(true)).toBe('');
  });
  test('where threads are told, or nothing is mixed, none is looked for', () => {
    const threads = new LaneSample(undefined);
    for (let i = 0; i < 400; i++) threads.note({ ln: `L${line(i)}` }, 1000 * line(i) + 1 + (i >> 5), true);
    expect(threads.told(true)).toBe('');
    expect(worked((i) => ({ line: `L${line(i)}`, of: 1 + (i >> 4) })).told(true)).toBe('');
  });
});
