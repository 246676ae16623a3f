export { WordWeights, weightOfWords } from './memo.ts';
export { weightIndex, weightInMarks, weightName, weightOf, weightOfFault, weightOfShape, weightOfStrand, weightSql, withWeight } from './weight.ts';
export { weightWords, WEIGHTS, type Weight, type WeightName, type WeightWord } from './words.ts';
