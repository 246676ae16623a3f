import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 2. The price-list run of 06:30 ends well but read 118 rows in place of about 4,200. */
export const thinPriceList = (day: Micros): Story => ({
  number: 2,
  title: 'price-list job ends well but read 118 rows',
  job: (prefix, at) => (prefix === 'PL' && Math.abs(at - (day + 390 * MINUTE)) < MINUTE ? { story: 2, run: 'PL-0423', rows: 118 } : null),
});
