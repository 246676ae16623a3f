import { randomUUID } from 'node:crypto';
import { byteOfId, recordId } from '../evidence/record-id.ts';
import type { Happened } from '../platform/happenings/kinds.ts';

/** Records that were stored in one go. */
export interface Arrival {
  /** Counted from 1 since the server started. */
  number: number;
  /** Ids from the first on, up to but without the second. */
  ids: readonly [number, number];
  firstAt: number;
  lastAt: number;
  count: number;
}
/** So many are remembered for those who come back. */
const REMEMBERED = 20_000;

/** What has come in lately, in the order in which it was stored, for those who watch. */
export class Arrivals {
  private readonly ring: Arrival[] = [];
  private last = 0;
  private readonly listeners = new Set<() => void>();
  private readonly weaving = new Set<() => void>();

  /** @param run tells this start of the server from others */
  constructor(private readonly run = randomUUID().slice(0, 8)) {}

  stored({ source, from, to, records, first, last }: Pick<Happened['batch-stored'], 'source' | 'from' | 'to' | 'records' | 'first' | 'last'>): void {
    if (records === 0) return;
    this.ring.push({ number: ++this.last, ids: [recordId(source, from), recordId(source, to)], firstAt: first, lastAt: last, count: records });
    if (this.ring.length > REMEMBERED * 1.1) this.ring.splice(0, this.ring.length - REMEMBERED);
    for (const listener of this.listeners) listener();
  }
  /** Strands may have changed. */
  woven(): void {
    for (const listener of this.weaving) listener();
  }

  /** What one who watches has seen, as text. */
  placeOf(number: number): string {
    return `${this.run}-${number}`;
  }
  get place(): number {
    return this.last;
  }
  /** The number of a place; null where it is of another start of the server, or is not remembered any more. */
  numberOf(place: string): number | null {
    const [run, number] = place.split('-');
    const wanted = Number(number);
    const first = this.ring[0]?.number ?? this.last + 1;
    return run === this.run && Number.isInteger(wanted) && wanted >= first - 1 && wanted <= this.last ? wanted : null;
  }
  /** What came after a number, at most `most`; null where some of it is not remembered any more. */
  after(number: number, most: number): Arrival[] | null {
    const first = this.ring[0]?.number ?? this.last + 1;
    if (number < first - 1) return null;
    return this.ring.slice(number - first + 1, number - first + 1 + most);
  }

  /** Calls whenever something was stored; answers how to end it. */
  listen(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
  listenToWeaving(listener: () => void): () => void {
    this.weaving.add(listener);
    return () => this.weaving.delete(listener);
  }
}

/** Arrivals of one source behind each other, as one. */
export function joined(arrivals: readonly Arrival[]): (readonly [number, number])[] {
  const ranges: [number, number][] = [];
  for (const { ids } of [...arrivals].sort((a, b) => a.ids[0] - b.ids[0])) {
    const last = ranges.at(-1);
    if (last && last[1] === ids[0] && byteOfId(ids[0]) > 0) last[1] = ids[1];
    else ranges.push([...ids]);
  }
  return ranges;
}
