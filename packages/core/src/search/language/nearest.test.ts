import { expect, test } from '@jest/globals';
import { nearestName } from './nearest.ts';

const KNOWN = ['component', 'level', 'outcome', 'order', 'sqlstate', 'shop'];
test.each([
  ['componet', 'component'],
  ['compoennt', 'component'],
  ['LEVEL', 'level'],
  ['oder', 'order'],
  ['sql_state', 'sqlstate'],
  ['shpo', 'shop'],
  ['banana', null],
  ['x', null],
])('%s means %s', (name, meant) => expect(nearestName(name, KNOWN)).toBe(meant));
