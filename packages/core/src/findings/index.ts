export * from './types.ts';
export { flowOf } from './flow-of.ts';
export type { Twin } from './doubled.ts';
export { judgeStrand, type JudgedStrand } from './judge-strand.ts';
export { durationWords, firstLine, headline, sentenceText } from './sentence.ts';
