import type pg from 'pg';
import { arranged, headline, pathOf, spentOf, verdictByLeg, type FlowRules, type Graph, type Level, type StrandRecord } from '@fadenweg/core';
import { sourceOfId } from '../intake/batch.ts';
import { CopyRows } from '../intake/copy-rows.ts';
import { copyInto } from '../intake/store-batch.ts';
import { copyOut, type RowReader } from './copy-out.ts';
import { carriedTo, recordsOfAll } from './records-of-all.ts';

/** Most records of one strand that its path is worked out from. */
export const MOST_RECORDS = 20_000;
/** From this many strands on, one sorted pass over the records is cheaper than look-ups by key. */
const BULK = 3000;
const CHUNK = 200;
const COLUMNS =
  'founder, kind_id, value, flow, outcome, started_at, ended_at, duration, records, failed_in, headline, parties, environment, components, in_database, in_transit';
const FIELDS = 't.founder, r.at, r.id, r.component_id, r.host_id, r.level, r.marks, r.took, left(r.message, 161), r.keys';

/** Records that are carried over to the strands that are at issue. */
const CARRIED = carriedTo('touched', FIELDS);
const ALL_AT_ONCE = `${recordsOfAll('touched', FIELDS)} order by 1, 2, 3`;

export interface JudgeContext {
  /** Founders whose records are at hand, and how to read them, strand after strand, in order of time. */
  recalled: readonly number[];
  recall(take: (strand: number, row: RowReader) => void): void;
  graph: Graph;
  component(id: number): string;
  host(id: number): string;
  kindName(id: number): string;
  /** Whether a component, by its name, is a database server. */
  isDatabase(component: string): boolean;
  /** Value and kind of founders, read with their ties. */
  flows: readonly FlowRules[];
  evidenceEnd: number;
  /** Of a source. */
  environment(sourceId: number): string;
}

/** The flow that a founding identifier stands for. */
export const flowOf = (flows: readonly FlowRules[], kind: string, value: string): FlowRules | null =>
  flows.find((flow) => flow.kind === kind && value.startsWith(flow.prefix)) ?? null;

/**
 * Works out path, outcome and first finding of strands anew and stores them.
 *
 * @param founders keys of the founding identifiers; those that found no strand any more lose their row
 * @returns how many strands were stored
 */
export async function judge(
  client: pg.Client,
  founders: readonly number[],
  context: JudgeContext,
  progress: (done: number) => void,
): Promise<number> {
  if (founders.length === 0) return 0;
  await client.query('create temp table if not exists touched (founder bigint primary key) on commit preserve rows');
  await touch(client, founders);
  const values = await founderValues(client);
  const out = new StrandRows(context, values);
  if (context.recalled.length > 0) await copyOut(client, CARRIED, (row) => out.carry(row.big(), row));
  context.recall((strand, row) => out.add(context.recalled[strand]!, row));
  out.flush();
  out.forgetCarried();
  const atHand = new Set(context.recalled);
  const rest = atHand.size === 0 ? founders : founders.filter((founder) => !atHand.has(founder));
  progress(founders.length - rest.length);
  if (rest.length >= BULK) {
    if (atHand.size > 0) await touch(client, rest);
    await client.query(`set work_mem = '256MB'`);
    await copyOut(client, ALL_AT_ONCE, (row) => out.add(row.big(), row));
    await client.query('reset work_mem');
    if (atHand.size > 0) await touch(client, founders);
  } else {
    for (let i = 0; i < rest.length; i += CHUNK) {
      await chunk(client, rest.slice(i, i + CHUNK), out);
      progress(founders.length - rest.length + i);
    }
  }
  out.flush();
  await client.query('begin');
  await client.query('delete from strand where founder in (select founder from touched)');
  await copyInto(client, 'strand', COLUMNS, out.rows.finish());
  await client.query('commit');
  return out.rows.count;
}

/** Sets the table of the strands that are at issue. */
async function touch(client: pg.Client, founders: readonly number[]): Promise<void> {
  await client.query('truncate touched');
  const rows = new CopyRows();
  for (const founder of founders) {
    rows.begin(1);
    rows.big(founder);
  }
  await copyInto(client, 'touched', 'founder', rows.finish());
  await client.query('analyze touched');
}

async function chunk(client: pg.Client, founders: readonly number[], out: StrandRows): Promise<void> {
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

async function founderValues(client: pg.Client): Promise<Map<number, { kind: number; value: string }>> {
  const values = new Map<number, { kind: number; value: string }>();
  await copyOut(
    client,
    'select distinct on (s.key) s.key, s.kind_id, s.value from touched f join sighting s on s.key = f.founder order by s.key',
    (row) => {
      values.set(row.big(), { kind: row.small(), value: row.text() });
    },
  );
  return values;
}

/** A record, and the number of its component. */
interface Read {
  record: StrandRecord;
  component: number;
}

/** Gathers the records of one strand after the other and writes a row for each. */
class StrandRows {
  readonly rows = new CopyRows();
  private founder = NaN;
  private records: StrandRecord[] = [];
  private total = 0;
  /** Numbers of the components that its records are of. */
  private components = new Set<number>();
  private readonly carried = new Map<number, Read[]>();

  constructor(
    private readonly context: JudgeContext,
    private readonly values: Map<number, { kind: number; value: string }>,
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
      keys: row.bigs(),
    };
    return { record, component };
  }

  flush(): void {
    const carried = this.carried.get(this.founder);
    if (carried) {
      this.total += carried.length;
      for (const one of carried.slice(0, MOST_RECORDS - this.records.length)) this.take(one);
      this.records.sort((a, b) => a.at - b.at || Number(a.id) - Number(b.id));
    }
    const { total, founder, context, components } = this;
    const { records } = arranged(this.records);
    this.records = [];
    this.components = new Set();
    this.total = 0;
    const named = this.values.get(founder);
    if (records.length === 0 || !named) return;
    const kind = context.kindName(named.kind);
    const flow = flowOf(context.flows, kind, named.value);
    const path = pathOf(records, context.graph.isLink);
    const { outcome, findings } = verdictByLeg(records, path, flow, context.evidenceEnd);
    const first = findings[0];
    const row = this.rows;
    const { inDatabase, inTransit } = spentOf(path, context.isDatabase);
    row.begin(16);
    row.big(founder);
    row.small(named.kind);
    row.text(named.value);
    if (flow) row.text(flow.name);
    else row.nothing();
    row.text(outcome);
    row.big(path.startedAt);
    row.big(path.endedAt);
    row.big(path.duration);
    row.int(total);
    if (first) row.text(first.failedIn);
    else row.nothing();
    row.text(first ? headline(first.sentence) : '');
    row.bigs(this.parties(records));
    row.text(context.environment(sourceOfId(Number(records[0]!.id))));
    row.bigs([...components]);
    row.big(inDatabase);
    row.big(inTransit);
  }

  private parties(records: readonly StrandRecord[]): number[] {
    const { graph } = this.context;
    const found = new Set<number>();
    for (const { keys } of records) {
      for (const key of keys) {
        if (found.has(key) || found.size >= 20) continue;
        const node = graph.node(key);
        if (node >= 0 && graph.isShared(node)) found.add(key);
      }
    }
    return [...found];
  }
}
