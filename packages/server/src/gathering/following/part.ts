import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { SourceRepository } from '../../evidence/sources.ts';
import type { GrowingFile } from './growing-file.ts';

/** Looks without anything new after which the last record is taken to be whole: where its line has ended, and where it has not. */
const QUIET_LOOKS = { line: 2, half: 25 };
/** More is not held in memory: it is read when the readers have caught up. */
const MOST_WAITING = 16 << 20;
/** So many bytes tell the format of a new file; it has fewer when it is quiet. */
const ENOUGH = 2048;

/** What a part needs of its surroundings. */
export interface PartContext {
  sources: Pick<SourceRepository, 'source' | 'handOver'>;
  /** Folder for bytes on their way to a reader. */
  spool: string;
  /** Adds a source with its first bytes; null where it cannot be read. */
  begin(file: GrowingFile, path: string, spool: string, size: number, contentHash: string): Promise<number | null>;
  poke(): Promise<void>;
}

/**
 * One file from its beginning until it is replaced: hands what is new to the readers whenever they have read what they were given before,
 * with the record that was left at its end. The database tells how far they came, so that nothing is read twice or lost.
 */
export class Part {
  private waiting: Buffer = Buffer.alloc(0);
  /** Place of the first waiting byte in the file. */
  private from: number;
  /** Handed over up to here. */
  private handed: number;
  private quiet = 0;
  private ended = false;
  /** Nothing more will be done with it. */
  over = false;
  /** When it last grew, in milliseconds since 1970. */
  grewAt: number | null = null;

  /** @param from the first byte that the readers do not have: those before `file.reached` follow in `held` */
  constructor(
    readonly file: GrowingFile,
    readonly path: string,
    public sourceId: number | null,
    private readonly context: PartContext,
    held: Buffer = Buffer.alloc(0),
  ) {
    this.waiting = held;
    this.from = file.reached - held.length;
    this.handed = file.reached;
  }

  async look(): Promise<void> {
    if (this.over) return;
    if (!this.ended && this.waiting.length < MOST_WAITING) {
      const { more, ended } = await this.file.look();
      this.quiet = more.length > 0 ? 0 : this.quiet + 1;
      if (more.length > 0) {
        this.waiting = Buffer.concat([this.waiting, more]);
        this.grewAt = Date.now();
      }
      this.ended = ended;
    }
    if (this.sourceId === null) await this.begin();
    else await this.handOver(this.sourceId);
    if (this.over) await this.file.close();
  }

  private async begin(): Promise<void> {
    if (this.waiting.length === 0) {
      this.over = this.ended;
      return;
    }
    if (this.waiting.length < ENOUGH && this.quiet < QUIET_LOOKS.line && !this.ended) return;
    const { spool, size, contentHash } = await this.spool(this.waiting);
    this.sourceId = await this.context.begin(this.file, this.path, spool, size, contentHash);
    if (this.sourceId === null) this.over = true;
    else await this.context.poke();
  }

  private async handOver(id: number): Promise<void> {
    if (this.waiting.length === 0 && !this.ended) return;
    const row = await this.context.sources.source(id);
    if (row?.state === 'waiting' || row?.state === 'reading') return;
    if (row?.state !== 'done') {
      // taken out or broken: there is nothing to go on with
      this.over = true;
      return;
    }
    if (row.done_bytes > this.from) {
      this.waiting = Buffer.from(this.waiting.subarray(row.done_bytes - this.from));
      this.from = row.done_bytes;
    }
    if (this.waiting.length === 0) {
      this.over = this.ended;
      return;
    }
    const part = this.wholePart();
    const growing = part.length === 0;
    if (growing && this.from + this.waiting.length <= this.handed) return;
    const { spool, size, contentHash } = await this.spool(growing ? this.waiting : part);
    const given = await this.context.sources.handOver(id, { spool, spool_from: this.from, size, content_hash: contentHash, growing });
    if (given) await this.context.poke();
    else await rm(spool, { force: true });
  }

  /** What can be taken to be whole records, though nothing follows them: where it has been quiet, all lines that have ended, and later all there is. */
  private wholePart(): Buffer {
    if (this.ended || this.quiet >= QUIET_LOOKS.half) return this.waiting;
    // a line's end is not this byte alone where characters are of two bytes
    if (this.quiet < QUIET_LOOKS.line || this.waiting.includes(0)) return this.waiting.subarray(0, 0);
    return this.waiting.subarray(0, this.waiting.lastIndexOf(10) + 1);
  }

  private async spool(part: Buffer): Promise<{ spool: string; size: number; contentHash: string }> {
    const spool = join(this.context.spool, `follow-${process.hrtime.bigint()}`);
    await writeFile(spool, part);
    const size = this.from + part.length;
    const contentHash = this.file.hashWith(part.subarray(Math.max(0, this.handed - this.from)));
    this.handed = Math.max(this.handed, size);
    return { spool, size, contentHash };
  }
}
