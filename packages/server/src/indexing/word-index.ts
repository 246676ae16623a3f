import { Access } from '../platform/access.ts';
import type pg from 'pg';
import { ownClient } from '../database/own-client.ts';
import { wordsOf, type Partitions } from '../database/partitions.ts';
import { tell } from '../platform/happenings/tell.ts';
import type { Platform, Stored } from '../platform/room.ts';
import { Later, type Piece, type WorkKind } from '../platform/work/types.ts';

/** Leaves below this size in bytes, about 17,000 records, are gone through faster than an index pays. */
const FEWEST = 3_000_000;
/** Quiet time before an index is begun, in milliseconds. */
const PAUSE = 15_000;
const MEMORY = '96MB';

/**
 * Indexes the words (trigrams) of leaves that nothing is written to, in the background: a rare or an absent word is then found without going through
 * all records. One leaf after the other, the latest first; whatever else has work to do goes before, and what was broken off is begun anew.
 */
export class WordIndex {
  private pid: number | null = null;
  /** When something was stored or woven last. */
  private stirred = Date.now();

  readonly kind: WorkKind<null> = { name: 'index-words', label: 'Indexing words', run: (piece) => this.run(piece) };

  /** @param busy records are being stored or woven */
  constructor(
    private readonly work: Platform['work'],
    private readonly stored: Stored,
    private readonly partitions: Partitions,
    private readonly busy: () => boolean,
    private readonly pause = PAUSE,
  ) {}

  /** There may be something to index when it has been quiet for a while. */
  async consider(): Promise<void> {
    this.stirred = Date.now();
    await this.work.ask(this.kind.name, { why: 'records came in', who: Access.ownWork.who, args: null, after: this.pause });
  }
  /** Breaks off what is under way: there are records to store. */
  giveWay(): void {
    this.stirred = Date.now();
    if (this.pid === null) return;
    const { pid } = this;
    this.pid = null;
    void this.stored.db.raw('select pg_cancel_backend(?)', [pid]).catch(() => {}); // it has ended by itself, or the database is away
  }

  private async run(piece: Piece<null>): Promise<void> {
    const quiet = Date.now() - this.stirred;
    if (this.busy() || quiet < this.pause) throw new Later(Math.max(1000, this.pause - quiet));
    const giveWay = (): void => this.giveWay();
    piece.signal.addEventListener('abort', giveWay);
    const whole = await this.indexed(piece).finally(() => piece.signal.removeEventListener('abort', giveWay));
    piece.signal.throwIfAborted();
    if (!whole) throw new Later(this.pause);
  }
  /** @returns whether no leaf is left */
  private async indexed(piece: Piece<null>): Promise<boolean> {
    const client = await ownClient(this.stored.url);
    try {
      const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
      await client.query(`set maintenance_work_mem = '${MEMORY}'`);
      await client.query('set max_parallel_maintenance_workers = 0');
      const leaves = await this.partitions.wordless(client, FEWEST);
      for (const [place, leaf] of leaves.entries()) {
        if (piece.signal.aborted || this.busy()) return false;
        piece.tell(`words of ${leaf}`, place / leaves.length);
        this.pid = rows[0]!.pid;
        if (!(await this.index(client, leaf))) return false;
      }
      return true;
    } finally {
      this.pid = null;
      await client.end();
    }
  }
  /** @returns false where it was broken off */
  private async index(client: pg.Client, leaf: string): Promise<boolean> {
    try {
      await client.query(`analyze ${leaf}`);
      await client.query(
        `create index concurrently ${wordsOf(leaf)} on ${leaf} using gin (lower(message collate "C") gin_trgm_ops) with (fastupdate = on)`,
      );
    } catch (error) {
      await client.query(`drop index if exists ${wordsOf(leaf)}`);
      if ((error as { code?: string }).code === CANCELLED) return false;
      throw error;
    }
    this.partitions.hasWords(leaf);
    await tell(client, 'day-sealed', { leaf });
    return true;
  }
}
/** SQLSTATE of a query that was cancelled. */
const CANCELLED = '57014';
