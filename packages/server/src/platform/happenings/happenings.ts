import type { Knex } from 'knex';
import type { Logger } from 'pino';
import type { Database } from '../../database/connect.ts';
import { pauseAfter } from '../pauses.ts';
import type { Waker } from '../waker.ts';
import type { Happened, Happening, HappeningKind } from './kinds.ts';

/** Who wants to hear of some kinds of happenings. */
export interface Listener {
  /** Its position is kept under this name. */
  name: string;
  kinds: readonly HappeningKind[];
  /**
   * What happened, in the order in which it was committed. What it writes through `trx` is committed together with its position: each happening counts
   * once there, also through a kill. What it does elsewhere may be done again.
   */
  hear(happenings: readonly Happening[], trx: Knex.Transaction): Promise<void>;
}
/** Where a listener stands, for whoever looks after the system. */
export interface ListenerState {
  name: string;
  behind: number;
  error: string | null;
}

/** So many are heard at once. */
const AT_ONCE = 500;
/** While another transaction is open, what was committed after its begin waits; it is looked for again so soon, in milliseconds. */
const AGAIN = 100;

/** Brings happenings to their listeners, each from its own position on, one after the other. */
export class Happenings {
  private readonly listeners = new Map<
    string,
    { listener: Listener; hearing: Promise<void> | null; again: boolean; failed: number; error: string | null }
  >();
  private readonly timers = new Set<NodeJS.Timeout>();
  private readonly echoes = new Map<HappeningKind, ((body: never) => void)[]>();
  private closing = false;

  constructor(
    private readonly db: Database,
    private readonly waker: Waker,
    private readonly log: Logger,
  ) {}

  /** Before the start. A listener that was never there hears what happens from now on. */
  add(listener: Listener): void {
    if (this.listeners.has(listener.name)) throw new Error(`two listeners are called ${listener.name}`);
    this.listeners.set(listener.name, { listener, hearing: null, again: false, failed: 0, error: null });
  }
  /** For what is only kept in this process, as a copy: it is told at once when this process knows that something is committed, and never afterwards. */
  at<Kind extends HappeningKind>(kind: Kind, hear: (body: Happened[Kind]) => void): void {
    this.echoes.set(kind, [...(this.echoes.get(kind) ?? []), hear as (body: never) => void]);
  }
  /** What happened is committed. */
  echo<Kind extends HappeningKind>(kind: Kind, body: Happened[Kind]): void {
    for (const hear of this.echoes.get(kind) ?? []) hear(body as never);
  }
  async start(): Promise<void> {
    const names = [...this.listeners.keys()];
    await this.db.raw(
      `insert into listener (name, tx, id) select name, pg_snapshot_xmin(pg_current_snapshot()), 0 from unnest(?::text[]) name on conflict do nothing`,
      [names],
    );
    await this.db('listener').whereNotIn('name', names).delete();
    this.waker.onWake(() => this.wake());
    this.wake();
  }
  async close(): Promise<void> {
    this.closing = true;
    for (const timer of this.timers) clearTimeout(timer);
    await Promise.all([...this.listeners.values()].map((one) => one.hearing));
  }
  async state(): Promise<ListenerState[]> {
    return Promise.all([...this.listeners].map(async ([name, { error }]) => ({ name, behind: await this.behind(name), error })));
  }
  /** Takes away what every listener has heard. */
  async clear(): Promise<number> {
    const { rowCount } = await this.db.raw<{ rowCount: number }>(
      `delete from happening where (tx, id) <= (select tx, id from listener order by tx, id limit 1) and at < now() - interval '1 day'`,
    );
    return rowCount;
  }

  private wake(): void {
    for (const name of this.listeners.keys()) this.look(name);
  }
  private later(name: string, ms: number): void {
    const timer = setTimeout(() => {
      this.timers.delete(timer);
      this.look(name);
    }, ms);
    timer.unref();
    this.timers.add(timer);
  }
  private look(name: string): void {
    const own = this.listeners.get(name)!;
    if (this.closing) return;
    if (own.hearing) {
      own.again = true;
      return;
    }
    own.again = false;
    own.hearing = this.hearAll(own.listener)
      .then(
        (waits) => {
          own.failed = 0;
          own.error = null;
          if (waits) this.later(name, AGAIN);
        },
        (error: Error) => {
          own.failed++;
          own.error = error.message;
          this.log.error({ err: error, listener: name }, 'what happened could not be taken in; it is tried again');
          this.later(name, pauseAfter(own.failed));
        },
      )
      .then(() => {
        own.hearing = null;
        if (own.again && own.failed === 0) this.look(name);
      });
  }
  /** @returns whether something waits for an open transaction to end */
  private async hearAll({ name, kinds, hear }: Listener): Promise<boolean> {
    for (;;) {
      const full = await this.db.transaction(async (trx) => {
        const { rows } = await trx.raw<{ rows: (Happening & { tx: string })[] }>(
          `select h.tx::text as tx, h.id::text as id, h.at, h.kind, h.body from happening h, listener l
             where l.name = ? and (h.tx, h.id) > (l.tx, l.id) and h.tx < pg_snapshot_xmin(pg_current_snapshot()) order by h.tx, h.id limit ?`,
          [name, AT_ONCE],
        );
        const last = rows.at(-1);
        if (!last) return false;
        const heard = rows.filter((row) => kinds.includes(row.kind));
        if (heard.length > 0) await hear(heard, trx);
        await trx.raw('update listener set tx = ?::text::xid8, id = ?, heard_at = now() where name = ?', [last.tx, last.id, name]);
        return rows.length === AT_ONCE;
      });
      if (!full) return (await this.behind(name)) > 0;
    }
  }
  private async behind(name: string): Promise<number> {
    const { rows } = await this.db.raw<{ rows: { count: number }[] }>(
      'select count(*)::bigint as count from happening h, listener l where l.name = ? and (h.tx, h.id) > (l.tx, l.id)',
      [name],
    );
    return rows[0]?.count ?? 0;
  }
}
