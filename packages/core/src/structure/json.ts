import { parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import { validJsonTree } from './valid-json.ts';
import { DEEPEST, MOST_NODES, type Broken, type TreeNode } from './types.ts';

/** A JSON text as a tree; where it is broken, as far as it is understood. Offsets count from `base`. */
export function jsonTree(text: string, base: number): { root: TreeNode; nodes: number; broken: Broken | null } | null {
  const valid = validJsonTree(text);
  if (valid) return { root: valid.root, nodes: valid.nodes, broken: valid.cut ? cutAt(base) : null };
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { allowTrailingComma: false, disallowComments: true });
  if (!tree) return null;
  const budget = { left: MOST_NODES };
  const root = nodeOf(tree, '', 0, budget);
  const first = errors[0];
  const cut = budget.left <= 0 ? cutAt(base) : null;
  return { root, nodes: MOST_NODES - budget.left, broken: first ? { at: base + first.offset, why: words(printParseErrorCode(first.error)) } : cut };
}

const cutAt = (base: number): Broken => ({ at: base, why: `it has more than ${MOST_NODES.toLocaleString('en')} parts; the first are shown` });

function nodeOf(node: Node, name: string, depth: number, budget: { left: number }): TreeNode {
  budget.left--;
  const leaf = (kind: TreeNode['kind'], value: string): TreeNode => ({ name, kind, value, children: [] });
  switch (node.type) {
    case 'object':
    case 'array': {
      const children: TreeNode[] = [];
      const own = { name, kind: node.type === 'object' ? ('object' as const) : ('list' as const), value: '', children };
      if (depth >= DEEPEST) return { ...own, value: '…' };
      for (const [i, child] of (node.children ?? []).entries()) {
        if (budget.left <= 0) break;
        if (node.type === 'array') children.push(nodeOf(child, String(i), depth + 1, budget));
        else if (child.children?.[1]) children.push(nodeOf(child.children[1], String(child.children[0]?.value), depth + 1, budget));
      }
      return own;
    }
    case 'string':
      return leaf('text', String(node.value));
    case 'number':
      return leaf('number', String(node.value));
    case 'boolean':
      return leaf('truth', String(node.value));
    default:
      return leaf('nothing', 'null');
  }
}
/** `CommaExpected` → `comma expected`. */
const words = (code: string): string => code.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toLowerCase();
