import type pg from 'pg';
import type { StrandRecord } from '@fadenweg/core/path';
import { tellingParts } from '@fadenweg/core/shapes';
import type { Level } from '@fadenweg/core/units';
import { CopyRows } from '../database/copy-rows.ts';
import { copyInto } from '../database/copy-into.ts';
import { copyOut, type RowReader } from '../database/copy-out.ts';
import { JUDGED, readJudged } from '../evidence/judged-record.ts';
import { carriedTo, recordsOfAll, recordsOfSome } from './records-of-all.ts';
import type { TakeRecalled } from './recall.ts';
import type { Slice } from './slices.ts';

/** Most records of one strand that its path is worked out from. */
export const MOST_RECORDS = 20_000;
/** From this many strands on, and from a strand on for so many records that there are, one sorted pass over the records is cheaper than look-ups by key. */
const BULK = 3000;
const RECORDS = 750;
const FIELDS = `t.founder, r.at, r.id, ${JUDGED}`;
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
  recall(founders: readonly number[], take: TakeRecalled): void;
  component(id: number): string;
  host(id: number): string;
  /** How many records there are. */
  records: number;
}

/** The records of one strand, at most 20,000 of them, in order of time. */
export interface Gathered {
  founder: number;
  records: StrandRecord[];
  /** How many there are. */
  total: number;
  /** Numbers of the components that they are of, and of the hosts. */
  components: Set<number>;
  hosts: Set<number>;
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
    await copyOut(client, CARRIED, (row) => gathering.carry(row.big(), row.big(), row.big(), row));
    context.recall(atHand, (strand, at, id, row) => gathering.add(atHand[strand]!, at, id, row));
    gathering.flush();
    gathering.forgetCarried();
  }
  progress(atHand.length);
  // a slice of many lies in a part of them
  if (rest.length >= BULK && (from !== -Infinity || rest.length >= context.records / RECORDS)) {
    if (atHand.length > 0) await touch(client, rest);
    await client.query(`set work_mem = '256MB'`);
    await copyOut(client, allAtOnce(from, to), (row) => gathering.add(row.big(), row.big(), row.big(), row));
    await client.query('reset work_mem');
    if (atHand.length > 0) await touch(client, founders);
  } else {
    await recordsOfSome(client, rest, FIELDS, (row) => gathering.add(row.big(), row.big(), row.big(), row), {
      progress: (done) => progress(founders.length - rest.length + done),
    });
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

/** A record, and the numbers of its component and host. */
interface Read {
  record: StrandRecord;
  component: number;
  host: number;
}

/** Gathers the records of one strand after the other. */
class Gathering {
  private founder = NaN;
  private records: StrandRecord[] = [];
  private total = 0;
  private components = new Set<number>();
  private hosts = new Set<number>();
  private readonly carried = new Map<number, Read[]>();

  constructor(
    private readonly context: GatherContext,
    private readonly hand: (strand: Gathered) => void,
  ) {}

  add(founder: number, at: number, id: number, row: RowReader): void {
    if (founder !== this.founder) {
      this.flush();
      this.founder = founder;
    }
    this.total++;
    if (this.records.length < MOST_RECORDS) this.take(this.read(at, id, row));
  }
  /** Keeps a record that is carried over until those come that name the strand. */
  carry(founder: number, at: number, id: number, row: RowReader): void {
    const list = this.carried.get(founder);
    if (list) list.push(this.read(at, id, row));
    else this.carried.set(founder, [this.read(at, id, row)]);
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
    const { founder, records, total, components, hosts } = this;
    this.records = [];
    this.components = new Set();
    this.hosts = new Set();
    this.total = 0;
    if (records.length > 0) this.hand({ founder, records, total, components, hosts });
  }

  private take({ record, component, host }: Read): void {
    this.records.push(record);
    this.components.add(component);
    if (record.host !== '') this.hosts.add(host);
  }
  private read(at: number, id: number, row: RowReader): Read {
    const { component, host, level, traits, ...rest } = readJudged(row);
    const record: StrandRecord = {
      at,
      id: String(id),
      component: this.context.component(component),
      host: this.context.host(host),
      level: level as Level,
      ...tellingParts(traits),
      ...rest,
    };
    return { record, component, host };
  }
}
