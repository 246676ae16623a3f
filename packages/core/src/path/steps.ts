import { MARK } from './marks.ts';
import type { Hop, Step, StrandRecord } from './types.ts';

/**
 * Visits to components. Records in order of time; a record that states a duration began that much earlier, and so did its step.
 *
 * A component that speaks again continues its step, unless its caller has spoken in between: then it was called again.
 */
export function steps(records: readonly StrandRecord[]): { steps: Step[]; hops: Hop[]; stepOf: Int32Array } {
  const all: Step[] = [];
  const hops: Hop[] = [];
  const stepOf = new Int32Array(records.length).fill(-1);
  const open = new Map<string, Step>();
  const lastSpoken = new Map<Step, number>();
  for (const { index, begins } of inOrder(records)) {
    const record = records[index]!;
    const place = `${record.component}\u0000${record.host}`;
    const previous = index > 0 ? all[stepOf[index - 1]!] : undefined;
    let step = open.get(place);
    if (step && calledAgain(step, all, lastSpoken)) step = undefined;
    if (!step) {
      const before = previousSpeaker(records, stepOf, all, begins ? record.at - record.took : record.at, index);
      const attempt = all.filter((other) => other.component === record.component && other.parent === (before?.id ?? null)).length + 1;
      step = {
        id: all.length + 1,
        leg: 1,
        parent: before?.id ?? null,
        attempt,
        component: record.component,
        host: record.host,
        startedAt: record.at,
        endedAt: record.at,
        work: 0,
        wait: 0,
        outcome: 'done',
        records: [],
      };
      all.push(step);
      open.set(place, step);
    }
    if (begins) {
      step.startedAt = Math.min(step.startedAt, record.at - record.took);
      lastSpoken.set(step, record.at - record.took);
      continue;
    }
    step.records.push(index);
    step.endedAt = Math.max(step.endedAt, record.at);
    step.startedAt = Math.min(step.startedAt, record.at);
    lastSpoken.set(step, record.at);
    stepOf[index] = all.indexOf(step);
    if (record.marks & MARK.failing) step.outcome = 'failed';
    else if (record.marks & MARK.refusing && step.outcome === 'done') step.outcome = 'refused';
    if (previous && previous !== step) {
      const earlier = records[index - 1]!;
      const by = record.keys.filter((key) => earlier.keys.includes(key));
      hops.push({ from: previous.id, to: step.id, record: index, delay: record.at - earlier.at, by });
    }
  }
  return { steps: all, hops, stepOf };
}

/** Records in order; those with a stated duration stand twice, at their begin and where they were written. */
function inOrder(records: readonly StrandRecord[]): { index: number; begins: boolean }[] {
  const events: { index: number; begins: boolean; at: number }[] = [];
  records.forEach((record, index) => {
    if (record.took > 0) events.push({ index, begins: true, at: record.at - record.took });
    events.push({ index, begins: false, at: record.at });
  });
  return events.sort((a, b) => a.at - b.at || Number(b.begins) - Number(a.begins) || a.index - b.index);
}

function calledAgain(step: Step, all: Step[], lastSpoken: Map<Step, number>): boolean {
  if (step.parent === null) return false;
  const caller = all[step.parent - 1]!;
  return caller.component !== step.component && (lastSpoken.get(caller) ?? 0) > (lastSpoken.get(step) ?? 0);
}

function previousSpeaker(records: readonly StrandRecord[], stepOf: Int32Array, all: Step[], at: number, index: number): Step | undefined {
  for (let i = index - 1; i >= 0; i--) {
    if (stepOf[i]! >= 0 && records[i]!.at <= at && records[i]!.component !== records[index]!.component) return all[stepOf[i]!];
  }
  return undefined;
}
