import type { SuggestRecord } from './suggest.ts';

/**
 * What records that name known identifiers together are parts of, as far as these tell: business numbers of one kind are never of one part. Each known value has a part; a part has its
 * business numbers by kind.
 */
export class Anchors {
  private readonly parent = new Map<string, string>();
  /** By root, business numbers by kind. */
  private readonly numbers = new Map<string, Map<number, string>>();

  constructor(records: Iterable<SuggestRecord>) {
    for (const { known } of records) {
      const tying = known.filter((one) => one.role !== 'shared');
      for (const one of tying) this.add(keyOf(one), one);
      for (const one of tying.slice(1)) this.join(keyOf(tying[0]!), keyOf(one));
    }
  }

  /** The part that a known value belongs to. */
  partOf(known: SuggestRecord['known'][number]): string {
    return this.find(keyOf(known));
  }
  /** Whether some parts may be of one transaction: no two of them have different business numbers of one kind. */
  agree(parts: Iterable<string>): boolean {
    const all = new Map<number, string>();
    for (const part of parts) {
      for (const [kind, value] of this.numbers.get(part) ?? []) {
        const other = all.get(kind);
        if (other !== undefined && other !== value) return false;
        all.set(kind, value);
      }
    }
    return true;
  }

  private add(key: string, { role, kind, value }: SuggestRecord['known'][number]): void {
    if (this.parent.has(key)) return;
    this.parent.set(key, key);
    if (role === 'business') this.numbers.set(key, new Map([[kind, value]]));
  }
  private find(key: string): string {
    let root = key;
    for (let up = this.parent.get(root)!; up !== root; up = this.parent.get(root)!) root = up;
    for (let at = key; at !== root;) {
      const up = this.parent.get(at)!;
      this.parent.set(at, root);
      at = up;
    }
    return root;
  }
  private join(one: string, other: string): void {
    const [a, b] = [this.find(one), this.find(other)];
    if (a === b || !this.agree([a, b])) return;
    this.parent.set(b, a);
    const numbers = this.numbers.get(b);
    if (!numbers) return;
    this.numbers.set(a, new Map([...(this.numbers.get(a) ?? []), ...numbers]));
    this.numbers.delete(b);
  }
}
const keyOf = ({ kind, value }: SuggestRecord['known'][number]): string => `${kind}\u0000${value}`;
