import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 10. The order file of 09:40 is delivered once more twelve minutes later; its orders are doubled. */
export const doubledFile = (day: Micros): Story => ({
  number: 10,
  title: 'the same order file is delivered twice',
  again: (at) => (Math.abs(at - (day + 580 * MINUTE)) < MINUTE ? at + 12 * MINUTE : null),
});
