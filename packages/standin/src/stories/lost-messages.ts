import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 3. From 11:10 to 11:16 messages for the surfacing cell vanish in the broker without an error. */
export const lostMessages = (day: Micros): Story => ({
  number: 3,
  title: 'messages between relay and surfacing-cell vanish without an error',
  queue: (at, queue) => (queue === 'surfacing.jobs' && at >= day + 670 * MINUTE && at < day + 676 * MINUTE ? 'lost' : null),
});
