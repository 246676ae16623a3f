export { problemsOf, type RunbookProblem } from './check.ts';
export { filledSearch, filledText, findingText } from './fill.ts';
export { SUPPLIED_RUNBOOKS } from './supplied.ts';
export { MOST_TIMES, MOST_VALUES, type Blank, type FindingPart, type Runbook, type RunbookStep, type StepLook, type StepSum } from './types.ts';
