import type { StrandFacts } from '@fadenweg/core/against';
import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';

/** What is looked at: strands that have a party, pass through a component, a host, or a component while a version of it was in force. */
export type Thing =
  | { what: 'party' | 'component' | 'host'; id: number }
  | { what: 'version'; id: number; spans: readonly { host: number | null; from: Microseconds; to: Microseconds }[] };
export interface AgainstAsked {
  from: Microseconds;
  to: Microseconds;
  environment: string[];
}
export interface PeerRow {
  id: number;
  strands: number;
  amiss: number;
  expected: number;
  median: number | null;
}
interface Part {
  sql: string;
  bindings: readonly (number | number[])[];
}
const COLUMN = { party: 'parties', component: 'components', host: 'hosts', version: 'components' } as const;
const MOST_PEERS = 200;
const AMISS = "outcome not in ('done', 'running', 'out-of-sight')";

/** Strands of one thing and of all others. */
export class AgainstRepository {
  constructor(private readonly db: Database) {}

  /** Of the components that its strands' flows pass: how many strands do, and how many pass both. */
  async together(
    component: number,
    flows: readonly string[],
    { from, to, environment }: AgainstAsked,
  ): Promise<{ id: number; strands: number; both: number }[]> {
    const { rows } = await this.db.raw<{ rows: { id: number; strands: number; both: number }[] }>(
      `select id, count(*)::int as strands, (count(*) filter (where components @> array[?]::bigint[]))::int as both
         from strand cross join unnest(components) as one(id) where environment = any(?) and started_at >= ? and started_at < ? and coalesce(flow, '') = any(?) and id <> ? group by 1`,
      [component, environment, from, to, [...flows], component],
    );
    return rows;
  }

  /** Components that speak at a host. */
  async speakingAt(host: number): Promise<number[]> {
    const rows: { component_id: number }[] = await this.db('speaker').where({ host_id: host }).distinct('component_id');
    return rows.map((one) => one.component_id);
  }

  /** How many there are of a thing, by flow. */
  async flows(thing: Thing, { from, to, environment }: AgainstAsked): Promise<{ flow: string; strands: number }[]> {
    const own = ownOf(thing);
    const { rows } = await this.db.raw<{ rows: { flow: string; strands: number }[] }>(
      `select coalesce(flow, '') as flow, count(*)::int as strands from strand where environment = any(?) and started_at >= ? and started_at < ? and ${own.sql} group by 1 order by 2 desc, 1`,
      [environment, from, to, ...own.bindings],
    );
    return rows;
  }

  /**
   * Of each strand what is compared: of those of a thing, or of all others of some flows.
   *
   * @param side each: of so many one, always the same ones, founders are hashes; instead: components of which the others pass one at least
   */
  async facts(
    thing: Thing,
    side: { own: boolean; flows: readonly string[]; each: number; instead?: readonly number[] | null },
    { from, to, environment }: AgainstAsked,
  ): Promise<StrandFacts[]> {
    const own = ownOf(thing);
    const here = thing.what === 'component' || thing.what === 'version' ? 'worked[array_position(components, ?::bigint)]' : 'null::bigint';
    const { rows } = await this.db.raw<{ rows: StrandFacts[] }>(
      `select started_at as at, ?::boolean as own, coalesce(flow, '') as flow, outcome, duration as whole, in_database as database, in_transit as transit, ${here} as here
         from strand where environment = any(?) and started_at >= ? and started_at < ? and ${side.own ? '' : 'not'} (${own.sql})
           and coalesce(flow, '') = any(?) and (?::int = 1 or founder % ?::int = 0) ${side.instead ? 'and components && ?::bigint[]' : ''}`,
      [
        side.own,
        ...(here.startsWith('null') ? [] : [thing.id]),
        environment,
        from,
        to,
        ...own.bindings,
        [...side.flows],
        side.each,
        side.each,
        ...(side.instead ? [[...side.instead]] : []),
      ],
    );
    return rows;
  }

  /** Those of the same kind in some flows: how many strands each has, how many are amiss, how many were if it were as all of its flows. */
  async peers(what: 'party' | 'component' | 'host', flows: readonly string[], { from, to, environment }: AgainstAsked): Promise<PeerRow[]> {
    const lasted = what === 'component' ? 'own.worked' : 'own.duration';
    const each = what === 'component' ? 'unnest(s.components, s.worked) as own(id, worked)' : `unnest(s.${COLUMN[what]}) as one(id)`;
    const { rows } = await this.db.raw<{ rows: PeerRow[] }>(
      `with s as (select coalesce(flow, '') as flow, ${AMISS} as amiss, outcome in ('done', 'slow') as ended, duration, ${what === 'component' ? 'components, worked' : COLUMN[what]}
                    from strand where environment = any(?) and started_at >= ? and started_at < ? and coalesce(flow, '') = any(?)),
            usual as (select flow, avg(amiss::int) as share from s group by 1)
         select id, count(*)::int as strands, (count(*) filter (where amiss))::int as amiss, sum(share)::float8 as expected,
           percentile_disc(0.5) within group (order by lasted) filter (where ended) as median
           from (select ${what === 'component' ? 'own.id' : 'one.id'}, s.amiss, s.ended, usual.share, ${what === 'component' ? lasted : 's.duration'} as lasted
                   from s join usual using (flow) cross join lateral ${each}) u
           group by 1 order by 2 desc, 1 limit ${MOST_PEERS}`,
      [environment, from, to, [...flows]],
    );
    return rows;
  }
}

function ownOf(thing: Thing): Part {
  const has: Part = { sql: `${COLUMN[thing.what]} @> array[?]::bigint[]`, bindings: [thing.id] };
  if (thing.what !== 'version') return has;
  const spans = thing.spans.map(({ host, from, to }): Part => {
    const parts: Part[] = [
      ...(Number.isFinite(from) ? [{ sql: 'started_at >= ?', bindings: [from] }] : []),
      ...(Number.isFinite(to) ? [{ sql: 'started_at < ?', bindings: [to] }] : []),
      ...(host === null ? [] : [{ sql: 'hosts @> array[?]::bigint[]', bindings: [host] }]),
    ];
    return { sql: parts.length === 0 ? 'true' : parts.map((one) => one.sql).join(' and '), bindings: parts.flatMap((one) => one.bindings) };
  });
  return { sql: `${has.sql} and (${spans.length === 0 ? 'false' : spans.map((one) => `(${one.sql})`).join(' or ')})`, bindings: [...has.bindings, ...spans.flatMap((one) => one.bindings)] }; // prettier-ignore
}
