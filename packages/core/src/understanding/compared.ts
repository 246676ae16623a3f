import { alike, renewed } from '../clocks/account.ts';
import { estimateClocks } from '../clocks/estimate.ts';
import { isAmiss } from '../clocks/shift.ts';
import { findCopies } from '../copies/find-copies.ts';
import { inAddition } from '../copies/in-addition.ts';
import { coarsenessOf } from '../copies/coarseness.ts';
import { pairUp } from '../copies/pair-up.ts';
import { SHARE } from '../copies/same-events.ts';
import type { ComparedEvidence } from '../copies/sampler.ts';
import { toldOf } from '../copies/told-of.ts';
import type { Told } from '../copies/types.ts';
import type { AmissClock } from '../records/types.ts';
import type { HeldSource } from './held-source.ts';
import { inTime, placeAt } from './in-time.ts';
import type { HeldRecord } from './types.ts';
import { gathered, type Tied } from './woven.ts';

/** Strands whose clocks are looked at, about. */
const ENOUGH = 4000;
/** Strands whose own identifier is named more often say little about clocks. */
const MOST_RECORDS = 300;

/** Clocks that are amiss, of hosts, or of components whose host is not known. */
export function clocksAmiss(sources: readonly HeldSource[], { ownerAt, found, graph, names }: Tied): AmissClock[] {
  const founders = new Set<number>();
  for (let node = 0; node < found.founder.length; node++) if (found.founder[node] === node) founders.add(graph.keyOf(node));
  const known = [...founders].filter((founder) => (names.get(founder)?.count ?? 0) <= MOST_RECORDS);
  const every = Math.max(1, Math.ceil(known.length / ENOUGH));
  const sampled = new Set(known.filter((founder) => founder % every === 0));
  const units: { host: string; component: string }[] = [];
  const numbers = new Map<string, number>();
  const strands = [...gathered(sources, ownerAt, false)]
    .filter(([founder]) => sampled.has(founder))
    .sort(([a], [b]) => a - b)
    .map(([, records]) =>
      records
        .map((one) => ({ ...one, at: one.at - one.shift }))
        .sort((a, b) => a.at - b.at || a.id - b.id)
        .map(({ at, took, host, component, shape, marks, keys }) => {
          const unit = host === '' ? `\0${component}` : host;
          let clock = numbers.get(unit);
          if (clock === undefined) {
            numbers.set(unit, (clock = units.length));
            units.push({ host, component: host === '' ? component : '' });
          }
          return { at, took, clock, shape, marks, keys };
        }),
    );
  const first = Math.min(...sources.map((one) => one.first));
  const last = Math.max(...sources.map((one) => one.last));
  return estimateClocks(strands, units.length).flatMap(({ clock, spans, readings }) => {
    const merged = renewed([], spans, first, last);
    return alike([], merged, readings) || !isAmiss(merged) ? [] : [{ ...units[clock]!, spans: merged }];
  });
}

/** Takes records that are copies of another source's out of sight; what only they tell is told by what is shown for them. */
export async function withoutCopies(sources: readonly HeldSource[]): Promise<void> {
  const spoken = sources.filter((one) => one.records.length > 0);
  const compared = spoken.map(({ index: id, path, family, first, last }) => ({ id, path, family, first, last, grown: true }));
  const copies = await findCopies(compared, evidenceOf(sources, spoken));
  for (const [id, { of }] of copies) moveCopies(sources[id]!, sources[of]!);
}

function evidenceOf(sources: readonly HeldSource[], spoken: readonly HeldSource[]): ComparedEvidence {
  const all = inTime(spoken.flatMap((one) => one.records));
  const own = new Map(spoken.map((one) => [one.index, inTime(one.records)]));
  const MINUTE = 60_000_000;
  return {
    minutes: (source) => {
      const counts = new Map<number, number>();
      for (const { at } of own.get(source)!) {
        const minute = Math.floor(at / MINUTE) * MINUTE;
        counts.set(minute, (counts.get(minute) ?? 0) + 1);
      }
      return Promise.resolve([...counts].map(([minute, count]) => ({ minute, count })));
    },
    timesOf: (source, from, before, most) => {
      const list = own.get(source)!;
      const begin = placeAt(list, from);
      const times: number[] = [];
      for (let i = begin; i < list.length && list[i]!.at < before && times.length < most; i++) times.push(list[i]!.at);
      return Promise.resolve(times);
    },
    records: (from, to, most) => {
      const rows: HeldRecord[] = [];
      for (let i = placeAt(all, from); i < all.length && all[i]!.at <= to && rows.length < most; i++) rows.push(all[i]!);
      return Promise.resolve(
        rows.map((one) => ({ source: one.source, at: one.at, names: one.keys.length, told: toldBy(one, sources[one.source]!) })),
      );
    },
  };
}
const toldBy = (record: HeldRecord, { about }: HeldSource): Told =>
  toldOf({ ...record, at: record.at - record.shift, named: record.component !== about.component });

function moveCopies(copy: HeldSource, original: HeldSource): void {
  const told = ({ records }: HeldSource, source: HeldSource) =>
    records.map((record) => ({ record, told: toldBy(record, source) })).sort((a, b) => a.told.at - b.told.at);
  const [own, others] = [told(copy, copy), told(original, original)];
  const stretch = (all: typeof own) => ({ told: all.map((one) => one.told), coarse: coarsenessOf(all.map((one) => one.told.at)) });
  const places = pairUp(stretch(own), stretch(others));
  const pairs = own.flatMap((one, i) => (places[i]! < 0 ? [] : [{ copy: one.record, original: others[places[i]!]! }]));
  if (pairs.length === 0 || pairs.length < SHARE * own.length) return;
  for (const { copy: one, original: other } of pairs) addTo(other.record, one, other.told.words, original);
  copy.takeOut(pairs.map((one) => ({ copy: one.copy, shown: one.original.record })), original); // prettier-ignore
}
function addTo(record: HeldRecord, copy: HeldRecord, words: Int32Array, source: HeldSource): void {
  const more = inAddition(words, record.fields, copy.fields);
  if (more) record.fields = { ...record.fields, ...more };
  record.keys = [...new Set([...record.keys, ...copy.keys])];
  if (Number.isNaN(record.home)) record.home = copy.home;
  if (Number.isNaN(copy.home) || Number.isNaN(record.home) || record.home === copy.home) return;
  const pair = { a: record.home, b: copy.home, first: record.at, firstId: record.id, last: record.at, count: 1 };
  const pairs = source.named.pairs.get(record.home);
  if (pairs) pairs.push(pair);
  else source.named.pairs.set(record.home, [pair]);
}
