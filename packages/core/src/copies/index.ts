export type { CopyFound } from './copies-among.ts';
export { coarsenessOf } from './coarseness.ts';
export { findCopies } from './find-copies.ts';
export { inAddition } from './in-addition.ts';
export { LATER, pairUp } from './pair-up.ts';
export { SHARE } from './same-events.ts';
export type { ComparedEvidence, ComparedRecord, ComparedSource } from './sampler.ts';
export { toldOf } from './told-of.ts';
export type { Stretch, Told } from './types.ts';
