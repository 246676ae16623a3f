import { HOUR, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 9. Between 13:00 and 14:00 messages with one shop's new address cannot be read by dispatch: each goes round three times and ends in the dead queue. */
export const poisonedMessage = (day: Micros): Story => ({
  number: 9,
  title: 'a poisoned message goes round three times and ends in the dead queue',
  queue: (at, queue, { shop }) =>
    queue === 'dispatch.labels' && shop === '0048' && at >= day + 13 * HOUR && at < day + 14 * HOUR ? 'poisoned' : null,
});
