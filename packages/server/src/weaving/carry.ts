import type pg from 'pg';
import { carriedRecords, type OwnerAt } from '@fadenweg/core/stitching';
import { CopyRows } from '../database/copy-rows.ts';
import { copyInto } from '../database/copy-into.ts';
import { lockSources, transactionOn } from '../database/transaction.ts';
import { copyOut } from '../database/copy-out.ts';

/** Records of one source that are looked at together; longer ones are looked at piece by piece. */
const PIECE = 400_000;

/** Records of the sources that are looked at in one go: what is known of them is kept meanwhile. */
const MOST = 4_000_000;

/** A source whose records may be carried over, with how many it has and between which moments. */
export interface ToCarry {
  id: number;
  records: number;
  first: number;
  last: number;
}

/** Works out anew which records of sources are carried over to strands that their thread or process worked on, and writes what changed. */
export async function carry(client: pg.Client, sources: readonly ToCarry[], ownerAt: OwnerAt): Promise<Set<number>> {
  const founders = new Set<number>();
  for (let from = 0; from < sources.length;) {
    let to = from;
    for (let records = 0; to < sources.length && (to === from || records + sources[to]!.records <= MOST); to++) records += sources[to]!.records;
    await carrySome(client, sources.slice(from, to), ownerAt, founders);
    from = to;
  }
  return founders;
}

async function carrySome(client: pg.Client, sources: readonly ToCarry[], ownerAt: OwnerAt, founders: Set<number>): Promise<void> {
  const ids = sources.map((source) => source.id).join(',');
  const first = sources.reduce((least, one) => Math.min(least, one.first), Infinity);
  const last = sources.reduce((most, one) => Math.max(most, one.last), -Infinity);
  const before = await known(client, ids);
  const added = new CopyRows();
  const gone: Carried[] = [];
  let piece = new Piece();
  const settle = (): void => {
    const now = piece.carried(ownerAt);
    for (const one of now.values()) {
      const old = before.get(one.id);
      before.delete(one.id);
      if (old?.home === one.home && old.at === one.at) continue;
      if (old) gone.push(old);
      added.begin(4);
      added.big(one.at);
      added.big(one.id);
      added.int(one.sourceId);
      added.big(one.home);
      founders.add(ownerAt(one.home, one.at));
    }
    piece = new Piece();
  };
  await client.query(`set work_mem = '128MB'`);
  await copyOut(
    client,
    `select source_id, at, id, home, lane, shape from record where source_id in (${ids}) and lane is not null and at between ${first} and ${last} order by source_id, id`,
    (row) => {
      const sourceId = row.int();
      if (piece.sourceId !== sourceId || piece.length >= PIECE) settle();
      piece.sourceId = sourceId;
      piece.add(row.big(), row.big(), row.big(), row.int(), row.big());
    },
  );
  settle();
  await client.query('reset work_mem');
  gone.push(...before.values());
  for (const { home, at } of gone) founders.add(ownerAt(home, at));
  founders.delete(NaN);
  const rows = added.finish();
  await transactionOn(client, async () => {
    await lockSources(client, sources.map((one) => one.id)); // prettier-ignore
    for (let i = 0; i < gone.length; i += 20_000)
      await client.query('delete from carried where id = any($1)', [gone.slice(i, i + 20_000).map((one) => one.id)]);
    await copyInto(client, 'carried', 'at, id, source_id, home', rows);
    await client.query(`update source set carried_bytes = done_bytes where id in (${ids})`);
  });
  if (added.count > 20_000) await client.query('analyze carried');
}

interface Carried {
  at: number;
  id: number;
  sourceId: number;
  home: number;
}

async function known(client: pg.Client, ids: string): Promise<Map<number, Carried>> {
  const rows = new Map<number, Carried>();
  await copyOut(client, `select at, id, source_id, home from carried where source_id in (${ids})`, (row) => {
    const one = { at: row.big(), id: row.big(), sourceId: row.int(), home: row.big() };
    rows.set(one.id, one);
  });
  return rows;
}

/** Records with a lane of one source, in the order in which they stand there. */
class Piece {
  sourceId = NaN;
  readonly at: number[] = [];
  private readonly id: number[] = [];
  readonly home: number[] = [];
  readonly lane: number[] = [];
  readonly shape: number[] = [];

  get length(): number {
    return this.at.length;
  }
  add(at: number, id: number, home: number, lane: number, shape: number): void {
    this.at.push(at);
    this.id.push(id);
    this.home.push(home);
    this.lane.push(lane);
    this.shape.push(shape);
  }
  carried(ownerAt: OwnerAt): Carried[] {
    const result: Carried[] = [];
    carriedRecords(this, ownerAt).forEach((from, i) => {
      if (from >= 0) result.push({ at: this.at[i]!, id: this.id[i]!, sourceId: this.sourceId, home: this.home[from]! });
    });
    return result;
  }
}
