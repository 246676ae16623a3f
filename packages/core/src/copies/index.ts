export { copiesAmong, type CopyFound, type Teller } from './copies-among.ts';
export { inAddition } from './in-addition.ts';
export { LATER, pairUp } from './pair-up.ts';
export { SHARE, tellsTheSame, type Beside } from './same-events.ts';
export type { Stretch, Told } from './types.ts';
export { coarsenessOf } from './coarseness.ts';
export { wordsOf } from './words.ts';
