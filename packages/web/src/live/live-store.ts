import type { LogRecord } from '@fadenweg/api';
import type { Line, LineStore } from '../find/page-store.ts';

/** Lines that are kept; the oldest go first. */
const MOST = 5000;
/** While one reads further up, nothing is taken from under the eyes, up to so many. */
const MOST_HELD = 20_000;

/** The lines of a live list: records in the order in which they came, and notes between them. */
export class LiveStore implements LineStore {
  private lines: Line[] = [];
  private readonly ids = new Set<string>();
  /** Lines that went since the list began. */
  gone = 0;

  get length(): number {
    return this.lines.length;
  }
  clear(): void {
    this.lines = [];
    this.ids.clear();
    this.gone = 0;
  }
  /**
   * Adds records behind the last; one that is there already is not added again.
   *
   * @param held nothing is taken from the begin
   */
  add(records: readonly LogRecord[], held: boolean): void {
    for (const record of records) {
      if (this.ids.has(record.id)) continue;
      this.ids.add(record.id);
      this.lines.push({ type: 'record', record, quiet: false });
    }
    this.trim(held ? MOST_HELD : MOST);
  }
  note(text: string, at: string | null = null): void {
    this.lines.push({ type: 'note', text, at });
  }
  private trim(most: number): void {
    if (this.lines.length <= most) return;
    for (const line of this.lines.splice(0, this.lines.length - most)) {
      this.gone++;
      if (line.type === 'record') this.ids.delete(line.record.id);
    }
  }

  at(index: number): Line | undefined {
    return this.lines[index];
  }
  recordBefore(index: number): LogRecord | null {
    for (let i = index - 1; i >= Math.max(0, index - 3); i--) {
      const line = this.lines[i];
      if (line?.type === 'record') return line.record;
    }
    return null;
  }
  indexOf(id: string): number {
    return this.ids.has(id) ? this.lines.findIndex((line) => line.type === 'record' && line.record.id === id) : -1;
  }
  /** The latest record. */
  get last(): LogRecord | null {
    return this.recordBefore(this.lines.length);
  }
}
