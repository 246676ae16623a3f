import { expect, test } from '@jest/globals';
import { LEVELS } from '../units.ts';
import { levelOf, levelOfSeverity } from './levels.ts';

test.each([
  ['INFO', 'info'],
  ['warn', 'warning'],
  ['WARNING', 'warning'],
  ['Err', 'error'],
  ['SEVERE', 'error'],
  ['CRITICAL', 'fatal'],
  ['PANIC', 'fatal'],
  ['LOG', 'info'],
  ['finest', 'trace'],
  ['DEBUG3', 'debug'],
  ['orders', 'none'],
  ['', 'none'],
])('%s is %s', (word, level) => expect(LEVELS[levelOf(word)]).toBe(level));

test('severity numbers of RFC 5424', () => {
  expect([0, 1, 2, 3, 4, 5, 6, 7].map((severity) => LEVELS[levelOfSeverity(severity)])).toEqual([
    'fatal',
    'fatal',
    'fatal',
    'error',
    'warning',
    'info',
    'info',
    'debug',
  ]);
});
