import { LONGEST_NAME, MOST_NAMES } from '@fadenweg/core/records';
import type { CopyRows } from '../../database/copy-rows.ts';

/** Numbers of the names that records give to their component or host. A name that is not known yet is filled in before the rows leave. */
export class OwnNames {
  private readonly ids = new Map<string, number>();
  private readonly waiting = new Map<string, { rows: CopyRows; at: number }[]>();

  /** @param fallback number of the source's own name */
  constructor(private readonly fallback: number) {}

  /** Writes the number of a name, of the source's own for ''. */
  write(rows: CopyRows, name: string): void {
    if (name === '') {
      rows.small(this.fallback);
      return;
    }
    const id = this.ids.get(name);
    if (id !== undefined) {
      rows.small(id);
      return;
    }
    let places = this.waiting.get(name);
    if (!places) {
      if (name.length > LONGEST_NAME || this.ids.size + this.waiting.size >= MOST_NAMES) {
        rows.small(this.fallback);
        return;
      }
      this.waiting.set(name, (places = []));
    }
    places.push({ rows, at: rows.smallAt });
    rows.small(this.fallback);
  }

  unknown(): string[] {
    return [...this.waiting.keys()];
  }

  know(ids: readonly [string, number][]): void {
    for (const [name, id] of ids) {
      this.ids.set(name, id);
      for (const { rows, at } of this.waiting.get(name) ?? []) rows.patchSmall(at, id);
      this.waiting.delete(name);
    }
  }
}
