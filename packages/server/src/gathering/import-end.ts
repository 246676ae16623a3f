import type pg from 'pg';
import type { BetterTimes } from '@fadenweg/core/reading';
import type { Database } from '../database/connect.ts';
import { isDatabaseAway, isTransient } from '../database/failures.ts';
import { Access } from '../platform/access.ts';
import type { Platform } from '../platform/room.ts';
import type { Piece, WorkKind } from '../platform/work/types.ts';
import type { ImportRepository, ImportRow } from './imports.ts';
import type { CopyRepository } from '../evidence/copies.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { Weaving } from '../weaving/weaving.ts';
import type { Clocks } from '../looks/clocks.ts';
import type { Copies } from '../looks/copies/copies.ts';
import type { Discovery } from '../looks/discovery.ts';
import type { RoleGuard } from '../looks/role-guard.ts';
import type { SourceEnds } from '../looks/source-ends.ts';
import type { SourceLanes } from '../looks/source-lanes.ts';
import type { BetterNames, SourceNames } from '../looks/source-names.ts';
import type { SourceSamples } from '../looks/source-samples.ts';
import type { SourceSnapshots } from '../looks/source-snapshots.ts';
import type { SourceTimes } from '../looks/source-times.ts';

export const MOST_ERRORS = 100;
/** Records of an import from which links that nobody declared are looked for. */
const FEWEST = 1000;

/** What an import is looked at for when all of it is read; what turns out to be amiss is read again before it ends. */
export interface Looks {
  samples: SourceSamples;
  snapshots: SourceSnapshots;
  lanes: SourceLanes;
  times: SourceTimes;
  names: SourceNames;
  ends: SourceEnds;
  discovery: Discovery;
  clocks: Clocks;
  guard: RoleGuard;
  copies: Copies;
}
export interface Does {
  /** Keeps in mind that sources have to be read again. */
  due(ids: readonly number[]): Promise<void>;
  readAgain(ids: readonly number[], sameNames?: boolean): Promise<void>;
  /** Tells of something that went wrong in an import. */
  note(importId: number, path: string, error: string): Promise<void>;
}

/** What is looked for once more when identifiers are declared that were none before. */
const LEFT = ['links', 'guard', 'clocks'] as const;
type Left = (typeof LEFT)[number];
const MARK = 'looks-left';
const NAME = 'end-import';

/** Sees to it that an import ends when all that it brought is read, read rightly, tied and judged. It is work: a kill loses none of it. */
export class ImportEnd {
  /** Imports whose clocks were compared. */
  private readonly straight = new Set<number>();
  /** Records that an import which follows had when it was looked at as a whole. */
  private readonly considered = new Map<number, number>();

  readonly kind: WorkKind<{ importId: number }> = {
    name: NAME,
    label: 'Ending an import',
    run: (piece) => this.lookAtEnd(piece.args.importId, piece),
  };

  constructor(
    private readonly platform: Platform,
    private readonly db: Database,
    private readonly rows: ImportRepository,
    private readonly sources: SourceRepository,
    private readonly copies: CopyRepository,
    private readonly weaving: Weaving,
    private readonly looks: Looks,
    private readonly does: Does,
  ) {}

  /**
   * Called whenever a source has ended: the import ends with its last source.
   *
   * @param trx where given, the last thing in it
   */
  async check(importId: number, trx?: pg.ClientBase, after = 0): Promise<void> {
    await this.platform.work.ask(
      NAME,
      { about: aboutImport(importId), why: 'a source was read to its end', who: Access.ownWork.who, args: { importId }, after },
      trx,
    );
  }
  /** Identifiers are declared that were none when imports ended: what they are looked at for may show only now, once they are read. */
  async declared(): Promise<void> {
    await this.leave(LEFT);
    this.considered.clear();
  }
  private async left(): Promise<Left[]> {
    const row: { value: string } | undefined = await this.db('mark').where({ name: MARK }).first('value');
    return row ? (JSON.parse(row.value) as Left[]) : [];
  }
  private async leave(left: readonly Left[]): Promise<void> {
    const value = JSON.stringify(left);
    await this.db('mark').insert({ name: MARK, value }).onConflict('name').merge();
  }
  private async lookAtEnd(importId: number, piece: Saying): Promise<void> {
    const row = await this.rows.one(importId);
    if (row?.state === 'done' || row?.state === 'failed') return this.lookOnceMore(importId, piece);
    if (row?.state === 'following') return this.grown(row, piece);
    if (row?.state !== 'reading') return;
    if (await this.sources.anyUnread(importId)) return;
    for (const { path, error } of await this.sources.failedOf(importId, MOST_ERRORS))
      await this.does.note(importId, path, error ?? 'could not be read');
    await this.sources.counted();
    piece.tell('looking at what was not understood');
    if (await this.sampledElsewhere(importId)) return;
    piece.tell('comparing times and names with those of other sources');
    if ((await this.bettered(importId)) || (await this.atTheirEnds(importId))) return;
    // both take a while; what is discovered is read again at once
    const tied = this.weaving.tied();
    tied.catch(() => {}); // told below
    piece.tell('looking for links that nobody declared');
    if (!this.straight.has(importId) && (await this.discovered(importId))) return;
    if (await this.parted(importId)) return;
    piece.tell('waiting for what belongs together to be worked out');
    await tied;
    if (await this.guarded(importId)) return;
    // before strands are judged: they would be judged again for every clock that is amiss
    piece.tell('comparing the clocks of hosts');
    if (await this.straightened(importId)) return;
    piece.tell('looking for copies: events that several sources tell');
    if (await this.copied(importId)) return;
    await this.leave([]);
    piece.tell('waiting for strands to be judged');
    await this.weaving.settle();
    await this.rows.end(importId, (await this.sources.nothingRead(importId)) ? 'failed' : 'done');
  }

  /** Read again by itself, after its import: for what was declared since, by which zones show too. */
  private async lookOnceMore(importId: number, piece: Saying): Promise<void> {
    piece.tell('comparing times with those of other sources');
    if ((await this.sources.unread()) > 0 || (await this.changed(await this.looks.times.betterZones(), null))) return;
    let left = await this.left();
    if (left.length > 0) {
      piece.tell('looking for what shows only now');
      await this.weaving.tied();
    }
    while (left.length > 0) {
      const [look, ...rest] = left;
      await this.leave(rest);
      if (await this.lookFor(look!, importId)) return;
      left = rest;
    }
    if (await this.parted(null)) return;
    piece.tell('looking for copies: events that several sources tell');
    if (await this.copied(null)) return;
    await this.weaving.ask(false, false, 'sources were read again', true);
  }
  private lookFor(look: Left, importId: number): Promise<boolean> {
    if (look === 'links') return this.discovered(importId, false);
    return look === 'guard' ? this.guarded(importId, false) : this.straightened(importId, false);
  }

  /** What is followed is woven soon; when there is twice as much as before, it is looked at for what an import is looked at for at its end. */
  private async grown({ id }: ImportRow, piece: Saying): Promise<void> {
    await this.weaving.soon();
    const { records } = await this.rows.sums(id);
    if (records < Math.max(FEWEST, 2 * (this.considered.get(id) ?? 0)) || (await this.sources.anyUnread(id))) return;
    this.considered.set(id, records);
    this.straight.delete(id);
    piece.tell('looking at what has been followed so far');
    if ((await this.sampledElsewhere(id)) || (await this.bettered(id))) return;
    await this.weaving.tied();
    if ((await this.discovered(id)) || (await this.guarded(id)) || (await this.straightened(id))) return;
    await this.copied(id);
  }

  /** A zone is guessed once for each source; a year is right once it is taken from the neighbours. */
  private async bettered(importId: number): Promise<boolean> {
    return this.changed(await this.looks.times.better(importId), importId, await this.looks.names.better(importId));
  }
  /** @param importId the import that ends with what is read again, null where none waits for it */
  private async changed(better: readonly BetterTimes[], importId: number | null, named: readonly BetterNames[] = []): Promise<boolean> {
    for (const { id, ...names } of named) await this.sources.change(id, names);
    for (const { id, zone, hints } of better)
      await this.sources.change(id, { ...(zone ? { zone, zone_by: 'guessed' as const } : {}), ...(hints ? { hints } : {}) });
    const ids = [...new Set([...better, ...named].map((one) => one.id))];
    return this.again(ids, importId);
  }
  /** @param importId the import that ends with what is read again, null where none waits for it */
  private async again(ids: readonly number[], importId: number | null, sameNames = false): Promise<boolean> {
    if (ids.length === 0) return false;
    const all = await this.copies.withCopies(ids);
    if (importId !== null) await this.sources.readFor(all, importId);
    await this.does.readAgain(all, sameNames);
    return true;
  }

  /** What is not written as its beginning is, is read by other places of it, and a table of states as such; once each. */
  private async sampledElsewhere(importId: number): Promise<boolean> {
    const better = [...(await this.looks.samples.better(importId)), ...(await this.looks.snapshots.better(importId))];
    for (const { id, ...change } of better) await this.sources.change(id, change);
    return this.again(better.map((one) => one.id), importId); // prettier-ignore
  }

  /** Sources in which a field parts the work on several transactions. */
  private async parted(importId: number | null): Promise<boolean> {
    const better = await this.looks.lanes.better(importId);
    for (const { id, hints } of better) await this.sources.change(id, { hints });
    return this.again(better.map((one) => one.id), importId, true); // prettier-ignore
  }

  /** Records that state a duration stand at its end, until it shows that a source's stand at its begin: then it is read again. */
  private async atTheirEnds(importId: number): Promise<boolean> {
    const { again, same } = await this.looks.ends.better(importId);
    for (const { id, hints } of [...again, ...same]) await this.sources.change(id, { hints });
    return this.again(again.map((one) => one.id), importId, true); // prettier-ignore
  }

  /**
   * Links that show only now are taken up: what they occur in is read again.
   *
   * @param waiting the import ends with what is read again
   */
  private async discovered(importId: number, waiting = true): Promise<boolean> {
    if ((await this.rows.sums(importId)).records < FEWEST) return false;
    try {
      const ids: number[] = [];
      for (const environment of await this.environmentsFor(importId, waiting))
        ids.push(...(await this.looks.discovery.run(environment, this.does.due)));
      return await this.again(ids, waiting ? importId : null);
    } catch (error) {
      if (isDatabaseAway(error) || isTransient(error)) throw error;
      await this.does.note(importId, '', `links that nobody declared could not be looked for: ${(error as Error).message}`);
      return false;
    }
  }

  /** That of the import; what is looked for once more, for nobody in particular, is looked for everywhere. */
  private async environmentsFor(importId: number, waiting: boolean): Promise<string[]> {
    if (!waiting) return (await this.sources.environments()).map((one) => one.name);
    return [...new Set((await this.sources.sources({ read_for: importId })).map((source) => source.environment))];
  }

  /** Links that join too much lose their tie: what names them is read again. */
  private async guarded(importId: number, waiting = true): Promise<boolean> {
    const ids = await this.looks.guard.check(this.weaving.joining, this.does.due);
    return this.again(ids, waiting ? importId : null);
  }

  /**
   * Events that several sources tell become one record each, once times are right. What was shown for others and turns out to be a copy itself is read again, with these.
   *
   * @param importId the import that ends with what is read again, null where none waits for it
   */
  private async copied(importId: number | null): Promise<boolean> {
    try {
      const { records, keys, tied, again } = await this.looks.copies.run();
      if (records > 0) await this.weaving.changed(keys, tied, 'copies were taken out of sight');
      return await this.again(again, importId);
    } catch (error) {
      if (isDatabaseAway(error) || isTransient(error) || importId === null) throw error;
      await this.does.note(importId, '', `copies could not be looked for: ${(error as Error).message}`);
      return false;
    }
  }

  /** Clocks that turn out to be amiss are put right: what they wrote is read again. Once an import, whatever comes of it. */
  private async straightened(importId: number, waiting = true): Promise<boolean> {
    const { records, first, last } = await this.rows.sums(importId);
    if (records < FEWEST || first === null || last === null || (waiting && this.straight.has(importId))) return false;
    this.straight.add(importId);
    try {
      const environments = await this.environmentsFor(importId, waiting);
      const ids = await this.looks.clocks.estimate(first, last, environments, this.does.due);
      return await this.again(ids, waiting ? importId : null, true);
    } catch (error) {
      if (isDatabaseAway(error) || isTransient(error)) throw error;
      await this.does.note(importId, '', `the clocks of the hosts could not be compared: ${(error as Error).message}`);
      return false;
    }
  }
}

type Saying = Pick<Piece<unknown>, 'tell'>;
/** What a piece of work for an import is for. */
export const aboutImport = (importId: number): string => `import ${importId}`;
