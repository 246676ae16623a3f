import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 1. A stock sync holds row locks for minutes; orders fail at blank-store after waiting; the order desk shouts the loudest. */
export const stockSyncLocks = (day: Micros): Story => {
  const from = day + 10 * 60 * MINUTE + 36 * MINUTE;
  const to = from + 10 * MINUTE;
  return {
    number: 1,
    title: 'stock sync holds row locks, orders fail at blank-store',
    job: (prefix, at) => (prefix === 'SS' && Math.abs(at - from) < MINUTE ? { story: 1, run: 'SS-7731', holds: to - from } : null),
    reserve: (at, chance) =>
      at > from + 2 * MINUTE && at < to - 9e6 && chance < 0.45 ? { story: 1, kind: 'lock-timeout', holderPid: 4711, xid: 88_213 } : null,
  };
};
