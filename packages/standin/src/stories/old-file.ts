import { HOUR, MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 17. The frame catalogue of 13:15 is made of the file of the evening before. */
export const oldFile = (day: Micros): Story => ({
  number: 17,
  title: 'yesterday’s catalogue once more',
  job: (prefix, at) => (prefix === 'FC' && Math.abs(at - day - 13 * HOUR - 15 * MINUTE) < MINUTE ? { story: 17, older: 24 * HOUR } : null),
});
