import { createHash } from 'node:crypto';
import { mkdir, open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import type pg from 'pg';
import { Access } from '../platform/access.ts';
import type { Platform } from '../platform/room.ts';
import type { WorkKind } from '../platform/work/types.ts';
import { describe, HEAD, prefixHash, type DescribedFile } from './intake/describe.ts';
import type { Intake } from './intake/intake.ts';
import { familyOf } from '@fadenweg/core/reading';
import type { CopyRepository } from '../evidence/copies.ts';
import type { Names } from '../evidence/names.ts';
import type { ImportRepository, ImportRow } from './imports.ts';
import type { NewSource, SourceRepository, SourceRow } from '../evidence/sources.ts';
import type { Weaving } from '../weaving/weaving.ts';
import { ArrivalsOfImport } from './arrivals-of-import.ts';
import { aboutImport, ImportEnd, MOST_ERRORS, type Looks } from './import-end.ts';
import { ImportProgress } from './import-progress.ts';
import { spool, unpack, type Arrived } from './unpack.ts';

export interface Arriving {
  environment: string;
  zone: string;
  /** A person said so: it is not guessed at. */
  stated: boolean;
  demo: boolean;
  access: Access;
}

/** Takes files in, follows their reading, and takes imports out again. */
export class ImportService {
  private readonly end: ImportEnd;
  readonly progress: ImportProgress;
  /** By import, while its files arrive. */
  private readonly arrivals = new Map<number, ArrivalsOfImport>();

  constructor(
    private readonly platform: Platform,
    readonly rows: ImportRepository,
    private readonly sources: SourceRepository,
    private readonly names: Names,
    private readonly copies: CopyRepository,
    private readonly intake: () => Intake,
    private readonly weaving: Weaving,
    looks: Looks,
    private readonly spool: string,
    private readonly unfollow: (importId: number) => Promise<void>,
  ) {
    this.progress = new ImportProgress(rows, platform.work, () => this.intake().heldUpBy);
    this.end = new ImportEnd(platform, platform.data.by(Access.ownWork).db, rows, sources, copies, weaving, looks, {
      due: (ids) => this.due(ids),
      readAgain: (ids, sameNames) => this.readAgain(ids, sameNames),
      note: (importId, path, error) => this.note(importId, path, error),
    });
    platform.work.add(this.end.kind);
    platform.work.add(this.rereading);
    platform.work.add(this.removing);
  }

  /** Called whenever a source has ended: the import ends with its last source. */
  checkEnd(importId: number, trx?: pg.ClientBase, after?: number): Promise<void> {
    return this.end.check(importId, trx, after);
  }
  /** Identifiers are declared that were none before; what names them is about to be read again. */
  declared(): Promise<void> {
    return this.end.declared();
  }
  async begin({ environment, zone, stated, demo, access }: Arriving): Promise<number> {
    await mkdir(this.spool, { recursive: true });
    return this.rows.add({ state: 'receiving', environment, zone, zone_stated: stated, demo, who: access.who });
  }

  /** Spools one file's bytes, unpacks them where they are an archive, and queues what is inside for reading. */
  async receive(importId: number, path: string, content: Readable, modified: Date): Promise<void> {
    const file = join(this.spool, `${importId}-${process.hrtime.bigint()}`);
    const whole: Arrived = { path, modified, file, ...(await spool(content, file)) };
    const arrivals = await this.arrivalsOf(importId);
    arrivals.count({ bytes: whole.size });
    for await (const member of unpack(whole)) {
      if ('problem' in member) await this.note(importId, member.path, member.problem);
      else await this.take(arrivals, member);
    }
  }
  private async arrivalsOf(importId: number): Promise<ArrivalsOfImport> {
    const known = this.arrivals.get(importId);
    if (known) return known;
    const row = await this.rows.one(importId);
    if (!row) throw new Error('the import was taken out');
    const arrivals = new ArrivalsOfImport(row, this.rows, this.queued);
    this.arrivals.set(importId, arrivals);
    return arrivals;
  }

  /** Queues a file for reading; bytes that are there already add nothing. */
  private async take(arrivals: ArrivalsOfImport, { path, file, size, contentHash, modified }: Arrived): Promise<void> {
    const { row } = arrivals;
    arrivals.count({ files: 1 });
    const about = await describe(file, path, modified.getTime() * 1000, row.zone);
    if (about.problem) {
      await this.note(row.id, path, about.problem);
      await rm(file, { force: true });
      return;
    }
    const held = arrivals.holds(size, contentHash);
    const { same, shorter } = held
      ? { same: true, shorter: [] }
      : await this.sources.twin(familyOf(path), size, contentHash, about.headHash, row.environment);
    if (same) {
      arrivals.count({ already_there: 1 });
      await rm(file, { force: true });
      return;
    }
    for (const before of shorter) {
      if ((await prefixHash(file, before.size)) !== before.content_hash) continue;
      await this.goOn(before, row.id, file, size, contentHash);
      return;
    }
    await arrivals.add(await this.sourceOf(row, about, { path, file, size, contentHash, growing: false }));
  }
  private async sourceOf(
    { id, zone, zone_stated: stated, environment, demo }: ImportRow,
    about: DescribedFile,
    { path, file, size, contentHash, growing }: Omit<Arrived, 'modified'> & { growing: boolean },
  ): Promise<NewSource> {
    return {
      import_id: id,
      read_for: id,
      path,
      family: familyOf(path),
      format: about.format,
      confidence: about.confidence,
      zone,
      zone_by: stated ? 'set' : 'given',
      encoding: about.encoding,
      hints: about.hints,
      component_id: await this.names.idOf('component', about.component),
      host_id: await this.names.idOf('host', about.host),
      environment,
      demo,
      size,
      head_hash: about.headHash,
      content_hash: contentHash,
      spool: file,
      growing,
      state: 'waiting',
    };
  }

  /** The import that what is followed comes in with: it has no end. */
  async beginFollowing({ environment, zone, stated, demo, access }: Arriving): Promise<number> {
    await mkdir(this.spool, { recursive: true });
    return this.rows.add({ state: 'following', environment, zone, zone_stated: stated, demo, who: access.who });
  }
  /**
   * A source that goes on growing, with its first bytes in a file of the spool.
   *
   * @returns null where it is no log; the import tells why
   */
  async beginGrowing(importId: number, first: Omit<Arrived, 'modified'>): Promise<number | null> {
    const row = (await this.rows.one(importId))!;
    const about = await describe(first.file, first.path, Date.now() * 1000, row.zone);
    if (about.problem) {
      await this.note(importId, first.path, about.problem);
      await rm(first.file, { force: true });
      return null;
    }
    await this.rows.countIn(importId, { files: 1 });
    return this.sources.add(await this.sourceOf(row, about, { ...first, growing: true }));
  }
  /** Nothing more comes; it ends as soon as what came is read. */
  async endFollowing(importId: number): Promise<void> {
    if ((await this.rows.one(importId))?.state === 'following') await this.received(importId, null);
  }
  /** A source that holds a file's bytes already, or the longest one that holds its beginning. */
  async twin(path: string, file: string, environment: string): Promise<{ same: SourceRow | null; shorter: SourceRow | null }> {
    const head = Buffer.alloc(HEAD);
    const handle = await open(file);
    const [{ size }, { bytesRead }] = await Promise.all([handle.stat(), handle.read(head, 0, HEAD, 0)]).finally(() => handle.close());
    const headHash = createHash('sha256').update(head.subarray(0, bytesRead)).digest('hex');
    // also one that is being read, as after a kill: whoever goes on with it waits until it is
    const states = ['done', 'waiting', 'reading'] as const;
    const { same, shorter } = await this.sources.twin(familyOf(path), size, await prefixHash(file, size), headHash, environment, states);
    for (const one of shorter) if ((await prefixHash(file, one.size)) === one.content_hash) return { same, shorter: one };
    return { same, shorter: null };
  }
  /** More of a followed source waits to be read. */
  queued = async (): Promise<void> => {
    this.intake().poke();
  };

  /** A file that has grown since it was read: only what is new is read. */
  private async goOn(before: SourceRow, importId: number, file: string, size: number, contentHash: string): Promise<void> {
    await this.sources.change(before.id, { size, content_hash: contentHash, spool: file, state: 'waiting', read_for: importId });
    await this.queued();
  }
  private async note(importId: number, path: string, error: string): Promise<void> {
    const row = await this.rows.one(importId);
    if (row && row.errors.length < MOST_ERRORS) await this.rows.change(importId, { errors: [...row.errors, { path, error }] });
  }

  /** Notes what has arrived so far. */
  async allNoted(importId: number): Promise<void> {
    const arrivals = this.arrivals.get(importId);
    this.arrivals.delete(importId);
    await arrivals?.flush();
  }
  /** All files of the import have arrived and are noted, or the sender went away. */
  async received(importId: number, problem: string | null): Promise<void> {
    this.arrivals.delete(importId);
    if (problem) await this.note(importId, '', problem);
    await this.rows.change(importId, { state: 'reading' });
    await this.checkEnd(importId);
  }

  /** After a start: uploads that broke off end with what had arrived; what was left of the rest stands as work, and is asked for once more to be sure. */
  async takeUp(): Promise<void> {
    for (const row of await this.rows.unended()) {
      if (row.state === 'receiving') await this.received(row.id, 'the server was stopped while files were arriving; bring the missing ones again');
      else if (row.state === 'removing') await this.askToRemove(row.id, row.who);
      else await this.checkEnd(row.id);
    }
    this.intake().poke();
  }

  /** Cancels a running import or takes a finished one out; nothing of it stays. Resolves when that is done; false where there is none. */
  async remove(importId: number, access: Access): Promise<boolean> {
    const row = await this.rows.one(importId);
    if (!row) return false;
    await this.unfollow(importId);
    await this.arrivals.get(importId)?.drop();
    this.arrivals.delete(importId);
    await this.rows.change(importId, { state: 'removing' });
    await this.platform.work.finished(await this.askToRemove(importId, access.who));
    return true;
  }
  private askToRemove(importId: number, who: string): Promise<number> {
    return this.platform.work.ask(this.removing.name, { about: aboutImport(importId), why: 'it was taken out', who, args: { importId } });
  }
  private readonly removing: WorkKind<{ importId: number }> = {
    name: 'remove-import',
    label: 'Taking an import out',
    run: async ({ args: { importId }, tell }) => {
      const own = await this.sources.sources({ import_id: importId });
      const ids = own.map((source) => source.id);
      tell(`taking out ${ids.length.toLocaleString('en')} sources`);
      await this.sources.cancel(ids);
      await this.intake().cancel(ids);
      // what they were shown for, or told besides, is told by the others alone
      const others = (await this.copies.withCopies(ids)).filter((id) => !ids.includes(id));
      await this.due(others);
      await this.rows.remove(importId);
      if (others.length > 0) await this.readAgain(others);
      for (const { spool } of own) if (spool) await rm(spool, { force: true });
      await this.weaving.ask(true, true, 'an import was taken out');
      tell('waiting for strands to be worked out');
      await this.weaving.settle();
    },
  };

  /** Keeps in mind that sources have to be read again: where nobody comes to ask for it, as after a kill, it is done all the same. */
  due = async (ids: readonly number[]): Promise<void> => {
    if (ids.length > 0) await this.askToReread(ids, true, UNASKED);
  };
  private askToReread(ids: readonly number[], sameNames: boolean, after: number): Promise<number> {
    const why = 'what is known or declared about them has changed';
    return this.platform.work.ask(this.rereading.name, { why, who: Access.ownWork.who, args: { ids: [...ids], sameNames }, after });
  }

  /**
   * Reads sources again from their kept bytes, since what is declared about them has changed. Resolves when what was read of them before is forgotten.
   *
   * @param sameNames they name the same as before, at other times only: strands that they do not touch stay as they are
   */
  async readAgain(ids: readonly number[], sameNames = false): Promise<void> {
    await this.platform.work.finished(await this.askToReread(ids, sameNames, 0));
  }
  private readonly rereading: WorkKind<Rereading> = {
    name: 'read-again',
    label: 'Reading sources again',
    merge: (one, other) => ({ ids: [...new Set([...one.ids, ...other.ids])], sameNames: one.sameNames && other.sameNames }),
    afterStop: (args) => ({ ...args, sameNames: false }),
    run: async ({ args: { ids: asked, sameNames }, tell }) => {
      // of what one of them tells, the others tell nothing by themselves
      const ids = await this.copies.withCopies(asked);
      tell(`forgetting what was read of ${ids.length.toLocaleString('en')} sources`);
      await this.intake().cancel(ids);
      await this.sources.forgetRead(ids);
      this.weaving.again(ids);
      await this.weaving.askLater(!sameNames);
      this.intake().poke();
    },
  };
}

interface Rereading {
  ids: number[];
  sameNames: boolean;
}
/** Who keeps in mind that sources have to be read again asks for it sooner, in milliseconds. */
const UNASKED = 120_000;
