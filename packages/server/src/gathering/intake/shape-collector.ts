import { CopyRows } from '../../database/copy-rows.ts';

const SLOT = 600_000_000;
const DECIMALS = 8;

/** How often each shape is said, by ten minutes, of one source. */
export class ShapeCollector {
  /** Of the slot at hand: by component, by shape, how often and at which level at most. */
  private counts = new Map<string, Map<number, { count: number; level: number }>>();
  private slot = NaN;
  private done: { slot: number; component: string; shape: number; count: number; level: number }[] = [];

  note(at: number, component: string, shape: number, level: number): void {
    const slot = Math.floor(at / SLOT);
    if (slot !== this.slot) this.turn(slot);
    let own = this.counts.get(component);
    if (!own) this.counts.set(component, (own = new Map()));
    const known = own.get(shape);
    if (!known) own.set(shape, { count: 1, level });
    else {
      known.count++;
      if (level > known.level) known.level = level;
    }
  }

  /** Records mostly follow each other in time: what comes late makes a row of its own. */
  private turn(slot: number): void {
    for (const [component, own] of this.counts) for (const [shape, one] of own) this.done.push({ slot: this.slot, component, shape, ...one });
    this.counts.clear();
    this.slot = slot;
  }

  /**
   * Everything since the last call, in binary COPY format: slot, source, component, shape, level, count.
   *
   * @param name writes a component; all names have to be known
   */
  take(sourceId: number, name: (rows: CopyRows, component: string) => void): Uint8Array {
    this.turn(NaN);
    const rows = new CopyRows(Math.max(1, this.done.length) * 6 * DECIMALS);
    for (const { slot, component, shape, level, count } of this.done) {
      rows.begin(6);
      rows.int(slot);
      rows.int(sourceId);
      name(rows, component);
      rows.big(shape);
      rows.small(level);
      rows.int(count);
    }
    this.done = [];
    return rows.finish();
  }
}
