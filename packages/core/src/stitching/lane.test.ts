import { expect, test } from '@jest/globals';
import { LaneFinder } from './lane.ts';

test('records of one thread and process have one number, those of others another, those that name none have none', () => {
  const finder = new LaneFinder();
  const lane = finder.laneOf({ thread: 'exec-3', pid: 17 });
  expect(finder.laneOf({ pid: 17, rows: 4, thread: 'exec-3' })).toBe(lane);
  expect(finder.laneOf({ thread: 'exec-3' })).not.toBe(lane);
  expect(finder.laneOf({ thread: 'exec-4', pid: 17 })).not.toBe(lane);
  expect(finder.laneOf({ thread: '17', pid: 'exec-3' })).not.toBe(lane);
  expect(finder.laneOf({ rows: 3, reading: 'x' })).toBeNull();
});
test.each(['thread_name', 'threadName', 'process.thread.thread-name', 'process.pid', 'Process_ID', 'procid'])('%s names who worked', (name) => {
  expect(new LaneFinder().laneOf({ [name]: 'a' })).toEqual(expect.any(Number));
});
