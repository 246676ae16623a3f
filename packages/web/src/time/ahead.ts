import { durationWords } from '@fadenweg/core/findings';

/** How a clock was off whose times were corrected by so much: `2.90 s ahead`, `40 ms behind`. */
export const aheadText = (correctedByMs: number): string =>
  `${durationWords(Math.round(Math.abs(correctedByMs) * 1000))} ${correctedByMs < 0 ? 'ahead' : 'behind'}`;
