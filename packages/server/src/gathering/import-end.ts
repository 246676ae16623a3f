import type { ImportRepository, ImportRow } from './imports.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { Weaving } from '../weaving/weaving.ts';
import type { Clocks } from '../looks/clocks.ts';
import type { Discovery } from '../looks/discovery.ts';
import type { RoleGuard } from '../looks/role-guard.ts';
import type { BetterTimes, SourceTimes } from '../looks/source-times.ts';

export const MOST_ERRORS = 100;
/** Looks that are under way when the server stops are waited for so long, in milliseconds. */
const LONGEST_CLOSING = 1000;
/** Records of an import from which links that nobody declared are looked for. */
const FEWEST = 1000;

/** What an import is looked at for when all of it is read; what turns out to be amiss is read again before it ends. */
export interface Looks {
  times: SourceTimes;
  discovery: Discovery;
  clocks: Clocks;
  guard: RoleGuard;
}
export interface Does {
  /** Keeps in mind that sources have to be read again. */
  due(ids: readonly number[]): Promise<void>;
  readAgain(ids: readonly number[], sameNames?: boolean): Promise<void>;
  /** Tells of something that went wrong in an import. */
  note(importId: number, path: string, error: string): Promise<void>;
}

/** Sees to it that an import ends when all that it brought is read, read rightly, tied and judged. */
export class ImportEnd {
  /** Imports whose end is looked at. */
  private readonly ends = new Map<number, { again: boolean; done: Promise<void> }>();
  private looking: Promise<number[]> = Promise.resolve([]);
  private closing = false;
  private readonly straight = new Set<number>();
  /** What is looked at again once all is read: identifiers were declared that were none before. */
  private left: ((importId: number) => Promise<boolean>)[] = [];
  /** Records that an import which follows had when it was looked at as a whole. */
  private readonly considered = new Map<number, number>();

  constructor(
    private readonly rows: ImportRepository,
    private readonly sources: SourceRepository,
    private readonly weaving: Weaving,
    private readonly looks: Looks,
    private readonly does: Does,
  ) {}

  /**
   * Called whenever a source has ended: the import ends with its last source. One look at a time for each import, and one more for whoever calls meanwhile: two that
   * both saw the last source ended would not both wait for what one of them reads again.
   */
  check(importId: number): Promise<void> {
    if (this.closing) return Promise.resolve();
    const running = this.ends.get(importId);
    if (running) {
      running.again = true;
      return running.done;
    }
    const look = { again: false, done: Promise.resolve() };
    look.done = (async () => {
      try {
        do {
          look.again = false;
          await this.lookAtEnd(importId);
        } while (look.again && !this.closing);
      } finally {
        this.ends.delete(importId);
      }
    })();
    this.ends.set(importId, look);
    return look.done;
  }
  /** No look begins any more; what is under way has a moment to end. An import that is not looked at now is at the next start. */
  async close(): Promise<void> {
    this.closing = true;
    const looks = Promise.allSettled([...this.ends.values()].map(({ done }) => done));
    let late: NodeJS.Timeout | undefined;
    await Promise.race([looks, new Promise((resolve) => (late = setTimeout(resolve, LONGEST_CLOSING)))]);
    clearTimeout(late);
  }
  /** Identifiers are declared that were none when imports ended: what they are looked at for may show only now, once they are read. */
  declared(): void {
    this.left = [(id) => this.discovered(id, false), (id) => this.guarded(id, false), (id) => this.straightened(id, false)];
    this.considered.clear();
  }
  private async lookAtEnd(importId: number): Promise<void> {
    const row = await this.rows.one(importId);
    if (row?.state === 'done' || row?.state === 'failed') {
      // read again by itself, after its import: for what was declared since, by which zones show too
      if ((await this.sources.unread()) > 0 || (await this.changed(await this.looks.times.betterZones()))) return;
      if (this.left.length > 0) await this.weaving.tied();
      for (let look = this.left.shift(); look; look = this.left.shift()) if (await look(importId)) return;
      this.weaving.ask(false, false);
    }
    if (row?.state === 'following') return this.grown(row);
    if (row?.state !== 'reading') return;
    if (await this.sources.anyUnread(importId)) return;
    for (const { path, error } of await this.sources.failedOf(importId, MOST_ERRORS))
      await this.does.note(importId, path, error ?? 'could not be read');
    await this.sources.counted();
    if (await this.bettered(importId)) return;
    // both take a while; what is discovered is read again at once
    const tied = this.weaving.tied();
    if (!this.straight.has(importId) && (await this.discovered(importId))) return;
    await tied;
    if (await this.guarded(importId)) return;
    // before strands are judged: they would be judged again for every clock that is amiss
    if (await this.straightened(importId)) return;
    this.left = [];
    await this.weaving.settle();
    await this.rows.change(importId, {
      state: (await this.sources.nothingRead(importId)) ? 'failed' : 'done',
      ended_at: new Date(),
    });
    await this.weaving.markDirty(false);
  }

  /** What is followed is woven soon; when there is twice as much as before, it is looked at for what an import is looked at for at its end. */
  private async grown({ id }: ImportRow): Promise<void> {
    this.weaving.soon();
    const { records } = await this.rows.sums(id);
    if (records < Math.max(FEWEST, 2 * (this.considered.get(id) ?? 0)) || (await this.sources.anyUnread(id))) return;
    this.considered.set(id, records);
    this.straight.delete(id);
    if (await this.bettered(id)) return;
    await this.weaving.tied();
    if ((await this.discovered(id)) || (await this.guarded(id))) return;
    await this.straightened(id);
  }

  /** A zone is guessed once for each source; a year is right once it is taken from the neighbours. */
  private async bettered(importId: number): Promise<boolean> {
    return this.changed(await this.looks.times.better(importId));
  }
  private async changed(better: readonly BetterTimes[]): Promise<boolean> {
    for (const { id, zone, hints } of better)
      await this.sources.change(id, { ...(zone ? { zone, zone_by: 'guessed' as const } : {}), ...(hints ? { hints } : {}) });
    if (better.length > 0) await this.does.readAgain(better.map((one) => one.id));
    return better.length > 0;
  }

  /**
   * Links that show only now are taken up: what they occur in is read again. One import at a time looks for them.
   *
   * @param waiting the import ends with what is read again
   */
  private async discovered(importId: number, waiting = true): Promise<boolean> {
    if ((await this.rows.sums(importId)).records < FEWEST) return false;
    const looking = this.looking.then(() => this.looks.discovery.run(this.does.due));
    this.looking = looking.catch(() => []); // told below
    try {
      const ids = await looking;
      if (ids.length > 0) {
        if (waiting) await this.sources.readFor(ids, importId);
        await this.does.readAgain(ids);
      }
      return ids.length > 0;
    } catch (error) {
      await this.does.note(importId, '', `links that nobody declared could not be looked for: ${(error as Error).message}`);
      return false;
    }
  }

  /** Links that join too much lose their tie: what names them is read again. */
  private async guarded(importId: number, waiting = true): Promise<boolean> {
    const ids = await this.looks.guard.check(this.weaving.joining, this.does.due);
    if (ids.length === 0) return false;
    if (waiting) await this.sources.readFor(ids, importId);
    await this.does.readAgain(ids);
    return true;
  }

  /** Clocks that turn out to be amiss are put right: what they wrote is read again. Once an import, whatever comes of it. */
  private async straightened(importId: number, waiting = true): Promise<boolean> {
    const { records, first, last } = await this.rows.sums(importId);
    if (records < FEWEST || first === null || last === null || (waiting && this.straight.has(importId))) return false;
    this.straight.add(importId);
    try {
      const ids = await this.looks.clocks.estimate(first, last, this.does.due);
      if (ids.length > 0) {
        if (waiting) await this.sources.readFor(ids, importId);
        await this.does.readAgain(ids, true);
      }
      return ids.length > 0;
    } catch (error) {
      await this.does.note(importId, '', `the clocks of the hosts could not be compared: ${(error as Error).message}`);
      return false;
    }
  }
}
