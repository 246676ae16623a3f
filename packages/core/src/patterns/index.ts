export { patternProblem } from './problem.ts';
