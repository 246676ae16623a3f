import { expect, test } from '@jest/globals';
import { Patience } from './patience.ts';

test('after half a minute without any change it is said what is waited for, once', () => {
  let now = 0;
  const said: string[] = [];
  const patience = new Patience((words) => said.push(words), () => now); // prettier-ignore
  const seconds = (from: number, to: number, state: string, waits: string[]): void => {
    for (now = from * 1000; now < to * 1000; now += 300) patience.sees(state, waits);
  };
  seconds(0, 20, 'reading 5', ['reading 2 sources']);
  seconds(20, 49, 'reading 6', ['reading 1 source']);
  expect(said).toEqual([]);
  seconds(49, 90, 'reading 6', ['reading 1 source']);
  expect(said).toEqual(['waiting: reading 1 source']);
  seconds(90, 95, 'reading 6', ['Working out strands', 'Ending an import']);
  expect(said).toEqual(['waiting: reading 1 source', 'waiting: Working out strands; Ending an import']);
  seconds(95, 140, 'away', []);
  expect(said.at(-1)).toBe('waiting for the server');
});
