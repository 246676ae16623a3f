import type { TreeNode } from '@fadenweg/core/structure';

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
/** The parts of a node with their paths. */
function below(parent: string, of: TreeNode): { node: TreeNode; path: string }[] {
  const { children } = of;
  const alike = new Map<string, number>();
  for (const { kind, name } of children) if (kind === 'element') alike.set(name, (alike.get(name) ?? 0) + 1);
  const places = new Map<string, number>();
  return children.map((node) => {
    const { kind, name } = node;
    if (kind === 'attribute') return { node, path: `${parent}/${name}` };
    if (kind !== 'element')
      return { node, path: of.kind === 'list' ? `${parent}[${name}]` : `${parent}${PLAIN.test(name) ? `.${name}` : `[${JSON.stringify(name)}]`}` };
    const place = (places.get(name) ?? 0) + 1;
    places.set(name, place);
    return { node, path: `${parent}/${name}${alike.get(name)! > 1 ? `[${place}]` : ''}` };
  });
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
    if (open) for (const child of below(path, node)) walk(child.node, depth + 1, child.path);
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
    const more = level.reduce((sum, { node }) => sum + node.children.length, 0);
    if (shown + more > SHOWN && shown > 1) {
      for (const { node, path } of level) if (node.children.length > 0) folded.add(path);
      return folded;
    }
    shown += more;
    level = level.flatMap(({ node, path }) => below(path, node));
  }
  return folded;
}
