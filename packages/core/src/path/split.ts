import type { Microseconds } from '../units.ts';
import { beginOf } from './lasting.ts';
import { MARK } from './marks.ts';
import type { Leg, Silence, Step, StrandRecord, TimeKind, TimeShare } from './types.ts';

/** Silences shorter than this are not worth a row of their own, in microseconds. */
const NOTABLE: Microseconds = 500_000;

interface Owner {
  component: string | null;
  kind: TimeKind;
  step: Step | null;
}

/**
 * Gives every instant in which a leg is under way to one owner; what lies between legs is nobody's time. Between two neighbouring moments (records, begins of steps) it is, in this order:
 * a lock wait that a database told of; the queue between a record that sends and the next component; whoever speaks after a delivery; the innermost step
 * that is under way (its work if it spoke last or speaks next, else its waiting for another), or the one that speaks before and behind; else a gap.
 * Adds work and waiting to the steps. The shares add up to the time that the legs cover, exactly.
 */
export function splitTime(
  records: readonly StrandRecord[],
  steps: Step[],
  stepOf: Int32Array,
  legs: readonly Leg[],
): { time: TimeShare[]; silences: Silence[] } {
  const ends = legs.flatMap((leg) => [leg.startedAt, leg.endedAt]);
  const moments = [...new Set([...ends, ...records.map((record) => record.at), ...steps.map((step) => step.startedAt)])].sort((a, b) => a - b);
  const locks = lockWaits(records);
  const shares: TimeShare[] = [];
  const longest = new Map<number, Silence>();
  let next = 0;
  const inOrder = [...steps].sort((a, b) => a.startedAt - b.startedAt);
  let begun = 0;
  let under: Step[] = [];
  for (let i = 0; i + 1 < moments.length; i++) {
    const begin = moments[i]!;
    const end = moments[i + 1]!;
    while (next < records.length && records[next]!.at <= begin) next++;
    if (!legs.some((leg) => leg.startedAt <= begin && leg.endedAt >= end)) continue;
    if (under.some((step) => step.endedAt <= begin)) under = under.filter((step) => step.endedAt > begin);
    for (; begun < inOrder.length && inOrder[begun]!.startedAt <= begin; begun++) if (inOrder[begun]!.endedAt > begin) under.push(inOrder[begun]!);
    const owner = ownerOf(begin, end, records, steps, under, stepOf, next, locks);
    const time = end - begin;
    const share = shares.find(({ component, kind }) => component === owner.component && kind === owner.kind);
    if (share) share.time += time;
    else shares.push({ component: owner.component, kind: owner.kind, time });
    if (owner.step) {
      if (owner.kind === 'work') owner.step.work += time;
      else owner.step.wait += time;
    }
    const silence = longest.get(next);
    if (silence) {
      silence.time += time;
      if (owner.kind !== 'work') Object.assign(silence, { kind: owner.kind, component: owner.component });
    } else if (next > 0) longest.set(next, { before: next, time, kind: owner.kind, component: owner.component });
  }
  return {
    time: shares.sort((a, b) => b.time - a.time),
    silences: [...longest.values()].filter((silence) => silence.time >= NOTABLE && silence.before < records.length),
  };
}

function ownerOf(
  begin: Microseconds,
  end: Microseconds,
  records: readonly StrandRecord[],
  steps: Step[],
  /** Those that are under way, in the order in which they began. */
  under: readonly Step[],
  stepOf: Int32Array,
  next: number,
  locks: LockWait[],
): Owner {
  const lock = locks.find((wait) => wait.from <= begin && wait.to >= end);
  if (lock) return { component: lock.component, kind: 'lock-wait', step: steps[stepOf[lock.record]!] ?? null };
  const before = records[next - 1];
  const after = records[next];
  if (before && after && before.marks & MARK.sends && after.component !== before.component) {
    return { component: before.component, kind: 'queue', step: steps[stepOf[next - 1]!] ?? null };
  }
  if (before && after && before.marks & MARK.sends && after.marks & MARK.receives) {
    return { component: before.component, kind: 'queue', step: steps[stepOf[next - 1]!] ?? null };
  }
  // what was delivered is with whoever speaks next
  const from = before && steps[stepOf[next - 1]!];
  if (before && after && from && before.marks & MARK.receives && after.component !== before.component && handedOn(from, begin, records))
    return { component: after.component, kind: 'work', step: null };
  let innermost: Step | null = null;
  for (const step of under) {
    if (step.startedAt <= begin && step.endedAt >= end && (!innermost || step.startedAt >= innermost.startedAt) && !handedOn(step, begin, records)) innermost = step; // prettier-ignore
  }
  // one that speaks before and behind works in between, also where another that began later goes on afterwards
  const own = before && after && stepOf[next - 1] === stepOf[next] ? steps[stepOf[next]!] : undefined;
  if (own && innermost && innermost.startedAt <= before!.at) innermost = own;
  if (!innermost) return { component: null, kind: 'gap', step: null };
  const speaks = innermost.component === before?.component || innermost.component === after?.component;
  return { component: innermost.component, kind: speaks ? 'work' : 'waiting', step: innermost };
}

/** A broker that has delivered what it was sent does not wait for what becomes of it. */
function handedOn({ records: own }: Step, at: Microseconds, records: readonly StrandRecord[]): boolean {
  let sent = false;
  let delivered = false;
  for (const index of own) {
    const { at: when, marks } = records[index]!;
    if (when > at) break;
    delivered = sent && (marks & MARK.receives) !== 0;
    if (marks & MARK.sends) sent = true;
  }
  return delivered;
}

interface LockWait {
  component: string;
  from: Microseconds;
  to: Microseconds;
  record: number;
}

/** From when a wait began (the record may say how long it had lasted) until the same component speaks again. */
function lockWaits(records: readonly StrandRecord[]): LockWait[] {
  const waits: LockWait[] = [];
  records.forEach((record, index) => {
    if (!(record.marks & MARK.waits)) return;
    const end = records.findIndex((other, i) => i > index && other.component === record.component && other.host === record.host);
    waits.push({
      component: record.component,
      record: index,
      from: beginOf(record),
      to: end < 0 ? record.at : records[end]!.at,
    });
  });
  return waits;
}
