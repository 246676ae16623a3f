import { MARK } from '../path/marks.ts';
import type { Duration } from '../units.ts';
import type { Bound, ClockRecord } from './types.ts';

/** Strands with more records are left out: what belongs to what is not to be told there by counting. */
const MOST_RECORDS = 300;
/** Cases from which a kind of message is judged, and that are looked at together: clocks drift meanwhile. */
const FEWEST = 20;
const TOGETHER = 40;
/** Of what comes behind what is said to come of it, early ones are spread so much wider than late ones. */
const WIDER = 2;

interface Passage {
  from: ClockRecord;
  to: ClockRecord;
}
const kindOf = ({ from, to }: Passage): string => `${from.clock} ${from.shape} ${to.clock} ${to.shape}`;

/** A record that sends and one of another clock that receives, both naming what nobody else of the strand sends or receives. */
function* passages(records: readonly ClockRecord[]): Generator<Passage> {
  const sent = new Map<number, ClockRecord | null>();
  const received = new Map<number, ClockRecord | null>();
  for (const record of records) {
    const into = record.marks & MARK.sends ? sent : record.marks & MARK.receives ? received : null;
    if (into) for (const key of record.keys) into.set(key, into.has(key) ? null : record);
  }
  for (const [key, from] of sent) {
    const to = received.get(key);
    if (from && to && from.clock !== to.clock) yield { from, to };
  }
}

/**
 * Kinds of messages whose times are those of messages. What is under way takes at least a while and now and then much longer: late ones are spread
 * wider than early ones. Where it is the other way round, what is said to receive comes before what is said to send, and names the same for another
 * reason. That needs no clocks that agree, only such as keep their difference for a few dozen messages.
 *
 * @param strands records of one strand each, in any order
 */
export function believableMessages(strands: readonly (readonly ClockRecord[])[]): ReadonlySet<string> {
  const cases = new Map<string, { at: number; took: Duration }[]>();
  for (const records of strands) {
    if (records.length > MOST_RECORDS) continue;
    for (const one of passages(records)) {
      const kind = kindOf(one);
      const own = cases.get(kind) ?? [];
      cases.set(kind, own);
      own.push({ at: one.from.at, took: one.to.at - one.from.at });
    }
  }
  const believable = new Set<string>();
  for (const [kind, own] of cases) {
    if (own.length < FEWEST) continue;
    own.sort((x, y) => x.at - y.at);
    let [early, late] = [0, 0];
    const parts = Math.max(1, Math.floor(own.length / TOGETHER));
    for (let i = 0; i < parts; i++) {
      const took = Float64Array.from(own.slice(Math.floor((i * own.length) / parts), Math.floor(((i + 1) * own.length) / parts)), (one) => one.took).sort(); // prettier-ignore
      const at = (share: number): number => took[Math.min(took.length - 1, Math.floor(took.length * share))]!;
      early += at(0.5) - at(0.05);
      late += at(0.95) - at(0.5);
    }
    if (early <= WIDER * late) believable.add(kind);
  }
  return believable;
}

/** What messages of believable kinds tell: who receives is at least as late as who sends. */
export function messages(records: readonly ClockRecord[], resolution: readonly Duration[], believable: ReadonlySet<string>): Bound[] {
  const bounds: Bound[] = [];
  for (const one of passages(records)) {
    if (!believable.has(kindOf(one))) continue;
    const { from, to } = one;
    const high = to.at + resolution[to.clock]! - from.at;
    bounds.push({ a: from.clock, b: to.clock, atA: from.at, atB: to.at, low: -Infinity, high, likely: false });
  }
  return bounds;
}
