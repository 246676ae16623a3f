import type { TreeNode } from '@fadenweg/core';

export interface TreeRow {
  node: TreeNode;
  depth: number;
  /** As in JSONPath (RFC 9535) or XPath: `$.lenses[0].sph`, `/answer/code[2]/@kind`. */
  path: string;
  open: boolean;
}
/** Trees are opened to begin with as far as so many rows show. */
const SHOWN = 60;

const PLAIN = /^[A-Za-z_]\w*$/;
function pathOf(parent: string, of: TreeNode, child: TreeNode, siblings: readonly TreeNode[]): string {
  if (child.kind === 'attribute') return `${parent}/${child.name}`;
  if (child.kind === 'element') {
    const alike = siblings.filter((one) => one.name === child.name);
    return `${parent}/${child.name}${alike.length > 1 ? `[${alike.indexOf(child) + 1}]` : ''}`;
  }
  if (of.kind === 'list') return `${parent}[${child.name}]`;
  return PLAIN.test(child.name) ? `${parent}.${child.name}` : `${parent}[${JSON.stringify(child.name)}]`;
}
export const rootPath = (root: TreeNode): string => (root.kind === 'element' ? `/${root.name}` : '$');

/** The rows of a tree in their order. Folded nodes are named by their paths; with `wanted` only what holds it in a name or value shows, with what it stands in. */
export function treeRows(root: TreeNode, folded: ReadonlySet<string>, wanted = ''): TreeRow[] {
  const small = wanted.trim().toLowerCase();
  const holds = new Map<TreeNode, boolean>();
  const look = (node: TreeNode): boolean => {
    let own = node.name.toLowerCase().includes(small) || node.value.toLowerCase().includes(small);
    for (const child of node.children) own = look(child) || own;
    holds.set(node, own);
    return own;
  };
  if (small !== '') look(root);
  const rows: TreeRow[] = [];
  const walk = (node: TreeNode, depth: number, path: string): void => {
    if (small !== '' && !holds.get(node)) return;
    const open = small !== '' || !folded.has(path);
    rows.push({ node, depth, path, open });
    if (open) for (const child of node.children) walk(child, depth + 1, pathOf(path, node, child, node.children));
  };
  walk(root, 0, rootPath(root));
  return rows;
}

/** Nodes that are folded to begin with: those of the deepest levels that would make the list too long. */
export function foldedAtFirst(root: TreeNode): Set<string> {
  const folded = new Set<string>();
  let level: { node: TreeNode; path: string }[] = [{ node: root, path: rootPath(root) }];
  let shown = 1;
  while (level.length > 0) {
    const next = level.flatMap(({ node, path }) => node.children.map((child) => ({ node: child, path: pathOf(path, node, child, node.children) })));
    if (shown + next.length > SHOWN && shown > 1) {
      for (const { node, path } of level) if (node.children.length > 0) folded.add(path);
      return folded;
    }
    shown += next.length;
    level = next;
  }
  return folded;
}
