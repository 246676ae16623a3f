import type { Mention } from '../identifiers/types.ts';
import type { Microseconds } from '../units.ts';
import type { Known } from './types.ts';

/** An identifier as a stretch of a source names it. */
export interface Sighting {
  /** Index of its kind. */
  kind: number;
  scope: string;
  value: string;
  first: Microseconds;
  last: Microseconds;
  count: number;
}
/** Two identifiers that records of a stretch name together: a home and what ties to it. */
export interface NamedPair {
  a: number;
  b: number;
  first: Microseconds;
  firstId: number;
  last: Microseconds;
  count: number;
}

/** Collects what a stretch of a source says about identifiers: where each was seen, and which were named together with the home. */
export class NamedTogether {
  /** By key. */
  readonly sightings = new Map<number, Sighting>();
  /** By the home's key. */
  readonly pairs = new Map<number, NamedPair[]>();
  pairCount = 0;

  constructor(private readonly kinds: Known['kinds']) {}

  /** A record names these; one of them, by its place, is its home, or none (-1). */
  note(mentions: readonly Mention[], home: number, at: Microseconds, id: number): void {
    const homeKey = home < 0 ? 0 : mentions[home]!.key;
    for (let i = 0; i < mentions.length; i++) {
      const { key, kind, scope, value } = mentions[i]!;
      const known = this.sightings.get(key);
      if (known) {
        known.count++;
        if (at > known.last) known.last = at;
        else if (at < known.first) known.first = at;
      } else this.sightings.set(key, { kind, scope, value, first: at, last: at, count: 1 });
      if (home >= 0 && i !== home && this.kinds[kind]!.role !== 'shared') this.pair(homeKey, key, at, id);
    }
  }

  private pair(a: number, b: number, at: Microseconds, id: number): void {
    let own = this.pairs.get(a);
    if (!own) this.pairs.set(a, (own = []));
    const pair = own.find((one) => one.b === b);
    if (!pair) {
      own.push({ a, b, first: at, firstId: id, last: at, count: 1 });
      this.pairCount++;
      return;
    }
    pair.count++;
    if (at > pair.last) pair.last = at;
    else if (at < pair.first) {
      pair.first = at;
      pair.firstId = id;
    }
  }
}
