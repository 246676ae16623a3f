import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { wayRows } from './ways.ts';

test('in the order of the usual way, others behind what they follow, each with how many pass it', () => {
  const ways = [
    { components: ['portal', 'desk', 'calc'], strands: 250 },
    { components: ['portal', 'desk', 'retry', 'calc'], strands: 2 },
  ];
  expect(wayRows({ ways, usualWay: ['portal', 'desk', 'calc', 'cell'], component: 'calc' })).toEqual([
    { component: 'portal', passed: 252, usual: true, here: false },
    { component: 'desk', passed: 252, usual: true, here: false },
    { component: 'retry', passed: 2, usual: false, here: false },
    { component: 'calc', passed: 252, usual: true, here: true },
    { component: 'cell', passed: null, usual: true, here: false },
  ]);
});

test('each component stands there once', () => {
  const names = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'));
  fc.assert(
    fc.property(fc.array(names, { maxLength: 6 }), names, (ways, usualWay) => {
      const rows = wayRows({ ways: ways.map((components) => ({ components, strands: 1 })), usualWay, component: 'a' });
      expect(new Set(rows.map((one) => one.component)).size).toBe(rows.length);
      expect(new Set(rows.map((one) => one.component))).toEqual(new Set([...ways.flat(), ...usualWay]));
    }),
  );
});
