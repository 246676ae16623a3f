import type { IdentifierKind, Mention } from '../identifiers/types.ts';

/**
 * Chooses the identifier by which a record belongs to its strand. Where a record names several business identifiers
 * (a call that asks for an order), the one whose kind this source names most is the record's own; the others are quoted.
 * Counts run from the source's first record on, so the choice depends on the source alone.
 */
export class HomeChooser {
  private readonly counts: number[];

  /** @param counts records so far by kind, from `state` of an earlier chooser of the same source */
  constructor(
    private readonly kinds: readonly IdentifierKind[],
    counts: readonly number[] = [],
  ) {
    this.counts = kinds.map((_, index) => counts[index] ?? 0);
  }

  /** Index in `mentions` of the home, or -1 when nothing in the record ties. */
  choose(mentions: readonly Mention[]): number {
    let best = -1;
    let bestRank = 0;
    let bestCount = -1;
    for (let i = 0; i < mentions.length; i++) {
      const kind = mentions[i]!.kind;
      const rank = this.rank(kind);
      if (rank === 0) continue;
      const count = this.counts[kind]!;
      if (rank > bestRank || (rank === bestRank && count > bestCount)) {
        best = i;
        bestRank = rank;
        bestCount = count;
      }
    }
    for (const { kind } of mentions) this.counts[kind]!++;
    return best;
  }

  state(): number[] {
    return [...this.counts];
  }

  /** Business before lasting links before leased ones; shared never. */
  private rank(index: number): number {
    const kind = this.kinds[index]!;
    if (kind.role === 'shared') return 0;
    if (kind.role === 'business') return 3;
    return kind.leaseMs === null ? 2 : 1;
  }
}
