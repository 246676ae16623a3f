import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 15. In the evening the price list of 19:30 begins 17 minutes late, and the invoice export that waits for it nine. */
export const lateJobs = (day: Micros): Story => ({
  number: 15,
  title: 'the price list comes late, and the invoice export with it',
  job: (prefix, at) => {
    if (prefix === 'PL' && Math.abs(at - day - 1170 * MINUTE) < MINUTE) return { story: 15, late: 17 * MINUTE };
    return prefix === 'IE' && Math.abs(at - day - 1190 * MINUTE) < MINUTE ? { story: 15, late: 9 * MINUTE } : null;
  },
});
