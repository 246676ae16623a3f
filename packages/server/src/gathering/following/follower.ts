import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { resolve } from 'node:path';
import { familyOf } from '@fadenweg/core/reading';
import type { FollowRepository, FollowRow } from './follows.ts';
import type { SourceRepository } from '../../evidence/sources.ts';
import type { ImportService } from '../import-service.ts';
import { GrowingFile } from './growing-file.ts';
import { listed, type ListedFile } from './listing.ts';
import { Part, type PartContext } from './part.ts';

/** How often files are looked at, and how often one that has been quiet for `DROWSY`, in milliseconds. */
const EVERY = 200;
const DROWSY = 60_000;
const SELDOM = 2000;
/** How often it is looked which files there are. */
const LISTING = 1500;
/** A further file of a log that is followed is taken up when it has not changed for so long: it is a copy that is still being made, or will get its name. */
const SETTLED = 1500;
const PACKED = /\.(?:gz|tgz|zip|tar)$/i;

interface Live {
  part: Part;
  drowsy: boolean;
  lookedAt: number;
}
export interface FollowState {
  files: number;
  grewAt: number | null;
  /** Why it cannot be followed at the moment; it is tried again. */
  problem: string | null;
}

/** Follows one file or folder: knows its files through renaming, emptying and packing, and goes on after a restart where it was. */
export class Follower {
  private readonly parts = new Map<string, Live>();
  /** Files that are left alone as they are: read already, or no logs. By path, with size and time. */
  private readonly settled = new Map<string, string>();
  /** Size and time of files when they were taken in, by path. */
  private readonly taken = new Map<string, string>();
  private loop: Promise<void> = Promise.resolve();
  private stopped = false;
  private listedAt = 0;
  private readonly state: FollowState = { files: 0, grewAt: null, problem: null };
  /** Files that ended and were read. */
  private ended = 0;

  constructor(
    readonly row: FollowRow,
    private readonly follows: FollowRepository,
    private readonly sources: SourceRepository,
    private readonly imports: ImportService,
    private readonly spool: string,
  ) {}

  start(): void {
    this.loop = this.run();
  }
  async stop(): Promise<void> {
    this.stopped = true;
    await this.loop;
    for (const { part } of this.parts.values()) await part.file.close().catch(() => {}); // it may be closed already
  }
  told(): FollowState {
    const grewAt = Math.max(0, ...[...this.parts.values()].map(({ part }) => part.grewAt ?? 0), this.state.grewAt ?? 0);
    return { ...this.state, files: this.parts.size + this.ended, grewAt: grewAt || null };
  }

  private async run(): Promise<void> {
    let taken = false;
    while (!this.stopped) {
      try {
        if (!taken) await this.takeUp();
        taken = true;
        if (Date.now() - this.listedAt >= LISTING) await this.list();
        await this.lookAll();
        this.state.problem = null;
      } catch (error) {
        // out of reach, or the database is away: it is tried again
        this.state.problem = (error as Error).message;
        await new Promise((done) => setTimeout(done, 1000));
      }
      await new Promise((done) => setTimeout(done, EVERY));
    }
  }

  private async lookAll(): Promise<void> {
    const now = Date.now();
    for (const [path, live] of this.parts) {
      if (this.stopped) return;
      if (live.drowsy && now - live.lookedAt < SELDOM) continue;
      live.lookedAt = now;
      const { part } = live;
      const before = part.sourceId;
      await part.look();
      live.drowsy = now - (part.grewAt ?? now) > DROWSY;
      if (part.grewAt === null) part.grewAt = now;
      if (part.sourceId !== null && part.sourceId !== before) await this.keep(part);
      if (!part.over) continue;
      this.parts.delete(path);
      if (part.sourceId === null) continue;
      this.ended++;
      await this.follows.end(part.sourceId);
      this.listedAt = 0; // whoever has its name now is next
    }
  }
  private async keep({ sourceId, file }: Part): Promise<void> {
    await this.follows.keep({ source_id: sourceId!, follow_id: this.row.id, file: file.path, file_key: file.key, over: false });
  }

  /** After a start: goes on with the files that it knows, under whatever name they have by now. */
  private async takeUp(): Promise<void> {
    const known = (await this.follows.files(this.row.id)).filter((one) => !one.over);
    const files = await listed(this.row.path);
    for (const one of known) {
      const places = [...files.filter((file) => file.key === one.file_key).map((file) => file.file), one.file];
      let part: Part | null = null;
      for (const place of new Set(places)) part ??= await this.goOn(place, one.path, one.source_id);
      if (part) this.parts.set(part.file.path, { part, drowsy: false, lookedAt: 0 });
      else await this.follows.end(one.source_id);
    }
    if (known.length > 0) return;
    // parts that a single file had before it was followed are not asked for
    for (const one of files)
      if (one.file !== this.row.path && resolve(one.file) !== resolve(this.row.path) && !(await this.isFolder())) this.settle(one);
  }
  private async isFolder(): Promise<boolean> {
    const handle = await open(this.row.path).catch(() => null); // not there yet
    const folder = (await handle?.stat())?.isDirectory() ?? false;
    await handle?.close();
    return folder;
  }

  /** Follows a file into a source that holds its beginning; null where it does not begin so. */
  private async goOn(file: string, path: string, sourceId: number): Promise<Part | null> {
    const row = await this.sources.source(sourceId);
    if (!row || row.state === 'cancelled' || row.state === 'failed') return null;
    const growing = await GrowingFile.from(file, row.size, row.content_hash);
    if (!growing) return null;
    try {
      const held = await growing.bytes(row.done_bytes, row.size);
      return new Part(growing, path, sourceId, this.context(), held);
    } catch (error) {
      await growing.close();
      throw error;
    }
  }

  private async list(): Promise<void> {
    this.listedAt = Date.now();
    const keys = new Set([...this.parts.values()].map(({ part }) => part.file.key));
    const families = new Set([...this.parts.values()].map(({ part }) => familyOf(part.path)));
    for (const one of await listed(this.row.path)) {
      if (this.stopped) return;
      if (this.parts.has(one.file) || keys.has(one.key) || one.size === 0 || this.settled.get(one.file) === stateOf(one)) continue;
      const further = families.has(familyOf(one.path)) || PACKED.test(one.file);
      if (further && Date.now() - one.modified < SETTLED) continue;
      await this.takeIn(one);
    }
  }
  private settle(one: ListedFile): void {
    this.settled.set(one.file, stateOf(one));
  }

  /** A file that was not there before: packed, a part that is read already or was read in part, or a new one. */
  private async takeIn(one: ListedFile): Promise<void> {
    this.taken.set(one.file, stateOf(one));
    if (PACKED.test(one.file)) {
      await this.imports.receive(this.row.import_id, one.path, createReadStream(one.file), new Date(one.modified));
      await this.imports.allNoted(this.row.import_id);
      this.settle(one);
      return;
    }
    const { same, shorter } = await this.imports.twin(one.path, one.file, this.row.environment);
    const before = same ?? shorter;
    if (before && [...this.parts.values()].some((live) => live.part.sourceId === before.id)) {
      // a copy of what is followed: what it has more is taken when what it is a copy of has been emptied
      if (same) this.settle(one);
      return;
    }
    const part = before ? await this.goOn(one.file, before.path, before.id) : await this.beginning(one);
    if (!part) return; // it changed meanwhile
    this.parts.set(one.file, { part, drowsy: false, lookedAt: 0 });
    if (before) {
      await this.sources.change(before.id, { read_for: this.row.import_id });
      await this.keep(part);
    }
  }

  private async beginning({ file, path }: ListedFile): Promise<Part | null> {
    const growing = await GrowingFile.from(file);
    return growing && new Part(growing, path, null, this.context());
  }

  private context(): PartContext {
    return {
      sources: this.sources,
      spool: this.spool,
      begin: async (file, path, spool, size, contentHash) => {
        const id = await this.imports.beginGrowing(this.row.import_id, { path, file: spool, size, contentHash });
        if (id === null) this.settled.set(file.path, this.taken.get(file.path) ?? '');
        return id;
      },
      poke: this.imports.queued,
    };
  }
}

const stateOf = ({ size, modified }: ListedFile): string => `${size} ${modified}`;
