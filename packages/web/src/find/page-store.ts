import type { LogRecord } from '@fadenweg/api';

/** A line of the list: a record, how many quiet rules hide at its place, or one that is being fetched again. */
export type Line =
  | { type: 'record'; record: LogRecord; /** Shown although a quiet rule hides it. */ quiet: boolean }
  | { type: 'hidden'; count: number; /** Id of the record before, '' at the begin. */ after: string }
  | { type: 'away' }
  /** Something to be said between records, and when. */
  | { type: 'note'; text: string; at: string | null };

/** What a list of lines is drawn from. */
export interface LineStore {
  readonly length: number;
  at(index: number): Line | undefined;
  recordBefore(index: number): LogRecord | null;
  indexOf(id: string): number;
}

/** What a call answered, and what it was asked with. */
export interface FetchedPage {
  after: string | null;
  items: readonly LogRecord[];
  /** Records out of sight before each item. */
  hidden: readonly number[];
  hiddenAfter: number;
}
interface Stored {
  after: string | null;
  /** Null while it is out of memory. */
  lines: Line[] | null;
  length: number;
  records: number;
  /** Hidden before its first record, from the pages before; and the record before it. */
  pending: number;
  last: string;
  /** Changed by hand: it is kept. */
  kept: boolean;
}

/**
 * The lines of a long list, page by page in order. Pages far from what is looked at are let go and fetched again by their cursor,
 * so that memory stays bounded however far one scrolls.
 */
export class PageStore implements LineStore {
  private pages: Stored[] = [];
  /** First line of each page, and the sum. */
  private starts: number[] = [0];
  private pending = 0;
  private last = '';

  get length(): number {
    return this.starts[this.starts.length - 1]!;
  }
  clear(): void {
    this.pages = [];
    this.starts = [0];
    this.pending = 0;
    this.last = '';
  }

  /** Adds a page at the end; at the end of all, what is hidden behind the last record is told too. */
  append(page: FetchedPage, ended: boolean): void {
    const { pending, last } = this;
    const lines = linesOf(page, pending, last);
    this.last = page.items.at(-1)?.id ?? last;
    this.pending = (page.items.length > 0 ? 0 : pending) + page.hiddenAfter;
    if (ended && this.pending > 0) lines.push({ type: 'hidden', count: this.pending, after: this.last });
    this.pages.push({ after: page.after, lines, length: lines.length, records: page.items.length, pending, last, kept: ended });
    this.starts.push(this.length + lines.length);
  }

  at(index: number): Line | undefined {
    if (index < 0 || index >= this.length) return undefined;
    const place = this.pageOf(index);
    return this.pages[place]!.lines?.[index - this.starts[place]!] ?? { type: 'away' };
  }
  /** The record that stands before a line, over lines that tell of hidden ones; null where there is none in memory. */
  recordBefore(index: number): LogRecord | null {
    for (let i = index - 1; i >= Math.max(0, index - 3); i--) {
      const line = this.at(i);
      if (line?.type === 'record') return line.record;
    }
    return null;
  }
  /** Where a record stands among those in memory, -1 for nowhere. */
  indexOf(id: string): number {
    for (const [place, page] of this.pages.entries()) {
      const found = page.lines?.findIndex((line) => line.type === 'record' && line.record.id === id) ?? -1;
      if (found >= 0) return this.starts[place]! + found;
    }
    return -1;
  }
  /** The first records in memory. */
  some(most: number): LogRecord[] {
    const records: LogRecord[] = [];
    for (const page of this.pages)
      for (const line of page.lines ?? []) {
        if (records.length >= most) return records;
        if (line.type === 'record') records.push(line.record);
      }
    return records;
  }
  private pageOf(index: number): number {
    let low = 0;
    let high = this.pages.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.starts[middle]! <= index) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** Puts other lines in the place of one, as when what is hidden is shown. */
  replace(index: number, lines: readonly Line[]): void {
    const place = this.pageOf(index);
    const page = this.pages[place]!;
    if (!page.lines) return;
    page.lines.splice(index - this.starts[place]!, 1, ...lines);
    page.length = page.lines.length;
    page.kept = true;
    for (let i = place; i < this.pages.length; i++) this.starts[i + 1] = this.starts[i]! + this.pages[i]!.length;
  }

  /** Lets go of pages that lie further than `margin` lines from those looked at. */
  forget(from: number, to: number, margin: number): void {
    this.pages.forEach((page, i) => {
      if (!page.kept && (this.starts[i + 1]! < from - margin || this.starts[i]! > to + margin)) page.lines = null;
    });
  }
  /** The first page between two lines that is out of memory, and what to ask for. */
  missing(from: number, to: number): { page: number; after: string | null; records: number } | null {
    for (let i = this.pageOf(Math.max(0, from)); i < this.pages.length && this.starts[i]! <= to; i++) {
      const { lines, length, after, records } = this.pages[i]!;
      if (lines === null && length > 0) return { page: i, after, records };
    }
    return null;
  }
  /** Brings a page back. It keeps its length, so that nothing moves. */
  restore(place: number, fetched: FetchedPage): void {
    const page = this.pages[place];
    if (!page || page.lines) return;
    const lines = linesOf(fetched, page.pending, page.last).slice(0, page.length);
    while (lines.length < page.length) lines.push({ type: 'away' });
    page.lines = lines;
  }
}

function linesOf({ items, hidden }: FetchedPage, pending: number, last: string): Line[] {
  const lines: Line[] = [];
  items.forEach((record, i) => {
    const count = (hidden[i] ?? 0) + (i === 0 ? pending : 0);
    if (count > 0) lines.push({ type: 'hidden', count, after: items[i - 1]?.id ?? last });
    lines.push({ type: 'record', record, quiet: false });
  });
  return lines;
}
