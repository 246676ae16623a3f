import { MINUTE, SECOND, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 18. At 16:20 a shop hands its call on to another shop by itself. 19. From 16:40 on three calls of one shop have media one way only: its device names an address of its own network. */
export const handedOn = (day: Micros): Story => ({
  number: 18,
  title: 'a call that the caller hands on',
  calls: [{ at: day + 980 * MINUTE + 12 * SECOND, course: 'handed-on' }],
});
export const oneWay = (day: Micros): Story => ({
  number: 19,
  title: 'one shop is not heard',
  calls: [1000, 1004, 1011].map((minute) => ({ at: day + minute * MINUTE + 7 * SECOND, course: 'one-way' as const })),
});
