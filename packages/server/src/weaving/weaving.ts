import type pg from 'pg';
import type { OverJoining } from '@fadenweg/core/stitching';
import type { Batch } from '../evidence/batch.ts';
import { Access } from '../platform/access.ts';
import type { Platform } from '../platform/room.ts';
import type { Piece, WorkKind } from '../platform/work/types.ts';
import { Spent } from './spent.ts';
import { WeaverThread, type Woven } from './weaver-thread.ts';

/** While sources are read, weaving takes at most about this share of the time. */
const SHARE = 0.2;
const SHORTEST_PAUSE = 1500;
/** A short import is woven once, at its end; a long one for the first time after this, in milliseconds. */
const FIRST_PAUSE = 30_000;
/** What is read again is woven as a whole, and that again at its end: only where it takes long is it woven in between. */
const AGAIN_PAUSE = 300_000;
/** While sources are read, what is asked for waits so long for more, in milliseconds; and so long else. */
const TOGETHER = { reading: 400, quiet: 20 };

/**
 * `all`: every strand anew; `fresh`: what the thread has in memory is out of date (sources were taken out, kinds changed); `ends`: reading again ends with
 * it (what an earlier version left in line does not say so).
 */
export interface WeavingArgs {
  all: boolean;
  fresh: boolean;
  ends?: boolean;
}
interface Waiter {
  /** For all; else only until what is stored is tied. */
  judged: boolean;
  resolve(): void;
  reject(error: Error): void;
}
const NAME = 'weave';

/**
 * Keeps strands in step with what is stored. That something is to be woven stands as work in the database, written with each batch; a thread, which is
 * told of every batch, does it in pauses that grow with the work.
 */
export class Weaving {
  /** Something was told since the last weaving began. */
  private dirty = false;
  private busy = false;
  /** What was woven last while sources were being read is not carried over yet. */
  private uncarried = false;
  /** What was tied last is not judged yet. */
  private unjudged = false;
  /** Asked for since the last weaving began. */
  private wanted = false;
  private pausedUntil = 0;
  /** When the last weaving is long enough ago. */
  private restedAt = 0;
  private waiting: Waiter[] = [];
  /** Pieces whose end is watched for those who wait. */
  private readonly watched = new Set<number>();
  behind = 0;
  /** How long each kind of its work has taken since the start, in milliseconds. */
  spent = new Spent().ms;
  /** Kinds of links that joined too much, as of the last whole weaving. */
  joining: readonly OverJoining[] = [];

  readonly kind: WorkKind<WeavingArgs> = {
    name: NAME,
    label: 'Working out strands',
    merge: (one, other) => ({ all: one.all || other.all, fresh: one.fresh || other.fresh, ends: (one.ends ?? false) || (other.ends ?? false) }),
    afterStop: () => ({ all: true, fresh: true }),
    run: (piece) => this.run(piece),
  };

  /** @param reading whether sources are being read at the moment */
  constructor(
    private readonly platform: Platform,
    private readonly reading: () => boolean,
    private readonly thread: Pick<WeaverThread, 'stored' | 'again' | 'changed' | 'hurry' | 'weave' | 'close'> = weaverThread(platform),
  ) {}

  /** A dead process left something to weave. */
  async start(): Promise<void> {
    this.wanted ||= await this.platform.work.waits(NAME);
  }
  /** Something is woven, or waits to be. */
  get atWork(): boolean {
    return this.busy || this.dirty || this.uncarried || this.unjudged || this.wanted;
  }
  /**
   * Notes, in the transaction that stores batches, that there is something to weave: its last statement.
   *
   * @param followed it comes from a file that grows: nobody waits for its end, and it is woven as soon as it may
   */
  async note(client: pg.ClientBase, followed: boolean): Promise<void> {
    if (!this.dirty && !this.busy && !followed) this.pausedUntil = Math.max(this.pausedUntil, Date.now() + FIRST_PAUSE);
    await this.platform.work.ask(NAME, { why: 'records came in', who: Access.ownWork.who, args: NOTHING_MORE, after: this.pause() }, client);
  }
  /** A batch that was noted is committed. */
  stored(batch: Batch): void {
    this.dirty = true;
    this.thread.stored(batch);
    this.platform.work.soon();
  }
  /** Asks for a weaving now. */
  async ask(all: boolean, fresh: boolean, why: string, ends = false): Promise<void> {
    this.wanted = true;
    await this.enqueue({ all, fresh, ends }, why, this.together());
  }
  /**
   * Asks for a weaving of what is stored by now, once what is read again is there or after a while: whoever sees that all is read asks for it at once.
   *
   * @param all also of what is not named in what is read again
   */
  async askLater(all: boolean): Promise<void> {
    this.wanted = true;
    this.pausedUntil = Math.max(this.pausedUntil, Date.now() + AGAIN_PAUSE);
    await this.enqueue({ all, fresh: true }, 'sources are read again', this.pause());
  }
  /** Asks for a weaving as soon as the last one is long enough ago. */
  async soon(): Promise<void> {
    this.pausedUntil = Math.min(this.pausedUntil, this.restedAt);
    this.wanted = true;
    await this.enqueue(NOTHING_MORE, 'a followed file has grown', this.pause());
  }
  /** Resolves when all that is stored is woven; rejects where that failed for good. */
  settle(): Promise<void> {
    return this.wait(true);
  }
  /** Resolves when it stands what belongs to which strand of all that is stored; strands may be judged later. */
  tied(): Promise<void> {
    return this.wait(false);
  }
  /** Sources are about to be read again from their beginning. */
  again(sources: readonly number[]): void {
    this.thread.again(sources);
  }
  /** Records that belong to these keys are others than before, and these keys are tied (a, b, first, last …): it stands in the database already. */
  async changed(keys: readonly number[], tied: readonly number[], why: string): Promise<void> {
    this.thread.changed(keys, tied);
    await this.ask(false, false, why);
  }
  close(): Promise<void> {
    return this.thread.close();
  }

  private async wait(judged: boolean): Promise<void> {
    if (!this.atWork) return;
    const done = new Promise<void>((resolve, reject) => this.waiting.push({ judged, resolve, reject }));
    done.catch(() => {}); // told to whoever waits for it
    // what is judged now may have to be judged again for what whoever waits finds out
    if (this.busy && this.waiting.every((one) => !one.judged)) this.thread.hurry();
    await this.enqueue(NOTHING_MORE, 'an import ends', this.together());
    return done;
  }
  private together(): number {
    return this.reading() ? TOGETHER.reading : TOGETHER.quiet;
  }
  private pause(): number {
    return Math.max(this.pausedUntil - Date.now(), this.together());
  }
  private async enqueue(args: WeavingArgs, why: string, after: number): Promise<void> {
    const id = await this.platform.work.ask(NAME, { why, who: Access.ownWork.who, args, after });
    if (this.watched.has(id)) return;
    this.watched.add(id);
    this.platform.work.finished(id).then(
      () => this.watched.delete(id),
      (error: Error) => {
        this.watched.delete(id);
        for (const { reject } of this.waiting.splice(0)) reject(error);
      },
    );
  }

  private async run(piece: Piece<WeavingArgs>): Promise<void> {
    const { all, fresh } = piece.args;
    this.wanted = false;
    this.dirty = false;
    this.busy = true;
    // who waits for the end of an import waits for what is carried over too, and not for the reading of others
    this.uncarried = this.reading() && this.waiting.length === 0;
    this.unjudged = this.waiting.length > 0 && this.waiting.every((one) => !one.judged);
    const order = { all, fresh, carrying: !this.uncarried, judging: !this.unjudged, ending: this.waiting.length > 0 || (piece.args.ends ?? false) };
    piece.tell('working out what belongs together');
    try {
      const woven = await this.thread.weave(order, (done, of) => this.judged(piece, done, of), piece.signal);
      this.busy = false;
      await this.woven(woven);
    } catch (error) {
      piece.args = { all: true, fresh: true };
      this.wanted = true;
      throw error;
    } finally {
      this.busy = false;
      this.behind = 0;
    }
  }
  private judged(piece: Piece<WeavingArgs>, done: number, of: number): void {
    this.behind = of - done;
    piece.tell(`judging strands: ${done.toLocaleString('en')} of ${of.toLocaleString('en')}`, of === 0 ? null : done / of);
  }
  private async woven(told: Woven): Promise<void> {
    this.spent = told.spent;
    this.unjudged ||= told.left;
    if (told.joining) this.joining = told.joining;
    this.platform.happenings.echo('woven', { strands: told.strands });
    this.restedAt = Date.now() + Math.max(SHORTEST_PAUSE, told.ms * (1 / SHARE - 1));
    this.pausedUntil = this.unjudged ? Date.now() + FIRST_PAUSE : this.restedAt;
    if (!this.dirty && !this.wanted) {
      // what is not carried over tells nothing of links that join too much: whoever waits looks at that
      const served = (one: Waiter): boolean => !this.uncarried && (!one.judged || !this.unjudged);
      const done = this.waiting.filter(served);
      this.waiting = this.waiting.filter((one) => !served(one));
      for (const { resolve } of done) resolve();
    }
    if (this.waiting.length > 0) await this.enqueue(NOTHING_MORE, 'an import ends', this.together());
    else if (this.dirty || this.wanted || this.unjudged || (this.uncarried && !this.reading()))
      await this.enqueue(NOTHING_MORE, 'more came in meanwhile', this.pause());
  }
}
const weaverThread = (platform: Platform): WeaverThread =>
  new WeaverThread(platform.data.by(Access.ownWork).url, (error) => platform.log.error({ err: error }, 'the weaver is started again'));
const NOTHING_MORE: WeavingArgs = { all: false, fresh: false };
