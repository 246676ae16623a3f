export { demoPlan, freePlan, generate, FULL_DAY, type Plan } from './generate.ts';
export { Works } from './works.ts';
export { HUT_FLOWS, HUT_KINDS, HUT_MEANINGS } from './huts/declared.ts';
export { aheadAt, generateHuts, type TrueClock } from './huts/huts.ts';
export { DEMO_ZONE, FLOWS, KINDS, MEANINGS } from './declarations.ts';
export type { Truth } from './writing/sink.ts';
export { f1, Scoring, type Score, type Told } from './scoring/score.ts';
export { LENS_CALC_VERSIONS, lensCalcText, type TextFile } from './source-texts/lens-calc.ts';
