import { MINUTE, SECOND, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 8. From 08:30 to 09:15 calls drop after a transfer: the re-INVITE is answered with 488; others ring too long before an answer. */
export const droppedCalls = (day: Micros): Story => {
  const during = (at: Micros): boolean => at > day + 510 * MINUTE && at < day + 555 * MINUTE;
  return {
    number: 8,
    title: 'calls drop after transfer, 488 after re-INVITE; others ring too long',
    call: (at, chance) => (during(at) && chance < 0.4 ? 'dropped-after-transfer' : null),
    ring: (at, chance) => (during(at) && chance < 0.3 ? 25 * SECOND : null),
  };
};
