import { setTimeout } from 'node:timers/promises';
import { Cron } from 'croner';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import type pg from 'pg';
import type { WorkState } from '@fadenweg/api';
import type { Database } from '../../database/connect.ts';
import { isDatabaseAway, isTransient } from '../../database/failures.ts';
import type { Access } from '../access.ts';
import { pauseAfter } from '../pauses.ts';
import type { Waker } from '../waker.ts';
import * as rows from './rows.ts';
import { Later, type Asking, type Piece, type WorkKind, type WorkRow } from './types.ts';

const MOST_TRIES = 6;
/** What ended is kept, so many pieces. */
const MOST_ENDED = 500;
/** Told progress is written at most so often, in milliseconds. */
const EVERY = 400;
/** Clocks are set: it is looked again at the latest after so long, in milliseconds. */
const LONGEST_SLEEP = 30_000;
/** What is under way when the server stops is waited for so long, in milliseconds: what does not heed that it is told to stop is done again after the next start. */
const LONGEST_CLOSING = 5000;
/** Who asks for what is done by the clock. */
const SUPPLIED = 'supplied';

/** What was waited for has not ended, and will only after the next start. */
class Stopped extends Error {
  constructor() {
    super('the server is stopped');
  }
}
/** It was cancelled by somebody. */
export class Cancelled extends Error {
  constructor() {
    super('it was cancelled');
  }
}

interface Running {
  row: WorkRow;
  stop: AbortController;
  done: Promise<void>;
}

/**
 * Work in the background: kept in the database, so that a kill loses none; done one piece of a kind at a time; tried again with growing pauses;
 * seen, cancelled and tried again by people. See docs/decisions/work.md.
 */
export class Work {
  private readonly kinds = new Map<string, WorkKind<unknown>>();
  private readonly running = new Map<string, Running>();
  private readonly ends = new Map<number, ((error: Error | null) => void)[]>();
  private timer: NodeJS.Timeout | null = null;
  private looking: Promise<void> | null = null;
  private lookAgain = false;
  private started = false;
  private closing = false;

  constructor(
    private readonly db: Database,
    private readonly waker: Waker,
    private readonly log: Logger,
  ) {}

  /** Before the start. */
  add<Args>(kind: WorkKind<Args>): void {
    if (this.kinds.has(kind.name)) throw new Error(`two kinds of work are called ${kind.name}`);
    this.kinds.set(kind.name, kind as WorkKind<unknown>);
  }
  /** Puts back what a dead process had, and begins. */
  async start(): Promise<void> {
    for (const row of await rows.leftOver(this.db)) {
      const kind = this.kinds.get(row.kind);
      const args = kind?.afterStop ? kind.afterStop(row.args) : row.args;
      if (row.state === 'running') await this.putBack(row, args, 'the server was stopped while it was done', 0, true);
      else if (kind?.afterStop) await rows.rewrite(this.db, row.id, JSON.stringify(args));
    }
    for (const kind of this.kinds.values()) await this.plan(kind);
    this.started = true;
    this.waker.onWake(() => this.soon());
    this.soon();
  }
  /** Nothing more is begun; what is under way is told to stop, and is put back. */
  async close(): Promise<void> {
    this.closing = true;
    if (this.timer) clearTimeout(this.timer);
    await this.looking;
    for (const { stop } of this.running.values()) stop.abort(new Cancelled());
    // a piece that waits for the end of another would wait for ever: that one may not be begun any more
    for (const id of [...this.ends.keys()]) this.ended(id, new Stopped());
    const late = setTimeout(LONGEST_CLOSING, undefined, { ref: false });
    await Promise.race([Promise.all([...this.running.values()].map(({ done }) => done)), late]);
  }

  /**
   * Puts a piece in line; of what waits for the same already one piece becomes of both.
   *
   * @param trx where given, it is put in line only where that commits; it has to be the last thing that is done there
   * @returns its number
   */
  async ask<Args>(name: string, { about = '', why, who, args, after = 0 }: Asking<Args>, trx?: Knex.Transaction | pg.ClientBase): Promise<number> {
    const kind = this.kinds.get(name);
    if (!kind) throw new Error(`there is no work called ${name}`);
    const piece = { kind: name, about, why, who, args: JSON.stringify(args), after };
    const id = await (trx ? this.enqueue(kind, trx, piece, args) : this.db.transaction((own) => this.enqueue(kind, own, piece, args)));
    if (!trx) this.soon();
    return id;
  }
  private async enqueue(kind: WorkKind<unknown>, trx: Knex | pg.ClientBase, piece: rows.NewWork, args: unknown): Promise<number> {
    const { id, waited, args: before } = await rows.enqueue(trx, piece);
    if (waited) await rows.rewrite(trx, id, JSON.stringify(kind.merge ? kind.merge(before, args) : args));
    return id;
  }
  /** Resolves when a piece is done; rejects where it failed for good or was cancelled, or the server is stopped meanwhile. */
  async finished(id: number): Promise<void> {
    if (this.closing) throw new Stopped();
    const ended = new Promise<void>((resolve, reject) => {
      const waiting = this.ends.get(id) ?? [];
      waiting.push((error) => (error ? reject(error) : resolve()));
      this.ends.set(id, waiting);
    });
    ended.catch(() => {}); // told to whoever waits for it
    const row = await rows.byId(this.db, id);
    if (row === null || row.state === 'done' || row.state === 'failed' || row.state === 'cancelled')
      this.ended(id, row?.state === 'failed' ? new Error(row.error ?? 'it failed') : row?.state === 'cancelled' ? new Cancelled() : null);
    return ended;
  }
  /** There may be something to do. */
  soon(): void {
    if (!this.started || this.closing) return;
    if (this.looking) {
      this.lookAgain = true;
      return;
    }
    this.looking = this.look()
      .catch((error: Error) => {
        if (!isDatabaseAway(error)) this.log.error({ err: error }, 'waiting work could not be looked for; it is tried again');
        this.sleep(1000);
      })
      .finally(() => {
        this.looking = null;
        if (this.lookAgain) {
          this.lookAgain = false;
          this.soon();
        }
      });
  }

  list(states: readonly WorkState[], before: number | null, limit: number): Promise<WorkRow[]> {
    return rows.list(this.db, states, before, limit);
  }
  counts(): Promise<Partial<Record<WorkState, number>>> {
    return rows.counts(this.db);
  }
  byId(id: number): Promise<WorkRow | null> {
    return rows.byId(this.db, id);
  }
  /** Whether a piece of a kind waits. */
  waits(kind: string): Promise<boolean> {
    return rows.anyWaiting(this.db, kind);
  }
  label(kind: string): string {
    return this.kinds.get(kind)?.label ?? kind;
  }
  /** Of what ended only the latest are kept. */
  clearEnded(): Promise<number> {
    return rows.clearEnded(this.db, MOST_ENDED);
  }
  /** Tries again what failed or was cancelled. Returns false where it is neither. */
  async again(row: WorkRow, access: Access): Promise<boolean> {
    if (row.state !== 'failed' && row.state !== 'cancelled') return false;
    const kind = this.kinds.get(row.kind);
    if (!kind) return false;
    await this.ask(row.kind, { about: row.about, why: row.why, who: access.who, args: kind.afterStop ? kind.afterStop(row.args) : row.args });
    await rows.finish(this.db, row.id, 'done', row.error);
    return true;
  }
  /** Cancels what waits or runs; what runs ends behind its next step. Returns false where it has ended. */
  async cancel({ id }: WorkRow): Promise<boolean> {
    const own = [...this.running.values()].find((one) => one.row.id === id);
    if (own) {
      own.stop.abort(new Cancelled());
      return true;
    }
    const row = await rows.byId(this.db, id);
    if (row?.state !== 'waiting') return false;
    await rows.finish(this.db, id, 'cancelled', null);
    this.ended(id, new Cancelled());
    return true;
  }

  private async look(): Promise<void> {
    const known = [...this.kinds.keys()];
    for (;;) {
      if (this.closing) return;
      const row = await rows.claim(this.db, [...this.running.keys()], known);
      if (!row) break;
      this.begin(row);
    }
    const ms = await rows.untilNext(this.db, [...this.running.keys()], known);
    this.sleep(ms === null ? LONGEST_SLEEP : Math.min(LONGEST_SLEEP, Math.max(1, Math.ceil(ms))));
  }
  private sleep(ms: number): void {
    if (this.timer) clearTimeout(this.timer);
    if (this.closing) return;
    this.timer = globalThis.setTimeout(() => this.soon(), ms);
    this.timer.unref();
  }

  private begin(row: WorkRow): void {
    const stop = new AbortController();
    const done = this.run(row, stop).finally(() => {
      this.running.delete(row.kind);
      this.soon();
    });
    this.running.set(row.kind, { row, stop, done });
  }
  private async run(row: WorkRow, stop: AbortController): Promise<void> {
    const kind = this.kinds.get(row.kind)!;
    const progress = new Progress(this.db, row.id);
    const piece: Piece<unknown> = {
      id: row.id,
      about: row.about,
      args: row.args,
      who: row.who,
      signal: stop.signal,
      tell: (doing, share = null) => progress.tell(doing, share),
    };
    let problem: Error | null = null;
    try {
      await kind.run(piece);
    } catch (error) {
      problem = error as Error;
    }
    await progress.end();
    await this.note(kind, row, piece, problem, stop.signal.aborted);
  }
  /** Writes what came of it; the database may be away just then, and what came of it is not to be lost. */
  private async note(kind: WorkKind<unknown>, row: WorkRow, piece: Piece<unknown>, problem: Error | null, stopped: boolean): Promise<void> {
    for (let failures = 1; ; failures++) {
      try {
        await this.noteNow(kind, row, piece, problem, stopped);
        return;
      } catch (error) {
        if (this.closing) return; // it stands there as running, and is put back at the next start
        this.log.warn({ err: error, work: row.id }, 'what came of a piece of work could not be written; it is tried again');
        await setTimeout(Math.min(5000, pauseAfter(failures)));
      }
    }
  }
  private async noteNow(kind: WorkKind<unknown>, row: WorkRow, { args }: Piece<unknown>, problem: Error | null, stopped: boolean): Promise<void> {
    const { id } = row;
    if (problem === null) {
      await rows.finish(this.db, id, 'done', null);
      await this.plan(kind, row.due_at);
      this.ended(id, null);
      return;
    }
    const about = { work: id, kind: row.kind, about: row.about, tries: row.tries };
    if (stopped && this.closing) return this.putBack(row, args, null, 0, false);
    if (stopped || problem instanceof Cancelled) {
      await rows.finish(this.db, id, 'cancelled', null);
      await this.plan(kind, row.due_at);
      this.ended(id, new Cancelled());
      return;
    }
    if (problem instanceof Later) return this.putBack(row, args, null, problem.after, false);
    if (isDatabaseAway(problem) || isTransient(problem)) {
      this.log.warn({ err: problem, ...about }, 'work was held up; it is tried again');
      return this.putBack(row, args, problem.message, 1000, false);
    }
    const most = kind.mostTries ?? MOST_TRIES;
    if (row.tries < most) {
      this.log.warn({ err: problem, ...about }, 'work failed; it is tried again');
      return this.putBack(row, args, problem.message, pauseAfter(row.tries), true);
    }
    this.log.error({ err: problem, ...about }, 'work failed for good; it waits for somebody to try it again');
    await rows.finish(this.db, id, 'failed', problem.message);
    await this.plan(kind, row.due_at);
    this.ended(id, problem);
  }
  /** Where another piece waits for the same, that one goes on with it: of both becomes one. */
  private async putBack({ id, kind, about }: WorkRow, args: unknown, error: string | null, after: number, counts: boolean): Promise<void> {
    const other = await this.db.transaction(async (trx) => {
      const waits = await rows.waiting(trx, kind, about);
      if (!waits) {
        await rows.putBack(trx, id, JSON.stringify(args), error, after, counts);
        return null;
      }
      const merge = this.kinds.get(kind)?.merge;
      if (merge) await rows.rewrite(trx, waits.id, JSON.stringify(merge(args, waits.args)));
      await rows.finish(trx, id, 'done', error);
      return waits.id;
    });
    if (other === null) return;
    const waiting = this.ends.get(id) ?? [];
    this.ends.delete(id);
    if (waiting.length > 0) this.ends.set(other, [...(this.ends.get(other) ?? []), ...waiting]);
  }
  private ended(id: number, error: Error | null): void {
    const waiting = this.ends.get(id) ?? [];
    this.ends.delete(id);
    for (const end of waiting) end(error);
  }
  /** Puts the next piece of what is done by the clock in line. */
  private async plan({ name, schedule }: WorkKind<unknown>, after: Date | null = null): Promise<void> {
    if (!schedule) return;
    // a clock that is set back does not bring the same time again
    const next = new Cron(schedule.at, { timezone: schedule.zone }).nextRun(new Date(Math.max(Date.now(), after?.getTime() ?? 0)));
    if (!next || (await this.db.transaction((trx) => rows.waiting(trx, name, 'schedule')))) return;
    await this.ask(name, {
      about: 'schedule',
      why: schedule.why,
      who: SUPPLIED,
      args: schedule.args,
      after: Math.max(0, next.getTime() - Date.now()),
    });
  }
}

/** Writes what a piece tells of itself, seldom enough not to weigh. */
class Progress {
  private writing: Promise<void> = Promise.resolve();
  private at = 0;
  private doing = '';

  constructor(
    private readonly db: Database,
    private readonly id: number,
  ) {}

  tell(doing: string, share: number | null): void {
    const now = Date.now();
    if (doing === this.doing && now - this.at < EVERY) return;
    [this.at, this.doing] = [now, doing];
    this.writing = this.writing.then(() => rows.progress(this.db, this.id, doing, share)).catch(() => {}); // it is told again, or the end is
  }
  end(): Promise<void> {
    return this.writing;
  }
}
