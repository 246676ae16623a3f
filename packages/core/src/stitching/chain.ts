/** Why an identifier belongs to a strand: the record that names it together with one that already belonged. */
export interface ChainLink {
  key: number;
  from: number | null;
  /** Opaque reference of the record that tells. */
  record: string | null;
}

/**
 * The chain of evidence from a founding identifier to every other one of its strand, by the earliest records that tie
 * (breadth first over edges in order of time). Keys that no edge reaches stand alone with `from: null`.
 */
export function chains(
  founder: number,
  keys: readonly number[],
  edges: readonly { a: number; b: number; first: number; record: string }[],
): ChainLink[] {
  const byKey = new Map<number, { other: number; first: number; record: string }[]>();
  const add = (key: number, other: number, edge: { first: number; record: string }): void => {
    const list = byKey.get(key);
    if (list) list.push({ other, ...edge });
    else byKey.set(key, [{ other, ...edge }]);
  };
  for (const { a, b, first, record } of edges) {
    add(a, b, { first, record });
    add(b, a, { first, record });
  }
  const wanted = new Set(keys);
  const links = new Map<number, ChainLink>([[founder, { key: founder, from: null, record: null }]]);
  let ring = [founder];
  while (ring.length > 0) {
    const next: number[] = [];
    for (const key of ring) {
      const near = (byKey.get(key) ?? []).filter((edge) => wanted.has(edge.other)).sort((x, y) => x.first - y.first || x.other - y.other);
      for (const edge of near) {
        if (links.has(edge.other)) continue;
        links.set(edge.other, { key: edge.other, from: key, record: edge.record });
        next.push(edge.other);
      }
    }
    ring = next;
  }
  for (const key of keys) if (!links.has(key)) links.set(key, { key, from: null, record: null });
  return [...links.values()];
}
