import type { Mention } from '@fadenweg/core/identifiers';
import type { Batch, Declarations } from '../../evidence/batch.ts';
import { CopyRows } from '../../database/copy-rows.ts';

interface Sighting {
  kind: number;
  scope: string;
  value: string;
  first: number;
  last: number;
  count: number;
}
interface Edge {
  a: number;
  b: number;
  first: number;
  firstId: number;
  last: number;
  count: number;
}

/** Collects what a batch says about identifiers: where each was seen, and which were named together with the home. */
export class Mentions {
  private sightings = new Map<number, Sighting>();
  private edges = new Map<number, Edge[]>();
  private edgeCount = 0;

  /** @param room bytes that rows are likely to take */
  constructor(
    private readonly declarations: Declarations,
    private readonly room: number,
  ) {}

  /** A record names these; one of them, by its place, is its home, or none (-1). */
  note(mentions: readonly Mention[], home: number, at: number, id: number): void {
    const homeKey = home < 0 ? 0 : mentions[home]!.key;
    for (let i = 0; i < mentions.length; i++) {
      const { key, kind, scope, value } = mentions[i]!;
      const known = this.sightings.get(key);
      if (known) {
        known.count++;
        if (at > known.last) known.last = at;
        else if (at < known.first) known.first = at;
      } else this.sightings.set(key, { kind, scope, value, first: at, last: at, count: 1 });
      if (home < 0 || i === home || this.declarations.kinds[kind]!.role === 'shared') continue;
      let own = this.edges.get(homeKey);
      if (!own) this.edges.set(homeKey, (own = []));
      const edge = own.find((one) => one.b === key);
      if (!edge) {
        own.push({ a: homeKey, b: key, first: at, firstId: id, last: at, count: 1 });
        this.edgeCount++;
      } else {
        edge.count++;
        if (at > edge.last) edge.last = at;
        else if (at < edge.first) {
          edge.first = at;
          edge.firstId = id;
        }
      }
    }
  }

  /** Everything since the last call, as rows and for the weaver. */
  take(sourceId: number): Pick<Batch, 'sightings' | 'edges' | 'seen' | 'tied'> {
    const seen = new Float64Array(this.sightings.size * 4);
    const tied = new Float64Array(this.edgeCount * 4);
    const taken = { sightings: this.sightingRows(sourceId, seen), edges: this.edgeRows(sourceId, tied), seen, tied };
    this.sightings = new Map();
    this.edges = new Map();
    this.edgeCount = 0;
    return taken;
  }

  private sightingRows(sourceId: number, seen: Float64Array): Uint8Array {
    const rows = new CopyRows(this.room);
    let i = 0;
    for (const [key, { kind, scope, value, first, last, count }] of this.sightings) {
      const kindId = this.declarations.kindIds[kind]!;
      rows.begin(8);
      rows.big(key);
      rows.small(kindId);
      rows.int(sourceId);
      rows.text(scope);
      rows.text(value);
      rows.big(first);
      rows.big(last);
      rows.int(count);
      seen[i++] = key;
      seen[i++] = kindId;
      seen[i++] = first;
      seen[i++] = last;
    }
    return rows.finish();
  }

  private edgeRows(sourceId: number, tied: Float64Array): Uint8Array {
    const rows = new CopyRows(this.room);
    let i = 0;
    for (const { a, b, first, firstId, last, count } of [...this.edges.values()].flat()) {
      rows.begin(7);
      rows.big(a);
      rows.big(b);
      rows.int(sourceId);
      rows.big(first);
      rows.big(firstId);
      rows.big(last);
      rows.int(count);
      tied[i++] = a;
      tied[i++] = b;
      tied[i++] = first;
      tied[i++] = last;
    }
    return rows.finish();
  }
}
