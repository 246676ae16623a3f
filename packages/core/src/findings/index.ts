export * from './types.ts';
export type { Twin } from './doubled.ts';
export { judgeStrand, type JudgedStrand } from './judge-strand.ts';
export { durationWords, firstLine, headline, sentenceText } from './sentence.ts';
