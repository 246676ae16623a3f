import { lowerShare } from '../statistics/share.ts';
import type { Edges, Nodes } from './ownership.ts';

/** A kind of link that joins too much to tell transactions apart. */
export interface OverJoining {
  kind: number;
  /** Values that stand beside a business identifier. */
  values: number;
  /** Of those, the ones that stand beside several of one kind. */
  joining: number;
  /** Key of the value that stands beside most, and beside how many. */
  worst: number;
  worstCount: number;
}

/** Values that stand beside several, from which anything is concluded. */
const FEWEST = 5;
/** A link that stands beside several transactions in more than this share of its values names none of them (lower bound of the share, 95 %). */
const MOST_JOINING = 0.1;

/**
 * Kinds of links whose values stand beside several business identifiers of one kind too often: what was declared or discovered to tie one transaction
 * would tie many. Reused values (with a lease) are not judged: they belong to one at a time.
 *
 * @param isLink whether a kind (by its number) is one of links
 * @param mostTogether how many business identifiers of a kind may be one transaction
 */
export function overJoining(
  nodes: Nodes,
  edges: Edges,
  isLink: (kind: number) => boolean,
  mostTogether: (kind: number) => number = () => 1,
): OverJoining[] {
  const first = new Int32Array(nodes.length).fill(-1);
  const partners = new Uint32Array(nodes.length);
  const meet = (link: number, business: number): void => {
    if (!nodes.business[business] || nodes.business[link] || nodes.leased[link] || !isLink(nodes.kind[link]!)) return;
    const known = first[link]!;
    if (known < 0) {
      first[link] = business;
      partners[link] = 1;
    } else if (known !== business && nodes.kind[known] === nodes.kind[business]) partners[link]!++;
  };
  for (let i = 0; i < edges.length; i++) {
    meet(edges.a[i]!, edges.b[i]!);
    meet(edges.b[i]!, edges.a[i]!);
  }
  const byKind = new Map<number, OverJoining>();
  for (let node = 0; node < nodes.length; node++) {
    const count = partners[node]!;
    if (count === 0) continue;
    const kind = nodes.kind[node]!;
    let own = byKind.get(kind);
    if (!own) byKind.set(kind, (own = { kind, values: 0, joining: 0, worst: NaN, worstCount: 0 }));
    own.values++;
    if (count > mostTogether(nodes.kind[first[node]!]!)) own.joining++;
    if (count > own.worstCount || (count === own.worstCount && nodes.key[node]! < own.worst)) {
      own.worst = nodes.key[node]!;
      own.worstCount = count;
    }
  }
  return [...byKind.values()].filter((one) => one.joining >= FEWEST && lowerShare(one.joining, one.values) > MOST_JOINING);
}
