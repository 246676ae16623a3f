import type { Mention } from '@fadenweg/core/identifiers';
import { NamedTogether } from '@fadenweg/core/records';
import type { Batch, Declarations } from '../../evidence/batch.ts';
import { CopyRows } from '../../database/copy-rows.ts';

/** Collects what a batch says about identifiers: where each was seen, and which were named together with the home. */
export class Mentions {
  private named: NamedTogether;

  /** @param room bytes that rows are likely to take */
  constructor(
    private readonly declarations: Declarations,
    private readonly room: number,
  ) {
    this.named = new NamedTogether(declarations.kinds);
  }

  /** A record names these; one of them, by its place, is its home, or none (-1). */
  note(mentions: readonly Mention[], home: number, at: number, id: number): void {
    this.named.note(mentions, home, at, id);
  }

  /** Everything since the last call, as rows and for the weaver. */
  take(sourceId: number): Pick<Batch, 'sightings' | 'edges' | 'seen' | 'tied'> {
    const seen = new Float64Array(this.named.sightings.size * 4);
    const tied = new Float64Array(this.named.pairCount * 4);
    const taken = { sightings: this.sightingRows(sourceId, seen), edges: this.edgeRows(sourceId, tied), seen, tied };
    this.named = new NamedTogether(this.declarations.kinds);
    return taken;
  }

  private sightingRows(sourceId: number, seen: Float64Array): Uint8Array {
    const rows = new CopyRows(this.room);
    let i = 0;
    for (const [key, { kind, scope, value, first, last, count }] of this.named.sightings) {
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
    for (const own of this.named.pairs.values()) {
      for (const { a, b, first, firstId, last, count } of own) {
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
    }
    return rows.finish();
  }
}
