import type pg from 'pg';
import { EVERYWHERE, type Reach } from '@fadenweg/core/coverage';
import type { Parted } from '@fadenweg/core/faults';
import { flowOf, headline, judgeStrand, type FlowRules, type Twin } from '@fadenweg/core/findings';
import { rowsIn, RowsOfRun } from '@fadenweg/core/jobs';
import { arranged, pathOf, spentOf, workedOf, type Path, type StrandRecord } from '@fadenweg/core/path';
import type { Graph } from '@fadenweg/core/stitching';
import type { SilentShapes } from '@fadenweg/core/touched';
import { flowBeginning, isStrand, loudest, type Usual } from '@fadenweg/core/usual';
import { weightInMarks, weightOfStrand, type Weight } from '@fadenweg/core/weights';
import { insertOrigins } from '../evidence/origins.ts';
import { sourceOfId } from '../evidence/record-id.ts';
import { CopyRows } from '../database/copy-rows.ts';
import { copyInto } from '../database/copy-into.ts';
import { transactionOn } from '../database/transaction.ts';
import type { Happened } from '../platform/happenings/kinds.ts';
import { tell } from '../platform/happenings/tell.ts';
import { copyOut } from '../database/copy-out.ts';
import type { Spent } from './spent.ts';
import type { Slice } from './slices.ts';
import { CALL, writeCall } from './call-layout.ts';
import { CALLS, DIALOG, type Dialogs } from './dialogs.ts';
import { STRAND } from './strand-layout.ts';
import { TOUCHED, writeTouched } from './touched-layout.ts';
import { FaultsOf } from './faults-of.ts';
import { gather, touch, type GatherContext, type Gathered } from './gather.ts';

export interface JudgeContext extends GatherContext {
  spent: Spent;
  graph: Graph;
  kindName(id: number): string;
  /** Whether people ask by its values. */
  isBusiness(kind: number): boolean;
  /** Whether a component, by its name, is a database server. */
  isDatabase(component: string): boolean;
  flows: readonly FlowRules[];
  /** By the name of the flow. */
  usual: ReadonlyMap<string, Usual>;
  evidenceEnd: number;
  /** Faults that people parted. */
  parted: readonly Parted[];
  /** How far the evidence of components reaches, for a flow. */
  reach(flow: FlowRules): Reach;
  /** Labels of the kinds of which each value belongs to one strand only, by their number. */
  once: ReadonlyMap<number, string>;
  /** Notes dialogs of calls. */
  dialogs: Dialogs;
  /** Shapes whose messages name nothing that runs read or write. */
  silent: SilentShapes;
  /** Of a source. */
  environment(sourceId: number): string;
}

/**
 * Works out path, outcome and first finding of strands anew and stores them.
 *
 * @param slices keys of the founding identifiers; those that found no strand any more lose their row
 * @param goesOn asked before each further slice; what is left where it does not is for another time
 * @returns how many strands were stored, and the founders that are left
 */
export async function judge(
  client: pg.Client,
  slices: readonly Slice[],
  context: JudgeContext,
  progress: (done: number) => void,
  goesOn: () => boolean = () => true,
): Promise<{ stored: number; left: number[] }> {
  let stored = 0;
  const done: number[] = [];
  let next = 0;
  for (; next < slices.length && (next === 0 || goesOn()); next++) {
    const slice = slices[next]!;
    stored += await judgeRows(client, slice, { ...context, twins: new Map() }, (some) => progress(done.length + some));
    for (const founder of slice.founders) done.push(founder);
  }
  const left = slices.slice(next).flatMap((slice) => slice.founders);
  if (done.length === 0) return { stored, left };
  // what is doubled shows only when all are stored
  if (next > 1) await touch(client, done);
  const twins = await twinsOf(client, context.once);
  if (twins.size > 0) await judgeRows(client, { ...WHENEVER, founders: [...twins.keys()] }, { ...context, twins }, () => {});
  return { stored, left };
}
/** So many are told at once. */
const TOLD = 5000;
/** Those that are new, are none any more, or were judged anew, also to the same outcome: what else is said of them may have changed. */
async function tellJudged(client: pg.Client, before: ReadonlyMap<number, string>, now: ReadonlyMap<number, string>): Promise<void> {
  const strands: Happened['strands-judged']['strands'] = [...now].map(([founder, outcome]) => [founder, before.get(founder) ?? null, outcome]);
  for (const [founder, outcome] of before) if (!now.has(founder)) strands.push([founder, outcome, null]);
  for (let i = 0; i < strands.length; i += TOLD) await tell(client, 'strands-judged', { strands: strands.slice(i, i + TOLD) });
}
const WHENEVER = { from: -Infinity, to: Infinity };

type WithTwins = JudgeContext & { twins: ReadonlyMap<number, Twin> };
async function judgeRows(client: pg.Client, slice: Slice, context: WithTwins, progress: (done: number) => void): Promise<number> {
  const { founders } = slice;
  if (founders.length === 0) return 0;
  await touch(client, founders);
  const rows = new StrandRows(context, await founderValues(client));
  await gather(client, slice, context, (strand) => rows.add(strand), progress);
  const written = rows.rows.finish();
  const calls = rows.calls.finish();
  const dialogs = rows.dialogs.finish();
  const touchedData = rows.touched.finish();
  await transactionOn(client, async () => {
    const gone = await client.query<{ founder: number; outcome: string }>(
      'delete from strand where founder in (select founder from touched) returning founder, outcome',
    );
    await insertOrigins(client, rows.faults.origins());
    await copyInto(client, 'strand', STRAND.sql(), written);
    for (const table of ['call_told', 'dialog', 'touched_data'])
      await client.query(`delete from ${table} where founder in (select founder from touched)`);
    if (rows.calls.count > 0) await copyInto(client, 'call_told', CALL.sql(), calls);
    if (rows.dialogs.count > 0) await copyInto(client, 'dialog', DIALOG.sql(), dialogs);
    if (rows.touched.count > 0) await copyInto(client, 'touched_data', TOUCHED.sql(), touchedData);
    await tellJudged(client, new Map(gone.rows.map((one) => [one.founder, one.outcome])), rows.outcomes);
  });
  return rows.rows.count;
}

/** By founder, the earlier strand of the same flow with which a strand shares an identifier that belongs to one only; among those that share one with what is at issue. */
async function twinsOf(client: pg.Client, once: JudgeContext['once']): Promise<Map<number, Twin>> {
  if (once.size === 0) return new Map();
  const { rows } = await client.query<{ founder: number; key: number; kind: number; value: string; of: string }>(
    `with at_issue as (
       select distinct p.key, s.flow from touched join strand s using (founder) cross join unnest(s.parties) p(key)
         where s.flow is not null and p.key in (select key from sighting where kind_id = any($1))),
     sharing as (
       select a.key, s.founder, s.value, first_value(s.founder) over w as first, first_value(s.value) over w as of
         from at_issue a join strand s on s.flow = a.flow and s.parties @> array[a.key] window w as (partition by a.key, s.flow order by s.started_at, s.founder))
     select distinct on (sharing.founder) sharing.founder, sharing.key, g.kind_id as kind, g.value, sharing.of
       from sharing join sighting g on g.key = sharing.key where sharing.founder <> sharing.first order by sharing.founder, sharing.key`,
    [[...once.keys()]],
  );
  return new Map(rows.map(({ founder, key, kind, value, of }) => [founder, { key, label: once.get(kind) ?? '', value, of }]));
}

/** Value and kind of the founders that are at issue. */
export async function founderValues(client: pg.Client): Promise<Map<number, { kind: number; value: string }>> {
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

/** Writes a row for each strand. */
class StrandRows {
  readonly rows = new CopyRows();
  readonly calls = new CopyRows();
  readonly dialogs = new CopyRows();
  readonly touched = new CopyRows();
  readonly faults: FaultsOf;
  private readonly telling = new Map<number, boolean>();
  /** By founder. */
  readonly outcomes = new Map<number, string>();

  constructor(
    private readonly context: WithTwins,
    private readonly values: Map<number, { kind: number; value: string }>,
  ) {
    this.faults = new FaultsOf(context.parted);
  }

  add(strand: Gathered): void {
    const { context, rows } = this;
    const named = this.values.get(strand.founder);
    if (!named) return;
    const { records } = arranged(strand.records);
    const flow = this.flowOf(named, records[0]!);
    const path = pathOf(records, context.graph.isLink);
    const { outcome, findings, call } = context.spent.now('findings', () => this.verdict(strand.founder, records, path, flow));
    if (!context.isBusiness(named.kind) && !isStrand(flow, outcome, strand.total, loudest(records), context.flows.length > 0)) return;
    this.outcomes.set(strand.founder, outcome);
    const environment = context.environment(sourceOfId(Number(records[0]!.id)));
    if (call) {
      writeCall(this.calls, strand.founder, environment, call);
      context.dialogs.write(this.dialogs, strand.founder, records, (key) => this.isCall(key));
    }
    const first = findings[0];
    const { inDatabase, inTransit } = spentOf(path, context.isDatabase);
    const components = [...strand.components];
    const worked = workedOf(path);
    const toldRows = this.rowsTold(records);
    if (!call)
      context.spent.now('findings', () =>
        writeTouched(this.touched, { founder: strand.founder, environment, flow, records, toldRows }, context.silent),
      );
    const faults = this.faults.of(records, outcome === 'failed' ? (records[first?.record ?? records.length - 1] ?? null) : null);
    STRAND.write(rows, {
      founder: strand.founder,
      kind_id: named.kind,
      value: named.value,
      flow: flow?.name ?? null,
      outcome,
      started_at: path.startedAt,
      ended_at: path.endedAt,
      duration: path.duration,
      records: strand.total,
      failed_in: first?.failedIn ?? null,
      headline: first ? headline(first.sentence) : '',
      signature: first?.signature ?? null,
      parties: this.parties(records),
      environment,
      components,
      in_database: inDatabase,
      in_transit: inTransit,
      hosts: [...strand.hosts],
      worked: components.map((one) => worked.get(context.component(one)) ?? 0),
      ...faults,
      told_rows: toldRows,
      weight: weightOfStrand(
        outcome,
        records.reduce<Weight>((most, { marks }) => (weightInMarks(marks) > most ? weightInMarks(marks) : most), 0),
      ),
    });
  }

  /** Whether people ask by it, and it is named as calls are. */
  private isCall(key: number): boolean {
    const { graph, kindName } = this.context;
    const node = graph.node(key);
    return node >= 0 && kindName(graph.kindOf(node)) === CALLS;
  }
  private rowsTold(records: readonly StrandRecord[]): number[] {
    const run = new RowsOfRun();
    for (const { shape, message } of records) {
      // whether a message tells rows is in its fixed words
      let tells = this.telling.get(shape);
      if (tells === undefined) this.telling.set(shape, (tells = Object.keys(rowsIn(message)).length > 0));
      if (tells) run.note(rowsIn(message));
    }
    return run.list();
  }

  /** By its number; where it has none, that which begins as it does. */
  private flowOf({ kind, value }: { kind: number; value: string }, first: StrandRecord): FlowRules | null {
    const { context } = this;
    if (context.isBusiness(kind)) return flowOf(context.flows, context.kindName(kind), value);
    const name = flowBeginning(context.usual, first);
    return context.flows.find((flow) => flow.name === name) ?? null;
  }

  private verdict(founder: number, records: readonly StrandRecord[], path: Path, flow: FlowRules | null): ReturnType<typeof judgeStrand> {
    const { evidenceEnd, usual, reach, twins } = this.context;
    return judgeStrand({
      records,
      path,
      flow,
      evidenceEnd,
      usual: (flow && usual.get(flow.name)) ?? null,
      reach: flow ? reach(flow) : EVERYWHERE,
      twin: twins.get(founder) ?? null,
    });
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
