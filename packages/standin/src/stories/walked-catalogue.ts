import { HOUR, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

/** 7. One shop has a catalogue of many thousand frames since this morning; the order desk walks through all of it once for each frame. */
export const walkedCatalogue = (day: Micros): Story => ({
  number: 7,
  title: 'one shop is slow, order-desk walks through its whole frame catalogue',
  catalogue: (at, shop) => (shop === '0159' && at >= day + 6 * HOUR ? 5212 : null),
});
