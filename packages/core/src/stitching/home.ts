import type { IdentifierKind, Mention } from '../identifiers/types.ts';

/**
 * Chooses the identifier by which a record belongs to its strand. Where a record names several business identifiers
 * (a call that asks for an order), the one whose kind acts in this source is the record's own, the others are quoted: a kind acts
 * where it is named alone. Where several act (a desk that works on orders and on claims about them), a lasting link in the record
 * tells by whose it is; else the kind decides that the source names most. What was seen counts from the source's first
 * record on, so the choice depends on the source alone.
 */
export class HomeChooser {
  /** Records so far, by kind: all, and those without another business identifier. */
  private readonly named: number[];
  private readonly alone: number[];

  /** @param seen what `state` of an earlier chooser of the same source told */
  constructor(
    private readonly kinds: readonly IdentifierKind[],
    seen: readonly number[] = [],
  ) {
    this.named = kinds.map((_, index) => seen[index] ?? 0);
    this.alone = kinds.map((_, index) => seen[kinds.length + index] ?? 0);
  }

  /** Index in `mentions` of the home, or -1 when nothing in the record ties. */
  choose(mentions: readonly Mention[]): number {
    const business = this.businessKinds(mentions);
    // what was never named here before may well act
    const acting = business.length < 2 ? business : business.filter((kind) => this.alone[kind]! > 0 || this.named[kind] === 0);
    const link = acting.length > 1 ? this.lastingLink(mentions) : -1;
    const home = link >= 0 ? link : this.mostNamed(mentions, acting.length === 1 ? acting[0]! : -1);
    for (const { kind } of mentions) this.named[kind]!++;
    if (business.length === 1) this.alone[business[0]!]!++;
    return home;
  }

  state(): number[] {
    return [...this.named, ...this.alone];
  }

  /** Business before lasting links before leased ones, shared never; the kind that acts before all. */
  private mostNamed(mentions: readonly Mention[], acting: number): number {
    let best = -1;
    let bestRank = 0;
    let bestCount = -1;
    for (let i = 0; i < mentions.length; i++) {
      const kind = mentions[i]!.kind;
      const rank = kind === acting ? 4 : this.rank(kind);
      if (rank === 0) continue;
      const count = this.named[kind]!;
      if (rank > bestRank || (rank === bestRank && count > bestCount)) {
        best = i;
        bestRank = rank;
        bestCount = count;
      }
    }
    return best;
  }

  private rank(index: number): number {
    const kind = this.kinds[index]!;
    if (kind.role === 'shared') return 0;
    if (kind.role === 'business') return 3;
    return kind.leaseMs === null ? 2 : 1;
  }

  private businessKinds(mentions: readonly Mention[]): number[] {
    const found: number[] = [];
    for (const { kind } of mentions) if (this.kinds[kind]!.role === 'business' && !found.includes(kind)) found.push(kind);
    return found;
  }
  /** The only lasting link that a record names, -1 where there are none or several. */
  private lastingLink(mentions: readonly Mention[]): number {
    let found = -1;
    for (let i = 0; i < mentions.length; i++) {
      if (this.rank(mentions[i]!.kind) !== 2) continue;
      if (found >= 0 && mentions[i]!.key !== mentions[found]!.key) return -1;
      found = i;
    }
    return found;
  }
}
