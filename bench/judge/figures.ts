/** What is told of each world that is judged. */
export type Figure = 'records' | 'legs' | 'identifiers' | 'faulty' | 'component' | 'record' | 'amongThree' | 'next' | 'slowIn' | 'blamed';
export const FIGURES: readonly (readonly [Figure, string])[] = [
  ['records', 'records, F1'],
  ['legs', 'legs, F1'],
  ['identifiers', 'identifiers, recall'],
  ['faulty', 'outcome of faulty ones'],
  ['component', 'component first'],
  ['record', 'record first'],
  ['amongThree', 'component among three'],
  ['next', 'next that is missing'],
  ['slowIn', 'what was slow'],
  ['blamed', 'good ones told to be faulty'],
];
