import type pg from 'pg';
import { tellingParts, type Level, type StrandRecord } from '@fadenweg/core';
import { CopyRows } from '../intake/copy-rows.ts';
import { copyInto } from '../intake/store-batch.ts';
import { copyOut, type RowReader } from './copy-out.ts';
import { carriedTo, recordsOfAll } from './records-of-all.ts';
import type { Slice } from './slices.ts';

/** Most records of one strand that its path is worked out from. */
export const MOST_RECORDS = 20_000;
/** From this many strands on, one sorted pass over the records is cheaper than look-ups by key. */
const BULK = 3000;
const CHUNK = 200;
const FIELDS =
  "t.founder, r.at, r.id, r.component_id, r.host_id, r.level, r.marks, r.took, left(r.message, 161), r.shape, coalesce(r.traits, ''), r.keys";
/** Records that are carried over to the strands that are at issue. */
const CARRIED = carriedTo('touched', FIELDS);
const allAtOnce = (from: number, to: number): string => `${recordsOfAll('touched', FIELDS, within(from, to))} order by 1, 2, 3`;
/** Nothing is named by strands that are none any more. */
const within = (from: number, to: number): string =>
  from === -Infinity ? 'true' : from > to ? 'false' : `r.at between ${Math.floor(from)} and ${Math.ceil(to)}`;

export interface GatherContext {
  /** Founders whose records are at hand. */
  recalled: ReadonlySet<number>;
  /** Reads those of some of them, strand after strand, in order of time. */
  recall(founders: readonly number[], take: (strand: number, row: RowReader) => void): void;
  component(id: number): string;
  host(id: number): string;
}

/** The records of one strand, at most 20,000 of them, in order of time. */
export interface Gathered {
  founder: number;
  records: StrandRecord[];
  /** How many there are. */
  total: number;
  /** Numbers of the components that they are of. */
  components: Set<number>;
}

/** Hands over the records of each of these strands that has any; leaves the table `touched` with their founders. */
export async function gather(
  client: pg.Client,
  { founders, from, to }: Slice,
  context: GatherContext,
  take: (strand: Gathered) => void,
  progress: (done: number) => void = () => {},
): Promise<void> {
  if (founders.length === 0) return;
  await touch(client, founders);
  const gathering = new Gathering(context, take);
  const atHand = founders.filter((founder) => context.recalled.has(founder));
  const rest = atHand.length === 0 ? founders : founders.filter((founder) => !context.recalled.has(founder));
  if (atHand.length > 0) {
    await copyOut(client, CARRIED, (row) => gathering.carry(row.big(), row));
    context.recall(atHand, (strand, row) => gathering.add(atHand[strand]!, row));
    gathering.flush();
    gathering.forgetCarried();
  }
  progress(atHand.length);
  if (rest.length >= BULK) {
    if (atHand.length > 0) await touch(client, rest);
    await client.query(`set work_mem = '256MB'`);
    await copyOut(client, allAtOnce(from, to), (row) => gathering.add(row.big(), row));
    await client.query('reset work_mem');
    if (atHand.length > 0) await touch(client, founders);
  } else {
    for (let i = 0; i < rest.length; i += CHUNK) {
      await chunk(client, rest.slice(i, i + CHUNK), gathering);
      progress(founders.length - rest.length + i);
    }
  }
  gathering.flush();
}

/** Sets the table of the strands that are at issue. */
export async function touch(client: pg.Client, founders: readonly number[]): Promise<void> {
  await client.query('create temp table if not exists touched (founder bigint primary key) on commit preserve rows');
  await client.query('truncate touched');
  const rows = new CopyRows();
  for (const founder of founders) {
    rows.begin(1);
    rows.big(founder);
  }
  await copyInto(client, 'touched', 'founder', rows.finish());
  await client.query('analyze touched');
}

async function chunk(client: pg.Client, founders: readonly number[], out: Gathering): Promise<void> {
  const { rows } = await client.query<{ key: number; low: number; high: number }>(
    `select t.key, greatest(t.valid_from, min(s.first_at)) as low, least(t.valid_to, max(s.last_at)) as high
       from tie t join sighting s on s.key = t.key where t.founder = any($1) group by t.key, t.valid_from, t.valid_to`,
    [founders],
  );
  if (rows.length === 0) return;
  const low = rows.reduce((least, row) => Math.min(least, row.low), Infinity);
  const high = rows.reduce((most, row) => Math.max(most, row.high), -Infinity);
  const keys = [...new Set(rows.map((row) => row.key))].join(',');
  await copyOut(
    client,
    `select * from (
      select ${FIELDS} from tie t join record r on r.home = t.key and r.at >= t.valid_from and r.at <= t.valid_to
        where t.founder in (${founders.join(',')}) and r.keys && '{${keys}}'::bigint[] and r.at between ${low} and ${high}
      union all
      select ${FIELDS} from tie t join carried c on c.home = t.key and c.at between t.valid_from and t.valid_to join record r on r.at = c.at and r.id = c.id
        where t.founder in (${founders.join(',')})) one order by 1, 2, 3`,
    (row) => out.add(row.big(), row),
  );
}

/** A record, and the number of its component. */
interface Read {
  record: StrandRecord;
  component: number;
}

/** Gathers the records of one strand after the other. */
class Gathering {
  private founder = NaN;
  private records: StrandRecord[] = [];
  private total = 0;
  private components = new Set<number>();
  private readonly carried = new Map<number, Read[]>();

  constructor(
    private readonly context: GatherContext,
    private readonly hand: (strand: Gathered) => void,
  ) {}

  add(founder: number, row: RowReader): void {
    if (founder !== this.founder) {
      this.flush();
      this.founder = founder;
    }
    this.total++;
    if (this.records.length < MOST_RECORDS) this.take(this.read(row));
  }
  /** Keeps a record that is carried over until those come that name the strand. */
  carry(founder: number, row: RowReader): void {
    const list = this.carried.get(founder);
    if (list) list.push(this.read(row));
    else this.carried.set(founder, [this.read(row)]);
  }
  forgetCarried(): void {
    this.carried.clear();
  }
  flush(): void {
    const carried = this.carried.get(this.founder);
    if (carried) {
      this.total += carried.length;
      for (const one of carried.slice(0, MOST_RECORDS - this.records.length)) this.take(one);
      this.records.sort((a, b) => a.at - b.at || Number(a.id) - Number(b.id));
    }
    const { founder, records, total, components } = this;
    this.records = [];
    this.components = new Set();
    this.total = 0;
    if (records.length > 0) this.hand({ founder, records, total, components });
  }

  private take({ record, component }: Read): void {
    this.records.push(record);
    this.components.add(component);
  }
  private read(row: RowReader): Read {
    const [at, id, component] = [row.big(), String(row.big()), row.small()];
    const record: StrandRecord = {
      at,
      id,
      component: this.context.component(component),
      host: this.context.host(row.small()),
      level: row.small() as Level,
      marks: row.small(),
      took: row.big(),
      message: row.text(),
      shape: row.big(),
      ...tellingParts(row.text()),
      keys: row.bigs(),
    };
    return { record, component };
  }
}
