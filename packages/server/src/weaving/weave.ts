import type pg from 'pg';
import {
  Graph,
  LeaseList,
  NO_LEASES,
  overJoining,
  ownerAtOf,
  ownership,
  strandOf,
  type GraphKind,
  type Leases,
  type OverJoining,
} from '@fadenweg/core/stitching';
import { SilentShapes } from '@fadenweg/core/touched';
import { ALWAYS } from '../evidence/identifiers.ts';
import { carry, type ToCarry } from './carry.ts';
import { copyOut } from '../database/copy-out.ts';
import { judge } from './judge.ts';
import { CALLS, Dialogs, MOST_TOGETHER } from './dialogs.ts';
import { dueBy, noteJudged } from './due.ts';
import { judgedBy } from './judge-context.ts';
import { WeaverNames } from './names.ts';
import { MOST_RECALLED, Recall, type TakeRecalled } from './recall.ts';
import { MOST_OF_A_SLICE, slicesOf } from './slices.ts';
import type { Spent } from './spent.ts';
import { Usuals } from './usuals.ts';
import type { Told } from './weaving-worker.ts';
import { writeRelations, writeTies } from './write-ties.ts';

/** Bytes of what is told while strands are judged that are kept until that is done. */
const MEANWHILE = 40 << 20;
/** Of so many identifiers on, more comes between two weavings than can be kept: it is read back. */
const LARGE = 1_000_000;
/** Keys that are looked up among the sources, at most; beyond it all sources are gone through. */
const MOST_MOVED = 50_000;

/** What one weaver keeps in memory: the graph, and the ties as they stand in the database. */
export class Weaver {
  private readonly graph: Graph;
  /** Founder's node by node, -1 for none, as written. Nodes beyond its end were never written. */
  private founder: Int32Array = new Int32Array(0);
  /** Leases of reused keys, as written. */
  private leases: Leases = NO_LEASES;
  private readonly touched = new Set<number>();
  /** What was told since strands were judged last. */
  private recall = new Recall(0);
  private readonly usuals = new Usuals();
  /** Founders that are tied otherwise than before and not judged yet. */
  private readonly owed = new Set<number>();
  /** Nothing was told since the ties were written. */
  private tied = false;
  /** All strands are owed, whatever is at hand of them. */
  private owedAll = false;
  /** Keys whose owner changed since the last carrying over; null where it were too many to tell. */
  private moved: Set<number> | null = new Set();
  private readonly names = new WeaverNames();
  /** Someone waits for another tying while strands are judged. */
  private hurried = false;
  /** An import, or reading again, has ended since the usual was learned. */
  private ended = false;
  private readonly silent = new SilentShapes();
  private readonly dialogs = new Dialogs();

  private constructor(
    private readonly client: pg.Client,
    private readonly spent: Spent,
    kinds: ReadonlyMap<number, GraphKind>,
    private readonly sliceSize: number,
  ) {
    this.graph = new Graph(kinds);
  }

  /** Reads all identifiers and ties that are stored, as they stand at one moment: batches are stored meanwhile, and tell of themselves afterwards. */
  static async load(client: pg.Client, spent: Spent, sliceSize = MOST_OF_A_SLICE): Promise<Weaver> {
    await client.query('begin isolation level repeatable read read only');
    try {
      return await Weaver.loadAll(client, spent, sliceSize);
    } finally {
      await client.query('commit');
    }
  }
  private static async loadAll(client: pg.Client, spent: Spent, sliceSize: number): Promise<Weaver> {
    const kinds = new Map<number, GraphKind>();
    const { rows } = await client.query<{ id: number; definition: { name: string; role: string; leaseMs: number | null } }>(
      'select id, definition from identifier_kind where not retired',
    );
    for (const { id, definition } of rows) {
      kinds.set(id, {
        business: definition.role === 'business',
        shared: definition.role === 'shared',
        lease: definition.leaseMs === null ? NaN : definition.leaseMs * 1000,
        together: definition.name === CALLS ? MOST_TOGETHER : 1,
      });
    }
    const weaver = new Weaver(client, spent, kinds, sliceSize);
    const { graph } = weaver;
    await copyOut(client, 'select key, kind_id, first_at, last_at from sighting', (row) => {
      const key = row.big();
      const kind = row.small();
      graph.see(key, kind, row.big(), row.big());
    });
    await copyOut(client, 'select a, b, first_at, last_at from edge', (row) => graph.tie(row.big(), row.big(), row.big(), row.big()));
    await weaver.dialogs.load(client, graph);
    weaver.founder = new Int32Array(graph.size).fill(-1);
    const leases = new LeaseList();
    await copyOut(client, 'select key, founder, valid_from, valid_to from tie order by key, valid_from', (row) => {
      const node = graph.node(row.big());
      const founder = graph.node(row.big());
      const from = row.big();
      if (node < 0) return; // what was taken out; the whole is written anew then
      if (from === -ALWAYS) weaver.founder[node] = founder;
      else if (founder >= 0) leases.add(node, founder, from, row.big());
    });
    weaver.leases = leases.leases();
    weaver.recall = new Recall(graph.size);
    return weaver;
  }

  /** Takes over from the one whose graph was out of date: what was named, tied and told and is not judged yet. */
  goOn(before: Weaver): void {
    const nodesOf = (nodes: Iterable<number>): Set<number> => {
      const found = new Set<number>();
      for (const node of nodes) found.add(this.graph.node(before.graph.keyOf(node)));
      found.delete(-1);
      return found;
    };
    for (const node of nodesOf(before.touched)) this.touched.add(node);
    for (const founder of before.owed) this.owed.add(founder);
    this.owedAll = before.owedAll;
    this.moved = before.moved;
    this.ended = before.ended;
    const young = function* (): Iterable<number> {
      for (let node = 0; node < before.graph.size; node++) if (!before.recall.isOlder(node)) yield node;
    };
    this.recall.goOn(before.recall, this.graph.size, nodesOf(young()));
  }
  /** Sources are read again: glimpses of them are out of date. */
  forgetSources(sources: readonly number[]): void {
    this.recall.forgetSources(new Set(sources));
  }

  /** Records of these keys are others than what was told of them, and these keys are tied: a, b, first, last … */
  changed(keys: readonly number[], tied: readonly number[]): void {
    this.recall.forget();
    this.tied = false;
    for (let i = 0; i < tied.length; i += 4) this.graph.tie(tied[i]!, tied[i + 1]!, tied[i + 2]!, tied[i + 3]!);
    for (const key of keys) {
      const node = this.graph.node(key);
      if (node >= 0) this.touched.add(node);
    }
  }

  /** Someone waits for what is stored to be tied: strands that are being judged are left for later, but for the slice that is under way. */
  hurry(): void {
    this.hurried = true;
  }
  /** An import, or reading again, ends with the next weaving. */
  ends(): void {
    this.ended = true;
  }
  /** Strands are tied otherwise than before, or left, and not judged yet. */
  get owes(): boolean {
    return this.owed.size > 0 || this.owedAll;
  }

  /** Kinds of links that join too much to tell transactions apart. */
  joining(): OverJoining[] {
    return overJoining(this.graph.nodes(), this.graph.edges(), this.graph.isLinkKind, this.graph.mostTogether);
  }

  /** What a stored batch told: key, kind, first, last … and a, b, first, last …, and glimpses of its records. */
  apply({ seen, tied, glimpses }: Told): void {
    this.tied = false;
    this.recall.add(glimpses);
    for (let i = 0; i < seen.length; i += 4) this.touched.add(this.graph.see(seen[i]!, seen[i + 1]!, seen[i + 2]!, seen[i + 3]!));
    for (let i = 0; i < tied.length; i += 4) this.graph.tie(tied[i]!, tied[i + 1]!, tied[i + 2]!, tied[i + 3]!);
  }

  /**
   * Works out which identifier belongs to which strand, writes what changed, and judges the strands that are touched by it.
   *
   * @param all write every tie and judge every strand anew, not only the touched ones
   * @param carrying also work out what is carried over; while sources are being read that would be done again and again
   * @returns how many strands were judged
   */
  async weave(all: boolean, carrying: boolean, progress: (done: number, of: number) => void): Promise<number> {
    this.hurried = false;
    await this.spent.on('tying', () => this.tie(all));
    const judged = await this.judge(carrying, progress);
    // of which call a dialog is shows when it is judged
    const moved = await this.spent.on('tying', () => this.dialogs.renew(this.client, this.graph));
    if (moved.length === 0) return judged;
    for (const key of moved) this.touched.add(this.graph.node(key));
    this.touched.delete(-1);
    this.tied = false;
    await this.spent.on('tying', () => this.tie(false));
    return judged + (await this.judge(carrying, progress));
  }

  /** Works out which identifier belongs to which strand and writes what changed; strands are to be judged for it later. */
  async tie(all: boolean): Promise<void> {
    if (this.tied && !all) return;
    const { graph } = this;
    const touched = [...this.touched];
    this.touched.clear();
    const found = ownership(graph.nodes(), graph.edges(), graph.joined());
    const { leases } = found;
    const changed: number[] = [];
    const founders = this.owed;
    const note = (node: number): void => {
      if (node >= 0) founders.add(graph.keyOf(node));
    };
    for (let node = 0; node < found.founder.length; node++) {
      if (leases.has(node) || this.leases.has(node)) {
        if (leases.isAs(node, this.leases) && !all) continue;
        changed.push(node);
        leases.differing(node, this.leases, note);
        this.leases.differing(node, leases, note);
        continue;
      }
      const before = this.founder[node] ?? -1;
      const now = found.founder[node]!;
      if (before === now && !all) continue;
      changed.push(node);
      note(before);
      note(now);
    }
    for (const node of touched) {
      note(found.founder[node]!);
      for (let i = leases.begin(node); i < leases.end(node); i++) note(leases.founder[i]!);
    }
    if (all) for (const { founder } of (await this.client.query<{ founder: number }>('select founder from strand')).rows) founders.add(founder);
    await writeTies(this.client, graph, changed, all ? null : { founder: this.founder, leases: this.leases }, { founder: found.founder, leases });
    await writeRelations(this.client, graph, found);
    this.founder = found.founder;
    this.leases = leases;
    this.note(changed, all);
    this.owedAll ||= all;
    // what was told meanwhile is not among it
    this.tied = this.touched.size === 0;
  }

  private async judge(carrying: boolean, progress: (done: number, of: number) => void): Promise<number> {
    const { graph, founder, leases, owedAll: all, recall: told } = this;
    // what is told from now on is for the next time
    this.recall = new Recall(graph.size, MEANWHILE);
    this.owedAll = false;
    const founders = new Set(this.owed);
    this.owed.clear();
    const ownerAt = ownerAtOf(graph, founder, leases);
    if (carrying) {
      const changed = await this.spent.on('carrying', async () => carry(this.client, await this.uncarried(all), ownerAt));
      for (const founder of changed) founders.add(founder);
    }
    await this.names.load(this.client);
    const known = await this.usuals.known(this.client);
    const by = await judgedBy(this.client);
    for (const founder of await dueBy(this.client, known)) founders.add(founder);
    const counted = await this.client.query<{ records: number }>('select coalesce(sum(records), 0)::bigint as records from source');
    const context = {
      spent: this.spent,
      records: counted.rows[0]!.records,
      recalled: new Set(all ? [] : this.recalled(told, founders, founder, leases)),
      recall: (of: readonly number[], take: TakeRecalled) => told.read(of.length, strandOf(of, ownerAt), take),
      graph,
      ...by,
      component: (id: number) => this.names.component.get(id) ?? '',
      host: (id: number) => this.names.host.get(id) ?? '',
      kindName: (id: number) => this.names.kind.get(id) ?? '',
      isBusiness: (kind: number) => graph.isBusinessKind(kind),
      environment: (id: number) => this.names.environment.get(id) ?? '',
      silent: this.silent,
      dialogs: this.dialogs,
      isDatabase: (component: string) => this.names.databases.has(component),
    };
    // what is new is judged at once by what is known; where nothing is, or not of what strands are now, it is learned before
    const first = carrying && (all || known.size === 0);
    const renew = async (): Promise<number[]> => {
      const { ended } = this;
      this.ended = false;
      return this.spent.on('learning', () => this.usuals.renew(this.client, context, this.strands(), all, ended));
    };
    if (first) for (const older of await renew()) founders.add(older);
    const judgeThese = async (list: readonly number[]): Promise<number> => {
      const usual = await this.usuals.known(this.client);
      const slices = slicesOf(list, graph, founder, leases, this.sliceSize);
      const told = (done: number): void => progress(done, list.length);
      const { stored, left } = await this.spent.on('judging', () => judge(this.client, slices, { ...context, usual }, told, () => !this.hurried));
      for (const one of left) this.owed.add(one);
      return stored;
    };
    const stored = (await judgeThese([...founders])) + (carrying && !first ? await judgeThese(await renew()) : 0);
    await noteJudged(this.client, by.evidenceEnd);
    if (graph.size < LARGE) this.recall.most = MOST_RECALLED;
    if (stored > 0) await this.usuals.noteMedians(this.client);
    return stored;
  }

  /** How many strands there are. */
  private strands(): number {
    let count = 0;
    for (let node = 0; node < this.founder.length; node++) if (this.founder[node] === node) count++;
    return count;
  }

  /** The founders all of whose identifiers are new since the last weaving: every record of theirs is among the glimpses. */
  private recalled(recall: Recall, founders: ReadonlySet<number>, owner: Int32Array, leases: Leases): number[] {
    const { graph } = this;
    if (recall.overflown) return [];
    const older = new Set<number>();
    for (let node = 0; node < Math.min(recall.since, owner.length); node++)
      if (owner[node]! >= 0 && recall.isOlder(node)) older.add(graph.keyOf(owner[node]!));
    for (let i = 0; i < leases.length; i++) if (recall.isOlder(leases.node[i]!)) older.add(graph.keyOf(leases.founder[i]!));
    return [...founders].filter((founder) => !older.has(founder));
  }

  /** Keeps in mind whose records may be carried over otherwise than before. */
  private note(changed: readonly number[], all: boolean): void {
    if (all || (this.moved && this.moved.size + changed.length > MOST_MOVED)) this.moved = null;
    for (const node of changed) this.moved?.add(this.graph.keyOf(node));
  }
  /** Sources that are read further than they were carried over, and those that name a key whose owner changed. */
  private async uncarried(all: boolean): Promise<ToCarry[]> {
    const { moved, client } = this;
    this.moved = new Set();
    const { rows } = await client.query<ToCarry>(
      `select id, records, first_at as first, last_at as last from source
         where records > 0 and ($1 or carried_bytes < done_bytes or id in (select source_id from sighting where key = any($2)))`,
      [all || moved === null, moved === null ? [] : [...moved]],
    );
    return rows;
  }
}
