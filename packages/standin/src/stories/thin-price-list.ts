import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 2. The price-list run of 06:30 ends well but read 118 rows in place of about 4,200; invoice exports lack prices until the next one. */
export const thinPriceList = (day: Micros): Story => {
  const from = day + 390 * MINUTE;
  return {
    number: 2,
    title: 'price-list job ends well but read 118 rows',
    job: (prefix, at) => {
      if (prefix === 'PL' && Math.abs(at - from) < MINUTE) return { story: 2, run: 'PL-0423', rows: 118 };
      return prefix === 'IE' && at > from && at < from + 60 * MINUTE ? { story: 2, priceless: 23 } : null;
    },
  };
};
