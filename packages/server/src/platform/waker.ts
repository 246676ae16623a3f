import type { Logger } from 'pino';
import type pg from 'pg';
import { ownClient } from '../database/own-client.ts';
import { WAKE } from './happenings/kinds.ts';

/** Also without a wake it is looked so often, in milliseconds: a lost connection loses wakes. */
const BEAT = 5000;
const RETRY = 500;
/** A server that was killed a moment ago may still be held to be there so long, in milliseconds. */
const PATIENCE = 10_000;
/** The lock of whoever serves a database. */
const SERVES = 0x66616465;

/** Another server works on this database. */
export class Occupied extends Error {}

/**
 * The connection on which the database says that something happened. It also holds the database for this server alone: two that read the same
 * sources would store each of them twice.
 */
export class Waker {
  private readonly listeners = new Set<() => void>();
  private client: pg.Client | null = null;
  private closing = false;
  private readonly beat: NodeJS.Timeout;
  private coming: Promise<void> | null = null;

  constructor(
    private readonly url: string,
    private readonly log: Logger,
  ) {
    this.beat = setInterval(() => this.wake(), BEAT);
    this.beat.unref();
  }

  /** @throws Occupied where another server holds the database */
  async start(): Promise<void> {
    const until = Date.now() + PATIENCE;
    while (!(await this.connect())) {
      if (Date.now() > until)
        throw new Occupied(
          'another server works on this data already: stop it first (its address is what bin/demo printed), or choose another data folder',
        );
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
  }
  onWake(listener: () => void): void {
    this.listeners.add(listener);
  }
  wake(): void {
    for (const listener of this.listeners) listener();
  }
  async close(): Promise<void> {
    this.closing = true;
    clearInterval(this.beat);
    await this.coming;
    await this.client?.end();
  }

  /** @returns false where another server holds the database */
  private async connect(): Promise<boolean> {
    const client = await ownClient(this.url);
    const { rows } = await client.query<{ held: boolean }>('select pg_try_advisory_lock($1) as held', [SERVES]);
    if (!rows[0]!.held) {
      await client.end();
      return false;
    }
    client.on('notification', () => this.wake());
    client.once('end', () => this.lost());
    await client.query(`listen ${WAKE}`);
    this.client = client;
    return true;
  }
  /** The database went away: what it says when it is back is heard again. */
  private lost(): void {
    this.client = null;
    if (this.closing || this.coming) return;
    this.coming = this.comeBack().finally(() => (this.coming = null));
  }
  private async comeBack(): Promise<void> {
    while (!this.closing) {
      try {
        if (await this.connect()) {
          this.wake();
          return;
        }
        this.log.error('another server has taken this database; this one goes on trying to get it back');
      } catch (error) {
        this.log.debug({ err: error }, 'the database is away');
      }
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
  }
}
