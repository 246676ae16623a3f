export { odditiesOf, usuallyFor, type RunFacts, type RunOddity, type Usually } from './against-usual.ts';
export { ROW_ROLES, rowsIn, rowsOf, RowsOfRun, type RowRole, type RowsTold } from './rows-told.ts';
export { duesBetween, lateBetween, missedBetween, nextDue, scheduleOf, scheduleWords, type Schedule } from './schedule.ts';
