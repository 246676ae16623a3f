import type pg from 'pg';
import type { Database } from '../database/connect.ts';
import { ownClient } from '../database/own-client.ts';
import { wordsOf, type Partitions } from '../database/partitions.ts';

/** Leaves below this size in bytes, about 17,000 records, are gone through faster than an index pays. */
const FEWEST = 3_000_000;
/** Quiet time before an index is begun, in milliseconds. */
const PAUSE = 15_000;
const MEMORY = '96MB';

export interface WordIndexEvents {
  /** Records are being stored or woven. */
  busy(): boolean;
  trouble(error: Error): void;
}

/**
 * Indexes the words (trigrams) of leaves that nothing is written to, in the background: a rare or an absent word is then found without going through
 * all records. One leaf after the other, the latest first; whatever else has work to do goes before, and what was broken off is begun anew.
 */
export class WordIndex {
  private timer: NodeJS.Timeout | null = null;
  private working: Promise<void> | null = null;
  private pid: number | null = null;
  private closing = false;

  constructor(
    private readonly url: string,
    private readonly db: Database,
    private readonly partitions: Partitions,
    private readonly events: WordIndexEvents,
    private readonly pause = PAUSE,
  ) {}

  /** Begins after a pause in which nothing else happens. */
  consider(): void {
    if (this.closing || this.working) return;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = null;
      if (this.events.busy()) this.consider();
      else this.begin();
    }, this.pause);
    this.timer.unref();
  }
  /** Breaks off what is under way: there are records to store. */
  giveWay(): void {
    if (this.pid === null) return;
    const { pid } = this;
    this.pid = null;
    void this.db.raw('select pg_cancel_backend(?)', [pid]).catch(() => {}); // it has ended by itself, or the database is away
  }
  async close(): Promise<void> {
    this.closing = true;
    if (this.timer) clearTimeout(this.timer);
    this.giveWay();
    await this.working;
  }

  private begin(): void {
    const ended = (): void => {
      this.working = null;
      this.pid = null;
    };
    this.working = this.work().then(
      (whole) => {
        ended();
        if (!whole) this.consider();
      },
      (error: Error) => {
        ended();
        if (!this.closing) this.events.trouble(error);
      },
    );
  }
  /** @returns whether no leaf is left */
  private async work(): Promise<boolean> {
    const client = await ownClient(this.url);
    try {
      const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
      await client.query(`set maintenance_work_mem = '${MEMORY}'`);
      await client.query('set max_parallel_maintenance_workers = 0');
      for (const leaf of await this.partitions.wordless(client, FEWEST)) {
        if (this.closing || this.events.busy()) return false;
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
    return true;
  }
}
/** SQLSTATE of a query that was cancelled. */
const CANCELLED = '57014';
