import { rm } from 'node:fs/promises';
import type { ArrivedCounts, ImportRepository, ImportRow } from './imports.ts';
import type { NewSource } from '../evidence/sources.ts';

/** Small sources that are noted together, at most, and how long the first of them waits for others, in milliseconds. */
const MOST = 50;
const LONGEST = 150;
/** Larger ones, in bytes, are noted at once. */
const SMALL = 1 << 16;

/** What arrives with one import: sources are noted several at once, since each transaction waits for the disk. Calls follow one another. */
export class ArrivalsOfImport {
  private sources: NewSource[] = [];
  private counts: ArrivedCounts = {};
  /** On their way into the database. */
  private noting: readonly NewSource[] = [];
  private timer: NodeJS.Timeout | null = null;
  private flushed: Promise<void> = Promise.resolve();

  /** @param queued called when there is something to be read */
  constructor(
    readonly row: ImportRow,
    private readonly rows: ImportRepository,
    private readonly queued: () => Promise<void>,
  ) {}

  /** Whether a source with these bytes waits to be noted. */
  holds(size: number, contentHash: string): boolean {
    return [...this.sources, ...this.noting].some((one) => one.size === size && one.content_hash === contentHash);
  }
  count(more: ArrivedCounts): void {
    for (const name of ['files', 'bytes', 'already_there'] as const) this.counts[name] = (this.counts[name] ?? 0) + (more[name] ?? 0);
    this.soon();
  }
  async add(source: NewSource): Promise<void> {
    this.sources.push(source);
    if (this.sources.length >= MOST || source.size > SMALL) await this.flush();
    else this.soon();
  }
  /** Resolves when all is noted; rejects with what kept it from being noted, now or since the last call. */
  flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.flushed = this.flushed.then(() => this.note());
    return this.flushed;
  }
  /** Nothing more of it is wanted. */
  async drop(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    for (const { spool } of this.sources.splice(0)) await rm(spool, { force: true });
  }

  private soon(): void {
    this.timer ??= setTimeout(() => void this.flush().catch(() => {}), LONGEST); // told by the next call, at the latest by the last
  }
  private async note(): Promise<void> {
    const [sources, counts] = [this.sources, this.counts];
    [this.sources, this.counts, this.noting] = [[], {}, sources];
    const twice = await this.rows.arrived(this.row.id, sources, counts);
    this.noting = [];
    for (const { spool } of twice) await rm(spool, { force: true });
    if (sources.length > twice.length) await this.queued();
  }
}
