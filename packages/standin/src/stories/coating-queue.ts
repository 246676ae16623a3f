import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 5. From 15:10 to 15:30 lenses queue up before the coating machine: its work takes as long as ever, waiting for it does not. */
export const coatingQueue = (day: Micros): Story => {
  const [from, to, most] = [day + 910 * MINUTE, day + 930 * MINUTE, 6 * MINUTE];
  return {
    number: 5,
    title: 'coating-cell slows for everyone, a queue builds up',
    coating: (at) => (at < from || at >= to ? null : Math.round(most * (1 - Math.abs((2 * (at - from)) / (to - from) - 1)))),
  };
};
