import { parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import { validJsonTree } from './valid-json.ts';
import { TreeWriter, type FlatTree } from './flat.ts';
import { DEEPEST, MOST_NODES, type Broken, type TreeNode } from './types.ts';

/** A JSON text as a tree; where it is broken, as far as it is understood. Offsets count from `base`. */
export function jsonTree(text: string, base: number): { tree: FlatTree; nodes: number; broken: Broken | null } | null {
  const valid = validJsonTree(text);
  if (valid) return { tree: valid.tree, nodes: valid.nodes, broken: valid.cut ? cutAt(base) : null };
  const errors: ParseError[] = [];
  const root = parseTree(text, errors, { allowTrailingComma: false, disallowComments: true });
  if (!root) return null;
  const out = new TreeWriter('');
  write(root, '', 0, out);
  const first = errors[0];
  const cut = out.count >= MOST_NODES ? cutAt(base) : null;
  return { tree: out.tree(), nodes: out.count, broken: first ? { at: base + first.offset, why: words(printParseErrorCode(first.error)) } : cut };
}

const cutAt = (base: number): Broken => ({ at: base, why: `it has more than ${MOST_NODES.toLocaleString('en')} parts; the first are shown` });

const LEAVES: Partial<Record<Node['type'], TreeNode['kind']>> = { string: 'text', number: 'number', boolean: 'truth' };

function write(node: Node, name: string, depth: number, out: TreeWriter): void {
  const put = (kind: TreeNode['kind'], value: string): number => {
    const at = out.add(name);
    const behind = out.add(value);
    return out.begin(kind, at, behind, behind, behind + value.length);
  };
  if (node.type === 'object' || node.type === 'array') {
    const own = put(node.type === 'object' ? 'object' : 'list', depth >= DEEPEST ? '…' : '');
    if (depth >= DEEPEST) return;
    for (const child of node.children ?? []) {
      if (out.count >= MOST_NODES) break;
      if (node.type === 'array') write(child, '', depth + 1, out);
      else if (child.children?.[1]) write(child.children[1], String(child.children[0]?.value), depth + 1, out);
    }
    out.end(own);
  } else put(LEAVES[node.type] ?? 'nothing', node.type in LEAVES ? String(node.value) : 'null');
}
/** `CommaExpected` → `comma expected`. */
const words = (code: string): string => code.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toLowerCase();
