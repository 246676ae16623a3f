export { odditiesOf, usuallyFor, type RunFacts, type RunOddity, type Usually } from './against-usual.ts';
export { scheduleProblem, type DeclaredSchedule } from './declared-schedule.ts';
export { ROW_ROLES, rowsIn, rowsOf, RowsOfRun, type RowRole, type RowsTold } from './rows-told.ts';
export { duesBetween, lateBetween, missedBetween, nextDue, scheduleFrom, scheduleOf, scheduleWords, type Schedule } from './schedule.ts';
