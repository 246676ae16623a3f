import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 16. The invoice export of 21:20 does not begin; the next one does. */
export const missingRun = (day: Micros): Story => ({
  number: 16,
  title: 'an invoice export does not begin',
  job: (prefix, at) => (prefix === 'IE' && Math.abs(at - day - 1280 * MINUTE) < MINUTE ? { story: 16, absent: true } : null),
});
