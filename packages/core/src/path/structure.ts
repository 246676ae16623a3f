import { LEVELS } from '../units.ts';
import { MARK } from './marks.ts';
import type { Step, StrandRecord } from './types.ts';

const WARNING = LEVELS.indexOf('warning');

/**
 * Puts the steps of one leg in their places: which one called which, which are attempts at the same, and which went on side by side. Changes the steps.
 *
 * @param steps in the order in which they began; ids from 1
 * @param records of the leg, in order of time
 */
export function structure(steps: readonly Step[], records: readonly StrandRecord[]): void {
  const keys = steps.map((step) => new Set(step.records.flatMap((index) => records[index]!.keys)));
  for (const step of steps) step.parent = callerOf(step, steps, keys);
  const failing = records.filter(({ marks }) => marks & MARK.failing);
  for (const step of steps) step.attempt = attemptOf(step, steps, records, failing);
  sideBySide(steps);
}

/**
 * Who spoke last before a step began is not its caller if it ended while the step went on, and knows nothing of the step that its own caller does not know:
 * then both were called by the same.
 */
function callerOf(step: Step, steps: readonly Step[], keys: readonly ReadonlySet<number>[]): number | null {
  let { parent } = step;
  while (parent !== null) {
    const candidate = steps[parent - 1]!;
    if (candidate.parent === null || candidate.component === step.component) return parent;
    const crossing = step.startedAt < candidate.endedAt && candidate.endedAt < step.endedAt;
    if (!crossing || isCloser(keys[step.id - 1]!, keys[candidate.id - 1]!, keys[candidate.parent - 1]!)) return parent;
    parent = candidate.parent;
  }
  return parent;
}
/** Whether a step shares an identifier with its candidate that the candidate's caller does not name. */
function isCloser(own: ReadonlySet<number>, candidate: ReadonlySet<number>, caller: ReadonlySet<number>): boolean {
  for (const key of own) if (candidate.has(key) && !caller.has(key)) return true;
  return false;
}

/** A step is a further attempt if the same component was called by the same before, and that failed, ended with a warning, or the caller said that it failed. */
function attemptOf(step: Step, steps: readonly Step[], records: readonly StrandRecord[], failing: readonly StrandRecord[]): number {
  if (step.parent === null) return 1;
  const caller = steps[step.parent - 1]!.component;
  for (let i = step.id - 2; i >= 0; i--) {
    const before = steps[i]!;
    if (before.component !== step.component || before.parent === null || steps[before.parent - 1]!.component !== caller) continue;
    const told = (): boolean => failing.some(({ component, at }) => component === caller && at >= before.endedAt && at <= step.startedAt);
    const warned = (records[before.records.at(-1) ?? -1]?.level ?? 0) >= WARNING;
    return before.outcome === 'failed' || warned || told() ? before.attempt + 1 : 1;
  }
  return 1;
}

/** Several components, or one on several hosts; one that tells its host in one log and not in another is alone. */
const isFork = (members: readonly Step[]): boolean =>
  new Set(members.map((step) => step.component)).size > 1 || new Set(members.map((step) => step.host).filter((host) => host !== '')).size > 1;

/** Numbers groups of steps that have one caller and were under way at the same time. What they handed on to others goes on later, and is no part of it. */
function sideBySide(steps: readonly Step[]): void {
  const byCaller = new Map<number, Step[]>();
  for (const step of steps) {
    step.parallel = null;
    if (step.parent === null) continue;
    const own = byCaller.get(step.parent);
    if (own) own.push(step);
    else byCaller.set(step.parent, [step]);
  }
  let group = 0;
  for (const siblings of byCaller.values()) {
    siblings.sort((a, b) => a.startedAt - b.startedAt || a.id - b.id);
    let members: Step[] = [];
    let until = -Infinity;
    const close = (): void => {
      if (isFork(members)) {
        group++;
        for (const member of members) member.parallel = group;
      }
    };
    for (const step of siblings) {
      if (step.startedAt >= until) {
        close();
        members = [];
      }
      members.push(step);
      until = Math.max(until, step.endedAt);
    }
    close();
  }
}
