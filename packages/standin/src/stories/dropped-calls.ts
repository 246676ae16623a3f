import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 8. From 08:30 to 09:15 calls drop after a transfer: the re-INVITE is answered with 488. */
export const droppedCalls = (day: Micros): Story => ({
  number: 8,
  title: 'calls drop after transfer, 488 after re-INVITE',
  call: (at, chance) => (at > day + 510 * MINUTE && at < day + 555 * MINUTE && chance < 0.4 ? 'dropped-after-transfer' : null),
});
