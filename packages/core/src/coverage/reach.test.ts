import { expect, test } from '@jest/globals';
import { endOf, EVERYWHERE, reachOf } from './reach.ts';

const MINUTE = 60_000_000;
const at = (minute: number): number => minute * MINUTE;
const span = (component: string, from: number, to: number) => ({ component, from: at(from), to: at(to) });

test('a hole lies between two sources and before the first; not within one, nor behind the last', () => {
  const reach = reachOf([span('store', 10, 60), span('store', 120, 180), span('desk', 0, 180)], at(5));
  expect(reach('store', at(30), at(5))).toEqual({ kind: 'there' });
  expect(reach('store', at(90), at(5))).toEqual({ kind: 'hole', from: at(60), to: at(120) });
  expect(reach('store', at(2), at(5))).toEqual({ kind: 'hole', from: null, to: at(10) });
  expect(reach('store', at(200), at(5))).toEqual({ kind: 'there' });
  expect(reach('desk', at(90), at(5))).toEqual({ kind: 'there' });
  expect(reach('relay', at(90), at(5))).toEqual({ kind: 'unknown' });
  expect(EVERYWHERE('store', 0, 0)).toEqual({ kind: 'there' });
});

test('what is shorter than a silence that tells anything is none', () => {
  const reach = reachOf([span('store', 0, 60), span('store', 64, 90)], at(5));
  expect(reach('store', at(62), at(5))).toEqual({ kind: 'there' });
  // it was to come before the evidence begins
  expect(reachOf([span('store', 3, 90)], at(5))('store', at(0), at(2))).toEqual({ kind: 'hole', from: null, to: at(3) });
  expect(reachOf([span('store', 3, 90)], at(5))('store', at(0), at(5))).toEqual({ kind: 'there' });
});

test('how far some components reach, others tell nothing of', () => {
  const reach = reachOf([span('store', 10, 60), span('desk', 0, 90), span('gate', 0, 900)], at(5));
  expect(endOf(['store', 'desk'], at(900), reach)).toBe(at(90));
  expect(endOf(['store', 'gate'], at(500), reach)).toBe(at(500));
  expect(endOf(['nobody'], at(900), reach)).toBe(at(900));
  expect(endOf(['store'], at(900), EVERYWHERE)).toBe(at(900));
});
