import type { TreeNode } from './types.ts';

const KINDS = ['object', 'list', 'text', 'number', 'truth', 'nothing', 'element', 'attribute'] as const satisfies TreeNode['kind'][];
const PLACES = Object.fromEntries(KINDS.map((kind, i) => [kind, i])) as Record<TreeNode['kind'], number>;
const LIST = PLACES.list;
const ATTRIBUTE = PLACES.attribute;
/** Numbers for each node: its kind, the number of the node behind all that is below it, and where its name and its value begin and end in the text. */
const EACH = 6;
const [KIND, END, NAME, VALUE] = [0, 1, 2, 4];

/** A tree as one long array, each node before what is below it: worked out without an object for each, and handed from a worker to the page at once. */
export interface FlatTree {
  cells: Uint32Array;
  /** What is in a list has no name in it, the name of an attribute no `@`. */
  text: string;
}

/** Cells that nobody writes to: a small tree is done before new ones would be at hand. */
let spare: Uint32Array | null = null;

/** Writes a tree node after node; names and values are told by where they stand in the text that is read, or added behind it. */
export class TreeWriter {
  private cells: Uint32Array;
  private readonly added: string[] = [];
  private length: number;
  count = 0;

  constructor(private readonly source: string) {
    this.length = source.length;
    this.cells = spare ?? new Uint32Array(256 * EACH);
    spare = null;
  }

  /** Begins a node, which ends by `end`, or is a leaf. Returns its number. */
  begin(kind: TreeNode['kind'], nameFrom: number, nameTo: number, valueFrom = 0, valueTo = 0): number {
    const node = this.count++;
    let at = node * EACH;
    if (at === this.cells.length) {
      const larger = new Uint32Array(at * 2);
      larger.set(this.cells);
      this.cells = larger;
    }
    const { cells } = this;
    cells[at++] = PLACES[kind];
    cells[at++] = this.count;
    cells[at++] = nameFrom;
    cells[at++] = nameTo;
    cells[at++] = valueFrom;
    cells[at] = valueTo;
    return node;
  }
  /** What was begun since is below it. */
  end(node: number): void {
    this.cells[node * EACH + END] = this.count;
  }
  value(node: number, from: number, to: number): void {
    this.cells[node * EACH + VALUE] = from;
    this.cells[node * EACH + VALUE + 1] = to;
  }
  /** A text that does not stand in the source as it is. Returns where it begins; it ends its length behind. */
  add(text: string): number {
    const from = this.length;
    this.added.push(text);
    this.length += text.length;
    return from;
  }
  /** All that was written; the writer is not used afterwards. */
  tree(): FlatTree {
    if (this.cells.length <= MOST_SPARE) spare = this.cells;
    return { cells: this.cells.slice(0, this.count * EACH), text: this.added.length === 0 ? this.source : this.source + this.added.join('') };
  }
}
const MOST_SPARE = 1024 * EACH;

/** The root of a tree; what is below it is made when it is asked for. */
export const rootOf = (tree: FlatTree): TreeNode => new Node(tree, 0, -1);

class Node implements TreeNode {
  readonly name: string;
  private below: readonly TreeNode[] | null = null;

  /** @param index place in a list, -1 in anything else */
  constructor(
    private readonly tree: FlatTree,
    private readonly at: number,
    index: number,
  ) {
    const name = this.part(NAME);
    this.name = index >= 0 ? String(index) : tree.cells[at * EACH + KIND] === ATTRIBUTE ? `@${name}` : name;
  }

  get kind(): TreeNode['kind'] {
    return KINDS[this.tree.cells[this.at * EACH + KIND]!]!;
  }
  get value(): string {
    return this.part(VALUE);
  }
  get children(): readonly TreeNode[] {
    if (this.below) return this.below;
    const { tree, at } = this;
    const own: TreeNode[] = [];
    const inList = tree.cells[at * EACH + KIND] === LIST;
    for (let child = at + 1; child < tree.cells[at * EACH + END]!; child = tree.cells[child * EACH + END]!)
      own.push(new Node(tree, child, inList ? own.length : -1));
    return (this.below = own);
  }

  private part(which: number): string {
    const { cells, text } = this.tree;
    return text.slice(cells[this.at * EACH + which], cells[this.at * EACH + which + 1]);
  }
}
