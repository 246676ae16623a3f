import type { Microseconds } from '@fadenweg/core/units';
import type { Weight } from '@fadenweg/core/weights';
import type { Database } from '../database/connect.ts';

export interface FaultAsked {
  from: Microseconds;
  to: Microseconds;
  environment: string[];
  /** Only strands of this flow; '' for none. */
  flow?: string;
}
export interface FaultRow {
  id: number;
  component: string;
  types: string[];
  calls: string[];
  shape: number;
  traits: string;
  words: string;
  /** Itself, and those that people put together with it. */
  members: number[];
  strands: number;
  before: number;
  /** Of the gravest of its strands; null without any. */
  weight: Weight | null;
  follows: number;
  unharmed: number;
  records: number;
  /** Records that name nothing, and so belong to no strand. */
  apart: number;
  first: Microseconds | null;
  last: Microseconds | null;
}
export type FaultOfOrigin = Pick<FaultRow, 'id' | 'component' | 'types' | 'calls' | 'shape' | 'traits' | 'words'>;
export interface SaidRow {
  id: number;
  fault: number;
  state: 'new' | 'in-hand' | 'mended' | 'tolerated';
  owner: string;
  note: string;
  ticket: string;
  version: string;
  since_at: Microseconds | null;
  until_at: Microseconds | null;
  who: string;
  said_at: Date;
}
export interface Occurrence {
  at: Microseconds;
  host: number | null;
}
const MOST_FAULTS = 2000;
const MOST_OCCURRENCES = 2000;
const OWN = 'environment = any(:environment) and started_at >= :from and started_at < :to';
const RECORDS = `from fault_record f join source s on s.id = f.source_id where s.environment = any(:environment) and f.at >= :from and f.at < :to
  and not exists (select from copied c where c.at = f.at and c.id = f.id)`;

/** As which one a fault counts, `k`. */
const HEAD = 'coalesce(k.head, k.id)';

/** Faults, the strands that failed by them, and the records that tell them. */
export class FaultRepository {
  constructor(private readonly db: Database) {}

  /** Faults that came up in a window, those of most strands first; what people put together is one. @param only one of them, by its members */
  async within({ from, to, environment, flow }: FaultAsked, only: readonly number[] | null = null): Promise<FaultRow[]> {
    const one = (column: string): string => (only === null ? '' : `and ${column} = any(:only)`);
    const ofFlow = flow === undefined ? '' : "and coalesce(s.flow, '') = :flow";
    const { rows } = await this.db.raw<{ rows: FaultRow[] }>(
      `with own as (
           select ${HEAD} as fault, (count(*) filter (where s.started_at >= :from))::int as strands, (count(*) filter (where s.started_at < :from))::int as before,
               max(s.weight) filter (where s.started_at >= :from) as weight
             from strand s join fault k on k.id = s.fault where s.environment = any(:environment) and s.started_at >= :before and s.started_at < :to ${ofFlow} ${one('s.fault')} group by 1),
         told as (
           select ${HEAD} as fault, sum(t.records)::int as records, sum(t.apart)::int as apart
             from (select f.fault, count(*) as records, count(*) filter (where f.named = 0) as apart ${RECORDS} ${one('f.fault')} group by 1) t join fault k on k.id = t.fault group by 1),
         mentioned as (
           select m.fault, (count(*) filter (where s.outcome = 'failed'))::int as follows, (count(*) filter (where s.outcome <> 'failed'))::int as unharmed
             from strand s left join fault i on i.id = s.fault
               cross join lateral (select distinct ${HEAD} as fault from unnest(s.mentions) u(id) join fault k on k.id = u.id where true ${one('u.id')}) m
             where s.mentions <> '{}' and s.environment = any(:environment) and s.started_at >= :from and s.started_at < :to ${ofFlow}
               and m.fault is distinct from coalesce(i.head, i.id) group by 1)
       select f.*, coalesce(o.strands, 0) as strands, coalesce(o.before, 0) as before, o.weight, coalesce(m.follows, 0) as follows, coalesce(m.unharmed, 0) as unharmed,
           coalesce(t.records, 0) as records, coalesce(t.apart, 0) as apart, seen.*
         from fault f left join own o on o.fault = f.id left join told t on t.fault = f.id left join mentioned m on m.fault = f.id
         cross join lateral (
           select array_agg(k.id) as members, min(least((select min(at) from fault_record r where r.fault = k.id), (select min(started_at) from strand s where s.fault = k.id))) as first,
             max(greatest((select max(at) from fault_record r where r.fault = k.id), (select max(started_at) from strand s where s.fault = k.id))) as last
             from (select f.id union all select h.id from fault h where h.head = f.id) k) seen
         where ${only === null ? `f.head is null and (o.strands > 0 or m.follows > 0 or m.unharmed > 0${flow === undefined ? ' or t.records > 0' : ''})` : 'f.head is null and f.id = any(:only)'}
         order by strands desc, records desc, f.id limit ${MOST_FAULTS}`,
      { from, to, before: from - (to - from), environment, ...(only === null ? {} : { only: [...only] }), ...(flow === undefined ? {} : { flow }) },
    );
    return rows;
  }

  /** Failed strands of some faults, by piece of a window. */
  async courses(ids: readonly number[], bounds: readonly Microseconds[], environment: string[], flow?: string): Promise<Map<number, number[]>> {
    const { rows } = await this.db.raw<{ rows: { fault: number; piece: number; strands: number }[] }>(
      `select ${HEAD} as fault, width_bucket(s.started_at, ?::bigint[])::int - 1 as piece, count(*)::int as strands from strand s join fault k on k.id = s.fault
         where ${HEAD} = any(?) and s.environment = any(?) and s.started_at >= ? and s.started_at < ? ${flow === undefined ? '' : "and coalesce(s.flow, '') = ?"} group by 1, 2`,
      [[...bounds], [...ids], environment, bounds[0]!, bounds.at(-1)!, ...(flow === undefined ? [] : [flow])],
    );
    const found = new Map<number, number[]>(ids.map((id) => [id, new Array<number>(bounds.length - 1).fill(0)]));
    for (const { fault, piece, strands } of rows) found.get(fault)![Math.min(piece, bounds.length - 2)]! += strands;
    return found;
  }

  /** How many strands of a window failed. */
  async failed({ from, to, environment }: FaultAsked): Promise<number> {
    const { rows } = await this.db.raw<{ rows: { count: number }[] }>(
      `select count(*)::int as count from strand where outcome = 'failed' and ${OWN}`,
      { from, to, environment }, // prettier-ignore
    );
    return rows[0]!.count;
  }

  /** Of the strands of a fault: how many of each flow, and of how many others. */
  async flows(members: readonly number[], { from, to, environment }: FaultAsked): Promise<{ flow: string; strands: number; of: number }[]> {
    const { rows } = await this.db.raw<{ rows: { flow: string; strands: number; of: number }[] }>(
      `select coalesce(flow, '') as flow, (count(*) filter (where fault = any(:members)))::int as strands, count(*)::int as of from strand
         where ${OWN} and coalesce(flow, '') in (select coalesce(flow, '') from strand where fault = any(:members) and ${OWN}) group by 1 order by 2 desc, 1`,
      { members: [...members], from, to, environment },
    );
    return rows;
  }

  /** Parties or hosts of the strands of a fault, each with how many others of those flows have it. */
  async having(what: 'parties' | 'hosts', members: readonly number[], flows: readonly string[], { from, to, environment }: FaultAsked, most: number) {
    const { rows } = await this.db.raw<{ rows: { id: number; inside: number; outside: number }[] }>(
      `with p as (select k.id, count(*)::int as inside from strand cross join unnest(${what}) k(id) where fault = any(:members) and ${OWN} group by 1 order by 2 desc, 1 limit :most)
       select p.id, p.inside, (select count(*)::int from strand s where s.${what} @> array[p.id] and ${OWN} and coalesce(s.flow, '') = any(:flows) and (s.fault is null or s.fault <> all(:members))) as outside from p`,
      { members: [...members], from, to, environment, flows: [...flows], most },
    );
    return rows;
  }

  /** Signatures of first findings by which its strands are known, the most frequent first. */
  async signatures(members: readonly number[], most: number): Promise<string[]> {
    const { rows } = await this.db.raw<{ rows: { signature: string }[] }>(
      'select signature from strand where fault = any(?) and signature is not null group by 1 order by count(*) desc, 1 limit ?',
      [[...members], most],
    );
    return rows.map((one) => one.signature);
  }

  /** Faults that other records of its strands tell. */
  async followed(members: readonly number[], { from, to, environment }: FaultAsked, most: number): Promise<(FaultOfOrigin & { strands: number })[]> {
    const { rows } = await this.db.raw<{ rows: (FaultRow & { strands: number })[] }>(
      `select f.*, m.strands from (
           select ${HEAD} as id, count(distinct s.founder)::int as strands from strand s cross join unnest(s.mentions) u(id) join fault k on k.id = u.id
             where s.fault = any(:members) and ${HEAD} <> all(:members) and s.environment = any(:environment) and s.started_at >= :from and s.started_at < :to group by 1 order by 2 desc, 1 limit :most) m
         join fault f using (id) order by m.strands desc, f.id`,
      { members: [...members], from, to, environment, most },
    );
    return rows;
  }

  /** Through which components strands come, in the order in which they first speak, the most frequent ways first: of a fault, or of those of its main flow that ended well. */
  async ways(
    which: { members: readonly number[] } | { flow: string },
    { from, to, environment }: FaultAsked,
    most: number,
  ): Promise<{ components: number[]; strands: number }[]> {
    const own = 'members' in which ? 'fault = any(:which)' : "coalesce(flow, '') = :which and outcome = 'done'";
    const { rows } = await this.db.raw<{ rows: { components: number[]; strands: number }[] }>(
      `select components, count(*)::int as strands from strand where ${own} and ${OWN} group by 1 order by 2 desc, 1 limit :most`,
      { which: 'members' in which ? [...which.members] : which.flow, from, to, environment, most },
    );
    return rows;
  }

  /** Faults of which records or strands stand in stretches of time of a component, on a host where one is named. */
  async inSpans(
    spans: readonly { component: string; host: number | null; from: Microseconds; to: Microseconds }[],
    environment: readonly string[],
  ): Promise<Set<number>> {
    const { rows } = await this.db.raw<{ rows: { fault: number }[] }>(
      `with span as (select * from unnest(:components::text[], :hosts::int[], :begins::bigint[], :ends::bigint[]) u(component, host, begin_at, end_at))
       select distinct ${HEAD} as fault from fault k join fault h on h.id = ${HEAD} join span u on u.component = h.component
         where exists (select from fault_record f join source s on s.id = f.source_id where f.fault = k.id and f.at >= u.begin_at and f.at < u.end_at
             and (u.host is null or f.host_id is null or f.host_id = u.host) and s.environment = any(:environment))
           or exists (select from strand t where t.fault = k.id and t.fault_at >= u.begin_at and t.fault_at < u.end_at and t.environment = any(:environment))`,
      {
        components: spans.map((one) => one.component),
        hosts: spans.map((one) => one.host),
        begins: spans.map((one) => one.from),
        ends: spans.map((one) => one.to),
        environment: [...environment],
      },
    );
    return new Set(rows.map((one) => one.fault));
  }

  /** When it occurred since an instant, the latest first, and on which host where that is known. */
  async occurrences(members: readonly number[], since: Microseconds, environment: string[] | null): Promise<Occurrence[]> {
    const { rows } = await this.db.raw<{ rows: Occurrence[] }>(
      `(select f.at, f.host_id as host from fault_record f join source s on s.id = f.source_id where f.fault = any(:members) and f.at > :since and (:all or s.environment = any(:environment))
           and not exists (select from copied c where c.at = f.at and c.id = f.id) order by f.at desc limit :most)
       union all (select fault_at, null from strand where fault = any(:members) and fault_at > :since and (:all or environment = any(:environment)) order by started_at desc limit :most)`,
      { members: [...members], since, all: environment === null, environment: environment ?? [], most: MOST_OCCURRENCES },
    );
    return rows;
  }

  /** The latest record of it in a window; of its strands where none of its records is an error. */
  async latest(members: readonly number[], { from, to, environment }: FaultAsked): Promise<{ at: Microseconds; id: number } | null> {
    const bindings = { members: [...members], from, to, environment };
    const told = await this.db.raw<{ rows: { at: number; id: number }[] }>(`select f.at, f.id ${RECORDS} and f.fault = any(:members) order by f.at desc limit 1`, bindings); // prettier-ignore
    if (told.rows[0]) return told.rows[0];
    const own = await this.db.raw<{ rows: { at: number; id: number }[] }>(`select fault_at as at, fault_record as id from strand where fault = any(:members) and ${OWN} order by started_at desc limit 1`, bindings); // prettier-ignore
    return own.rows[0] ?? null;
  }

  /** What was said of faults, the latest first. */
  said(ids: readonly number[]): Promise<SaidRow[]> {
    return this.db<SaidRow>('fault_said').whereIn('fault', [...ids]).orderBy('id', 'desc'); // prettier-ignore
  }
  /** As which fault one counts; null where there is none. */
  async headOf(id: number): Promise<number | null> {
    const row: { head: number | null } | undefined = await this.db('fault').where({ id }).first('head');
    return row === undefined ? null : (row.head ?? id);
  }
  /** Those that count as a fault, it among them, itself first. */
  async members(head: number): Promise<FaultOfOrigin[]> {
    const rows: FaultOfOrigin[] = await this.db('fault').where({ id: head }).orWhere({ head }).select('id', 'component', 'types', 'calls', 'shape', 'traits', 'words'); // prettier-ignore
    return rows.sort((a, b) => Number(b.id === head) - Number(a.id === head) || a.id - b.id);
  }
  /** The last that was said of each of which anything was said, and who counts as it. */
  async lastSaid(states: readonly SaidRow['state'][]): Promise<(SaidRow & { component: string; members: number[] })[]> {
    const { rows } = await this.db.raw<{ rows: (SaidRow & { component: string; members: number[] })[] }>(
      `select s.*, f.component, array(select f.id union all select k.id from fault k where k.head = f.id) as members
         from (select distinct on (fault) * from fault_said order by fault, id desc) s join fault f on f.id = s.fault where f.head is null and s.state = any(?)`,
      [[...states]],
    );
    return rows;
  }
  async say(row: Omit<SaidRow, 'id' | 'said_at'>): Promise<void> {
    await this.db('fault_said').insert(row);
  }
  /** Takes back the last that was said. */
  async unsay(fault: number): Promise<boolean> {
    const { rows } = await this.db.raw<{ rows: unknown[] }>('delete from fault_said where id = (select max(id) from fault_said where fault = ?) returning id', [fault]); // prettier-ignore
    return rows.length > 0;
  }
}
