import type { TreeNode } from './types.ts';

const KINDS = ['object', 'list', 'text', 'number', 'truth', 'nothing', 'element', 'attribute'] as const satisfies TreeNode['kind'][];
const PLACES = Object.fromEntries(KINDS.map((kind, i) => [kind, i])) as Record<TreeNode['kind'], number>;
const LIST = PLACES.list;
const ATTRIBUTE = PLACES.attribute;
/** Begin and end of the name, begin and end of the value. */
const EACH = 4;

/** A tree as a few long arrays, each node before what is below it: worked out without an object for each, and handed from a worker to the page at once. */
export interface FlatTree {
  kinds: Uint8Array;
  /** The number of the node behind all that is below each. */
  ends: Uint32Array;
  /** Where name and value of each node stand in `text`, four numbers for each. What is in a list has no name, the name of an attribute no `@`. */
  places: Uint32Array;
  text: string;
}

/** Writes a tree node after node; names and values are told by where they stand in the text that is read, or added behind it. */
export class TreeWriter {
  private kinds = new Uint8Array(256);
  private ends = new Uint32Array(256);
  private places = new Uint32Array(256 * EACH);
  private readonly added: string[] = [];
  private length: number;
  count = 0;

  constructor(private readonly source: string) {
    this.length = source.length;
  }

  /** Begins a node, which ends by `end`, or is a leaf. Returns its number. */
  begin(kind: TreeNode['kind'], nameFrom: number, nameTo: number, valueFrom = 0, valueTo = 0): number {
    const node = this.count++;
    if (node === this.kinds.length) this.grow();
    this.kinds[node] = PLACES[kind];
    this.ends[node] = this.count;
    const at = node * EACH;
    this.places[at] = nameFrom;
    this.places[at + 1] = nameTo;
    this.places[at + 2] = valueFrom;
    this.places[at + 3] = valueTo;
    return node;
  }
  /** What was begun since is below it. */
  end(node: number): void {
    this.ends[node] = this.count;
  }
  value(node: number, from: number, to: number): void {
    this.places[node * EACH + 2] = from;
    this.places[node * EACH + 3] = to;
  }
  /** A text that does not stand in the source as it is. Returns where it begins; it ends its length behind. */
  add(text: string): number {
    const from = this.length;
    this.added.push(text);
    this.length += text.length;
    return from;
  }
  tree(): FlatTree {
    const { count } = this;
    return {
      kinds: this.kinds.slice(0, count),
      ends: this.ends.slice(0, count),
      places: this.places.slice(0, count * EACH),
      text: this.added.length === 0 ? this.source : this.source + this.added.join(''),
    };
  }

  private grow(): void {
    const larger = this.kinds.length * 2;
    const kinds = new Uint8Array(larger);
    const ends = new Uint32Array(larger);
    const places = new Uint32Array(larger * EACH);
    kinds.set(this.kinds);
    ends.set(this.ends);
    places.set(this.places);
    Object.assign(this, { kinds, ends, places });
  }
}

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
    const name = this.part(0);
    this.name = index >= 0 ? String(index) : tree.kinds[at] === ATTRIBUTE ? `@${name}` : name;
  }

  get kind(): TreeNode['kind'] {
    return KINDS[this.tree.kinds[this.at]!]!;
  }
  get value(): string {
    return this.part(2);
  }
  get children(): readonly TreeNode[] {
    if (this.below) return this.below;
    const { tree, at } = this;
    const own: TreeNode[] = [];
    const inList = tree.kinds[at] === LIST;
    for (let child = at + 1; child < tree.ends[at]!; child = tree.ends[child]!) own.push(new Node(tree, child, inList ? own.length : -1));
    return (this.below = own);
  }

  private part(which: number): string {
    const { places, text } = this.tree;
    return text.slice(places[this.at * EACH + which], places[this.at * EACH + which + 1]);
  }
}
