import type { Line } from './lines.ts';
import type { PlanNode } from './types.ts';

const NODE =
  /^(\s*)(->\s+)?([A-Z][\w ,:."()\-[\]']*?)\s+\(cost=([\d.]+)\.\.([\d.]+) rows=(\d+) width=\d+\)(?: \((?:actual(?: time=([\d.]+)\.\.([\d.]+))? rows=([\d.]+) loops=(\d+)|never executed)\))?\s*$/;
const MOST_NODES = 2000;
const LONGEST_NODE = 2000;
const isNode = (text: string): boolean => text.length <= LONGEST_NODE && text.includes('(cost=') && NODE.test(text);

/**
 * A plan of a PostgreSQL server as text, from a line on: the nodes with what was estimated and what was measured. How long each took by itself is its
 * time in all loops without that of the nodes below it.
 */
export function planAt(lines: readonly Line[], first: number): { end: number; nodes: PlanNode[] } | null {
  if (!isNode(lines[first]!.text)) return null;
  const nodes: (PlanNode & { indent: number })[] = [];
  let at = first;
  for (; at < lines.length && nodes.length < MOST_NODES; at++) {
    const { text } = lines[at]!;
    const hit = isNode(text) ? NODE.exec(text) : null;
    const last = nodes[nodes.length - 1];
    if (hit) {
      const [, blanks, arrow, what, , cost, rows, , time, actual, loops] = hit;
      const indent = blanks!.length + (arrow?.length ?? 0);
      if (last && !arrow) break; // another plan
      let depth = 0;
      for (let i = nodes.length - 1; i >= 0; i--)
        if (nodes[i]!.indent < indent) {
          depth = nodes[i]!.depth + 1;
          break;
        }
      const times = loops === undefined ? null : Number(loops);
      nodes.push({
        indent,
        depth,
        what: what!,
        details: [],
        cost: Number(cost),
        rows: Number(rows),
        actualRows: actual === undefined || times === null ? null : Number(actual) * times,
        loops: times,
        totalMs: time === undefined || times === null ? null : Number(time) * times,
        ownMs: null,
      });
    } else if (last && /^\s+\S/.test(text)) last.details.push(text.trim());
    else break;
  }
  nodes.forEach((node, i) => {
    if (node.totalMs === null) return;
    let below = 0;
    for (let k = i + 1; k < nodes.length && nodes[k]!.depth > node.depth; k++)
      if (nodes[k]!.depth === node.depth + 1) below += nodes[k]!.totalMs ?? 0;
    node.ownMs = Math.max(0, node.totalMs - below);
  });
  return { end: at, nodes: nodes.map(({ indent: _indent, ...node }) => node) };
}
