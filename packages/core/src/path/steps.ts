import { beginOf, endOf, standsAtBegin } from './lasting.ts';
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
  /** The last one of each component and host: they are few. */
  const open: Step[] = [];
  const lastSpoken = new Map<Step, number>();
  const spread = spreads(records);
  const named = new Map<Step, Set<number>>();
  /** By index of a record that states a duration: the step that began with it. */
  const begun = new Map<number, Step>();
  for (const { index, begins, ends } of inOrder(records)) {
    const record = records[index]!;
    if (ends) {
      const ended = all[stepOf[index]!]!;
      ended.endedAt = Math.max(ended.endedAt, endOf(record));
      lastSpoken.set(ended, endOf(record));
      continue;
    }
    const place = open.findIndex(({ component, host }) => component === record.component && host === record.host);
    const previous = index > 0 ? all[stepOf[index - 1]!] : undefined;
    // what it says at its end belongs where it began
    let step = begun.get(index) ?? open[place];
    if (step && !begun.has(index) && calledAgain(step, record, all, lastSpoken, named)) step = undefined;
    const again = step && !begun.has(index) && beginsAnew(step, record, records, named) ? step : undefined;
    if (!step || again) {
      const at = begins ? beginOf(record) : record.at;
      const before = again
        ? again.parent === null
          ? undefined
          : all[again.parent - 1]
        : callerOf(record, begins ? keysSince(at, index, records) : record.keys, at, index, records, stepOf, all, spread);
      step = {
        id: all.length + 1,
        leg: 1,
        parent: before?.id ?? null,
        attempt: 1,
        parallel: null,
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
      named.set(step, new Set());
      open[place < 0 ? open.length : place] = step;
      if (begins) begun.set(index, step);
    }
    if (begins) {
      step.startedAt = Math.min(step.startedAt, beginOf(record));
      lastSpoken.set(step, beginOf(record));
      continue;
    }
    for (const key of record.keys) named.get(step)!.add(key);
    step.records.push(index);
    step.endedAt = Math.max(step.endedAt, record.at);
    step.startedAt = Math.min(step.startedAt, record.at);
    lastSpoken.set(step, record.at);
    stepOf[index] = step.id - 1;
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

interface Event {
  index: number;
  /** What it tells of begins, before it is written. */
  begins: boolean;
  /** What it tells of ends, behind where it is written. */
  ends: boolean;
  at: number;
}
/** Records in order; those with a stated duration stand twice: where they were written, and at the other end of it. */
function inOrder(records: readonly StrandRecord[]): Event[] {
  const events: Event[] = [];
  records.forEach((record, index) => {
    if (standsAtBegin(record)) events.push({ index, begins: false, ends: true, at: endOf(record) });
    else if (record.took > 0) events.push({ index, begins: true, ends: false, at: beginOf(record) });
    events.push({ index, begins: false, ends: false, at: record.at });
  });
  return events.sort((a, b) => a.at - b.at || Number(b.begins) - Number(a.begins) || Number(a.ends) - Number(b.ends) || a.index - b.index);
}

/** Whether its caller has spoken since; what goes on under an identifier of its own, which the caller never named, goes on. */
function calledAgain(
  step: Step,
  { keys }: StrandRecord,
  all: readonly Step[],
  lastSpoken: ReadonlyMap<Step, number>,
  named: ReadonlyMap<Step, ReadonlySet<number>>,
): boolean {
  if (step.parent === null) return false;
  const caller = all[step.parent - 1]!;
  if (caller.component === step.component || (lastSpoken.get(caller) ?? 0) <= (lastSpoken.get(step) ?? 0)) return false;
  return !keys.some((key) => named.get(step)!.has(key) && !named.get(caller)!.has(key));
}

/** Whether a component says again what it began with, under another identifier: it was asked once more, though its caller said nothing of it. */
function beginsAnew(
  step: Step,
  { shape, traits, keys }: StrandRecord,
  records: readonly StrandRecord[],
  named: ReadonlyMap<Step, ReadonlySet<number>>,
): boolean {
  const opening = step.records.length > 0 ? records[step.records[0]!] : undefined;
  // several in a row are a list of what it began with
  if (opening?.shape !== shape || opening.traits !== traits || records[step.records.at(-1)!]!.shape === shape) return false;
  return keys.some((key) => !named.get(step)!.has(key)) && opening.keys.some((key) => !keys.includes(key));
}

/** By key, how many records name it. */
function spreads(records: readonly StrandRecord[]): Map<number, number> {
  const spread = new Map<number, number>();
  for (const { keys } of records) for (const key of keys) spread.set(key, (spread.get(key) ?? 0) + 1);
  return spread;
}

/** What a component names from the begin that a record states up to that record: at its begin it may know less than at its end. */
function keysSince(at: number, index: number, records: readonly StrandRecord[]): number[] {
  const { component, host, keys } = records[index]!;
  const found = new Set(keys);
  for (let i = index - 1; i >= 0 && records[i]!.at >= at; i--) {
    const other = records[i]!;
    if (other.component === component && other.host === host) for (const key of other.keys) found.add(key);
  }
  return [...found];
}

/** Who handed over to a record with which a step begins: the last other component that named the rarest identifier which any of them shares with it; else the last that spoke. */
function callerOf(
  { component }: StrandRecord,
  keys: readonly number[],
  at: number,
  index: number,
  records: readonly StrandRecord[],
  stepOf: Int32Array,
  all: readonly Step[],
  spread: ReadonlyMap<number, number>,
): Step | undefined {
  let caller: Step | undefined;
  let rarest = Infinity;
  // none of them can be rarer than this
  const least = Math.min(...keys.map((key) => spread.get(key)!));
  for (let i = index - 1; i >= 0 && !(caller && rarest <= least) && !(caller && keys.length === 0); i--) {
    const other = records[i]!;
    if (stepOf[i]! < 0 || other.at > at || other.component === component) continue;
    caller ??= all[stepOf[i]!];
    for (const key of keys) {
      const own = spread.get(key)!;
      if (own >= rarest || !other.keys.includes(key)) continue;
      rarest = own;
      caller = all[stepOf[i]!];
    }
  }
  return caller;
}
