export { compileRules, HEARTBEATS, searchOfFaults, SETTLED_FAULTS, SUPPLIED_RULES, type QuietRule } from './rules.ts';
export { recurring, searchOfRecurring, type Recurring, type Series } from './recurrence.ts';
