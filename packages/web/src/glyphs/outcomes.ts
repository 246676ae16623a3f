import type { Outcome } from '@fadenweg/api';

/** One family of stitches, drawn in a box of 18 by 18 with round ends. None looks like a digit or a letter. */
export const OUTCOME_PATHS: Record<Outcome, string> = {
  done: 'M6 12 L12 6',
  slow: 'M2.5 13 L6 11.2 M8 10.2 L10.5 8.9 M12.2 8 L15.5 6.2',
  failed: 'M2 4 C7 5 11 13 16 14 M2 14 C7 13 11 5 16 4 M2 4 L4 2.5 M16 14 L14.5 16',
  stalled: 'M2 9 H9 M9 9 C11.5 9 12.5 5.5 15.5 4.5 M9 9 H15.5 M9 9 C11.5 9 12.5 12.5 15.5 13.5',
  refused: 'M3 6 H11.5 C15.5 6 15.5 12.5 11.5 12.5 H6.5 M9 10 L6.2 12.5 L9 15',
  odd: 'M2 12 L5.5 6 L8.5 13 L12 4.5 L16 10',
  doubled: 'M3.5 12 L8.5 6 M9.5 12 L14.5 6',
  running: 'M3 15 L12.5 5.5 M12.5 5.5 C14 4 16 5.5 14.6 7 C13.4 8.4 11.4 7 12.5 5.5',
  'out-of-sight': 'M2 11 C5 11 5.5 7 8.5 7 M10.5 7 H11.5 M13.5 7 H14 M16 7 H16.2',
};
export const OUTCOME_WORDS: Record<Outcome, string> = {
  done: 'done',
  slow: 'slow',
  failed: 'failed',
  stalled: 'stalled',
  refused: 'refused',
  odd: 'odd',
  doubled: 'doubled',
  running: 'running',
  'out-of-sight': 'out of sight',
};
/** What each outcome means, for those who meet the word first. */
export const OUTCOME_MEANINGS: Record<Outcome, string> = {
  done: 'reached its end',
  slow: 'reached its end, but took longer than usual in a way that matters',
  failed: 'ended with an error',
  stalled: 'no progress where there should be',
  refused: 'turned away for a business reason',
  odd: 'ended, but with a volume or content that departs',
  doubled: 'processed twice',
  running: 'not ended yet',
  'out-of-sight': 'our evidence begins or ends in the middle',
};
/** Gravest first. */
export const OUTCOMES: Outcome[] = ['failed', 'stalled', 'odd', 'doubled', 'slow', 'refused', 'running', 'out-of-sight', 'done'];
