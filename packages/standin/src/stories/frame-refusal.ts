import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 6. From 16:10 to 16:40 the supplier of frames refuses in the body of an answer with status 200; the order stalls two components later. */
export const frameRefusal = (day: Micros): Story => ({
  number: 6,
  title: 'frame-gate answers 200 with a refusal in the body',
  frame: (at, chance) => (at >= day + 970 * MINUTE && at < day + 1000 * MINUTE && chance < 0.6 ? 'withdrawn' : null),
});
