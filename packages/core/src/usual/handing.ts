import type { StrandRecord } from '../path/types.ts';

/** A record that names something for the first time in its leg, and the record of another component that takes it up. */
export interface Handing {
  /** Index of the record. */
  record: number;
  /** Null where nobody else names any of it. */
  taker: number | null;
}

/** What is handed on in a leg: records that name identifiers which none before them names, and who else names these. */
export function hands(records: readonly StrandRecord[]): Handing[] {
  const first = new Map<number, number>();
  const taker = new Map<number, number>();
  records.forEach(({ component, keys }, index) => {
    for (const key of keys) {
      const from = first.get(key);
      if (from === undefined) first.set(key, index);
      else if (!taker.has(key) && records[from]!.component !== component) taker.set(key, index);
    }
  });
  const found = new Map<number, number | null>();
  for (const [key, record] of first) {
    const by = taker.get(key) ?? null;
    const known = found.get(record) ?? null;
    found.set(record, by === null ? known : known === null ? by : Math.min(by, known));
  }
  return [...found].map(([record, by]) => ({ record, taker: by }));
}

/** Components to which others handed something more than once in a leg, each time under another name. */
export function handedAgain(records: readonly StrandRecord[], handings: readonly Handing[]): ReadonlySet<string> {
  const once = new Set<string>();
  const again = new Set<string>();
  for (const { record, taker } of handings) {
    if (taker === null) continue;
    const { component } = records[taker]!;
    if (records[record]!.component !== component) (once.has(component) ? again : once).add(component);
  }
  return again;
}
