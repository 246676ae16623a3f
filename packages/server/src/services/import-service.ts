import { createHash } from 'node:crypto';
import { mkdir, open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import type { ImportInfo } from '@fadenweg/api';
import { describe, HEAD, prefixHash, type Description } from '../intake/describe.ts';
import type { Intake } from '../intake/intake.ts';
import { familyOf } from '../intake/naming.ts';
import type { Names } from '../repositories/names.ts';
import type { ImportRow, SourceRepository, SourceRow } from '../repositories/sources.ts';
import type { Clocks } from './clocks.ts';
import type { Discovery } from './discovery.ts';
import type { Weaving } from '../weaving/weaving.ts';
import type { RoleGuard } from './role-guard.ts';
import type { SourceTimes } from './source-times.ts';
import { spool, unpack, type Arrived } from './unpack.ts';

const MOST_ERRORS = 100;

export interface Arriving {
  environment: string;
  zone: string;
  demo: boolean;
  who: string;
}

/** Records of an import from which links that nobody declared are looked for. */
const FEWEST = 1000;

/** Takes files in, follows their reading, and takes imports out again. */
export class ImportService {
  /** Imports whose end is looked at. */
  private readonly ends = new Map<number, { again: boolean; done: Promise<void> }>();
  private looking: Promise<number[]> = Promise.resolve([]);
  private readonly straight = new Set<number>();
  /** Records that an import which follows had when it was looked at as a whole. */
  private readonly considered = new Map<number, number>();
  private readonly rates = new Map<number, { at: number; records: number; bytes: number; perSecond: number; bytesPerSecond: number }>();

  constructor(
    private readonly sources: SourceRepository,
    private readonly names: Names,
    private readonly intake: () => Intake,
    private readonly weaving: Weaving,
    private readonly times: SourceTimes,
    private readonly discovery: Discovery,
    private readonly clocks: Clocks,
    private readonly guard: RoleGuard,
    private readonly spool: string,
    private readonly unfollow: (importId: number) => Promise<void>,
  ) {}

  async begin({ environment, zone, demo, who }: Arriving): Promise<number> {
    await mkdir(this.spool, { recursive: true });
    return this.sources.addImport({ state: 'receiving', environment, zone, demo, who });
  }

  /** Spools one file's bytes, unpacks them where they are an archive, and queues what is inside for reading. */
  async receive(importId: number, path: string, content: Readable, modified: Date): Promise<void> {
    const file = join(this.spool, `${importId}-${process.hrtime.bigint()}`);
    const whole: Arrived = { path, modified, file, ...(await spool(content, file)) };
    const row = await this.sources.countIn(importId, { bytes: whole.size });
    for await (const member of unpack(whole)) {
      if ('problem' in member) await this.note(importId, member.path, member.problem);
      else await this.take(row, member);
    }
  }

  /** Queues a file for reading; bytes that are there already add nothing. */
  private async take(row: ImportRow, { path, file, size, contentHash, modified }: Arrived): Promise<void> {
    const importId = row.id;
    await this.sources.countIn(importId, { files: 1 });
    const about = await describe(file, path, modified.getTime() * 1000, row.zone);
    if (about.problem) {
      await this.note(importId, path, about.problem);
      await rm(file, { force: true });
      return;
    }
    const family = familyOf(path);
    const { same, shorter } = await this.sources.twin(family, size, contentHash, about.headHash);
    if (same) {
      await this.sources.countIn(importId, { already_there: 1 });
      await rm(file, { force: true });
      return;
    }
    for (const before of shorter) {
      if ((await prefixHash(file, before.size)) !== before.content_hash) continue;
      await this.goOn(before, importId, file, size, contentHash);
      return;
    }
    await this.add(row, about, { path, file, size, contentHash, growing: false });
    await this.queued();
  }
  private async add(
    { id, zone, environment, demo }: ImportRow,
    about: Description,
    { path, file, size, contentHash, growing }: Omit<Arrived, 'modified'> & { growing: boolean },
  ): Promise<number> {
    return this.sources.add({
      import_id: id,
      read_for: id,
      path,
      family: familyOf(path),
      format: about.format,
      confidence: about.confidence,
      zone,
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
    });
  }

  /** The import that what is followed comes in with: it has no end. */
  async beginFollowing({ environment, zone, demo, who }: Arriving): Promise<number> {
    await mkdir(this.spool, { recursive: true });
    return this.sources.addImport({ state: 'following', environment, zone, demo, who });
  }
  /**
   * A source that goes on growing, with its first bytes in a file of the spool.
   *
   * @returns null where it is no log; the import tells why
   */
  async beginGrowing(importId: number, first: Omit<Arrived, 'modified'>): Promise<number | null> {
    const row = (await this.sources.import(importId))!;
    const about = await describe(first.file, first.path, Date.now() * 1000, row.zone);
    if (about.problem) {
      await this.note(importId, first.path, about.problem);
      await rm(first.file, { force: true });
      return null;
    }
    await this.sources.countIn(importId, { files: 1 });
    return this.add(row, about, { ...first, growing: true });
  }
  /** Nothing more comes; it ends as soon as what came is read. */
  async endFollowing(importId: number): Promise<void> {
    if ((await this.sources.import(importId))?.state === 'following') await this.received(importId, null);
  }
  /** A source that holds a file's bytes already, or the longest one that holds its beginning. */
  async twin(path: string, file: string): Promise<{ same: SourceRow | null; shorter: SourceRow | null }> {
    const head = Buffer.alloc(HEAD);
    const handle = await open(file);
    const [{ size }, { bytesRead }] = await Promise.all([handle.stat(), handle.read(head, 0, HEAD, 0)]).finally(() => handle.close());
    const headHash = createHash('sha256').update(head.subarray(0, bytesRead)).digest('hex');
    const { same, shorter } = await this.sources.twin(familyOf(path), size, await prefixHash(file, size), headHash);
    for (const one of shorter) if ((await prefixHash(file, one.size)) === one.content_hash) return { same, shorter: one };
    return { same, shorter: null };
  }
  /** More of a followed source waits to be read. */
  queued = async (): Promise<void> => {
    await this.weaving.markDirty(true);
    this.intake().poke();
  };

  /** A file that has grown since it was read: only what is new is read. */
  private async goOn(before: SourceRow, importId: number, file: string, size: number, contentHash: string): Promise<void> {
    await this.sources.change(before.id, { size, content_hash: contentHash, spool: file, state: 'waiting', read_for: importId });
    await this.queued();
  }
  private async note(importId: number, path: string, error: string): Promise<void> {
    const row = await this.sources.import(importId);
    if (row && row.errors.length < MOST_ERRORS) await this.sources.changeImport(importId, { errors: [...row.errors, { path, error }] });
  }

  /** All files of the import have arrived, or the sender went away. */
  async received(importId: number, problem: string | null): Promise<void> {
    if (problem) await this.note(importId, '', problem);
    await this.sources.changeImport(importId, { state: 'reading' });
    await this.checkEnd(importId);
  }

  /**
   * Called whenever a source has ended: the import ends with its last source. One look at a time for each import, and one more for whoever calls meanwhile: two that
   * both saw the last source ended would not both wait for what one of them reads again.
   */
  checkEnd(importId: number): Promise<void> {
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
        } while (look.again);
      } finally {
        this.ends.delete(importId);
      }
    })();
    this.ends.set(importId, look);
    return look.done;
  }
  private async lookAtEnd(importId: number): Promise<void> {
    const row = await this.sources.import(importId);
    if (row?.state === 'done' || row?.state === 'failed') {
      // read again by itself, after its import
      if ((await this.sources.unread()) === 0) this.weaving.ask(false, false);
    }
    if (row?.state === 'following') return this.grown(row);
    if (row?.state !== 'reading') return;
    if (await this.sources.anyUnread(importId)) return;
    for (const { path, error } of await this.sources.failedOf(importId, MOST_ERRORS)) await this.note(importId, path, error ?? 'could not be read');
    if (await this.bettered(importId)) return;
    // both take a while; what is discovered is read again at once
    const tied = this.weaving.tied();
    if (!this.straight.has(importId) && (await this.discovered(importId))) return;
    await tied;
    if (await this.guarded(importId)) return;
    // before strands are judged: they would be judged again for every clock that is amiss
    if (await this.straightened(importId)) return;
    await this.weaving.settle();
    await this.sources.changeImport(importId, {
      state: (await this.sources.nothingRead(importId)) ? 'failed' : 'done',
      ended_at: new Date(),
    });
    await this.weaving.markDirty(false);
  }

  /** What is followed is woven soon; when there is twice as much as before, it is looked at for what an import is looked at for at its end. */
  private async grown({ id }: ImportRow): Promise<void> {
    this.weaving.soon();
    const { records } = await this.sources.sums(id);
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
    const better = await this.times.better(importId);
    for (const { id, zone, hints } of better)
      await this.sources.change(id, { ...(zone ? { zone, zone_by: 'guessed' as const } : {}), ...(hints ? { hints } : {}) });
    if (better.length > 0) await this.readAgain(better.map((one) => one.id));
    return better.length > 0;
  }

  /** Links that show only now are taken up: what they occur in is read again. One import at a time looks for them. */
  private async discovered(importId: number): Promise<boolean> {
    if ((await this.sources.sums(importId)).records < FEWEST) return false;
    const looking = this.looking.then(() => this.discovery.run(this.due));
    this.looking = looking.catch(() => []); // told below
    try {
      const ids = await looking;
      if (ids.length > 0) {
        await this.sources.readFor(ids, importId);
        await this.readAgain(ids);
      }
      return ids.length > 0;
    } catch (error) {
      await this.note(importId, '', `links that nobody declared could not be looked for: ${(error as Error).message}`);
      return false;
    }
  }

  /** Links that join too much lose their tie: what names them is read again. */
  private async guarded(importId: number): Promise<boolean> {
    const ids = await this.guard.check(this.weaving.joining, this.due);
    if (ids.length === 0) return false;
    await this.sources.readFor(ids, importId);
    await this.readAgain(ids);
    return true;
  }

  /** Clocks that turn out to be amiss are put right: what they wrote is read again. Once an import, whatever comes of it. */
  private async straightened(importId: number): Promise<boolean> {
    const { records, first, last } = await this.sources.sums(importId);
    if (records < FEWEST || first === null || last === null || this.straight.has(importId)) return false;
    this.straight.add(importId);
    try {
      const ids = await this.clocks.estimate(first, last, this.due);
      if (ids.length > 0) {
        await this.sources.readFor(ids, importId);
        await this.readAgain(ids, true);
      }
      return ids.length > 0;
    } catch (error) {
      await this.note(importId, '', `the clocks of the hosts could not be compared: ${(error as Error).message}`);
      return false;
    }
  }

  /** After a restart: what was about to be read again is; uploads that broke off end with what had arrived, the rest goes on by itself. */
  async takeUp(): Promise<void> {
    const due = await this.sources.due();
    if (due.length > 0) await this.readAgain(due);
    for (const row of await this.sources.imports(1000)) {
      if (row.state === 'receiving') await this.received(row.id, 'the server was stopped while files were arriving; bring the missing ones again');
      else if (row.state === 'removing') await this.remove(row.id);
      else if (row.state === 'reading') await this.checkEnd(row.id);
    }
    this.intake().poke();
  }

  /** Cancels a running import or takes a finished one out; nothing of it stays. */
  async remove(importId: number): Promise<boolean> {
    const row = await this.sources.import(importId);
    if (!row) return false;
    await this.unfollow(importId);
    await this.sources.changeImport(importId, { state: 'removing' });
    const own = await this.sources.sources({ import_id: importId });
    const ids = own.map((source) => source.id);
    await this.sources.cancel(ids);
    await this.intake().cancel(ids);
    await this.weaving.markDirty(true);
    await this.sources.removeImport(importId);
    for (const { spool } of own) if (spool) await rm(spool, { force: true });
    this.weaving.ask(true, true);
    await this.weaving.settle();
    await this.weaving.markDirty(false);
    return true;
  }

  /** Keeps in mind that sources have to be read again, until they are told to be: a process that is killed in between does it at its next start. */
  due = async (ids: readonly number[]): Promise<void> => {
    if (ids.length > 0) await this.sources.setDue(ids, true);
  };

  /**
   * Reads sources again from their kept bytes, since what is declared about them has changed.
   *
   * @param sameNames they name the same as before, at other times only: strands that they do not touch stay as they are
   */
  async readAgain(ids: readonly number[], sameNames = false): Promise<void> {
    await this.weaving.markDirty(true);
    await this.intake().cancel(ids);
    await this.sources.forgetRead(ids);
    await this.sources.setDue(ids, false);
    this.weaving.again(ids);
    this.weaving.askLater(!sameNames);
    this.intake().poke();
  }

  async info(row: ImportRow): Promise<ImportInfo> {
    const { records, understood, readBytes, total } = await this.sources.sums(row.id);
    const { perSecond, bytesPerSecond } = this.rate(row, records, readBytes);
    return {
      id: row.id,
      state: row.state,
      startedAt: row.started_at.toISOString(),
      endedAt: row.ended_at?.toISOString() ?? null,
      who: row.who,
      environment: row.environment,
      demo: row.demo,
      files: row.files,
      alreadyThere: row.already_there,
      bytes: row.bytes,
      readBytes,
      records,
      understood,
      keptWhole: records - understood,
      perSecond,
      secondsLeft: row.state === 'reading' && bytesPerSecond > 0 ? Math.ceil((total - readBytes) / bytesPerSecond) : null,
      errors: row.errors,
    };
  }

  private rate(row: ImportRow, records: number, bytes: number): { perSecond: number; bytesPerSecond: number } {
    if (row.state !== 'reading' && row.state !== 'receiving') {
      this.rates.delete(row.id);
      const seconds = row.ended_at ? (row.ended_at.getTime() - row.started_at.getTime()) / 1000 : 0;
      return { perSecond: seconds > 0 ? Math.round(records / seconds) : 0, bytesPerSecond: 0 };
    }
    const before = this.rates.get(row.id);
    const now = Date.now();
    if (before && now - before.at < 900) return before;
    const seconds = before ? (now - before.at) / 1000 : Math.max(0.5, (now - row.started_at.getTime()) / 1000);
    const next = {
      at: now,
      records,
      bytes,
      perSecond: Math.round((records - (before?.records ?? 0)) / seconds),
      bytesPerSecond: (bytes - (before?.bytes ?? 0)) / seconds,
    };
    this.rates.set(row.id, next);
    return next;
  }
}
