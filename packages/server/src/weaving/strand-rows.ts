import type { BeforeAndSince } from '@fadenweg/core/changes';
import type { Database } from '../database/connect.ts';
import type { Outcome } from '@fadenweg/core/path';
import type { StrandRow } from './strand-layout.ts';

export type { StrandRow };

export type StrandSort = 'started' | '-started' | 'duration' | '-duration';
export interface StrandFilter {
  flow?: string[];
  outcome?: string[];
  /** Strands that go on in it; with `began` those alone that began in it. */
  from?: number;
  to?: number;
  began?: boolean;
  founders?: number[];
  parties?: number[];
  environment?: string[];
  /** Numbers of components: it passes through one of them at least. */
  components?: number[];
  /** Numbers of hosts: a record of it is of one of them at least. */
  hosts?: number[];
  /** Components that gave up. */
  failedIn?: string[];
  /** Signature of its first finding. */
  finding?: string;
  /** It failed by one of these faults, by none of those; or other records of it tell one. */
  faults?: number[];
  faultsOut?: number[];
  mentions?: number[];
  /** It weighs so much at least, 0 to 3. */
  weighs?: number;
  /** Bounds of its duration, in microseconds. */
  shortest?: number;
  longest?: number;
}
/** Strands that have a flow, a party or the component that gave up in common. */
export interface GroupRow {
  /** Of the flow, null for none; the party's key; or of the component. */
  name: string | number | null;
  /** Of strands with one finding: what the latest of them says. */
  headline: string;
  strands: number;
  outcomes: Record<string, number>;
  p50: number;
  p95: number;
  last: number;
}
interface Medians {
  strands: number;
  whole: number;
  /** The 95th percentile. */
  slow: number;
  database: number;
  transit: number;
}
/** Of the strands that began in a slot, in microseconds; of a party where it had any. */
export interface SeriesRow {
  slot: number;
  all: Medians;
  party: Medians | null;
}
const GROUPED_BY = { flow: 's.flow', party: 'p.party', 'failed-in': 's.failed_in', finding: 's.signature' } as const;
export interface StrandCursor {
  value: number;
  founder: number;
}

const MOST_RELATED = 200;

/** Strands as they were judged. Paged by what they are sorted by, and the founder. */
export class StrandRepository {
  constructor(private readonly db: Database) {}

  byFounder(founder: number): Promise<StrandRow | undefined> {
    return this.db<StrandRow>('strand').where({ founder }).first();
  }

  async anyOfKind(kind: string): Promise<boolean> {
    const one = await this.db('strand')
      .whereIn('kind_id', this.db('identifier_kind').where({ name: kind }).select('id'))
      .first('founder');
    return one !== undefined;
  }

  /** Other strands with a finding like that one, and when the first of them began. */
  async similar(signature: string, except: number): Promise<{ count: number; since: number | null }> {
    const row = await this.db<StrandRow>('strand').where({ signature }).whereNot({ founder: except }).count({ count: '*' }).min({ since: 'started_at' }).first(); // prettier-ignore
    return { count: Number(row?.count ?? 0), since: (row?.since as number | null) ?? null };
  }

  /** Strands of a flow and environment before and since an instant, each within a length of time: those with a finding like that one, and all. */
  async beforeAndSince(
    { flow, environment }: { flow: string; environment: string },
    signature: string,
    at: number,
    length: number,
  ): Promise<BeforeAndSince> {
    const count = (what: string): string => `(select count(*) from strand where flow = :flow and environment = :environment and ${what})`;
    const [before, since] = ['started_at >= :from and started_at < :at', 'started_at >= :at and started_at < :to'];
    const { rows } = await this.db.raw<{ rows: Record<'before' | 'since' | 'faulty_before' | 'faulty_since', number>[] }>(
      `select ${count(before)} as before, ${count(since)} as since, ${count(`signature = :signature and ${before}`)} as faulty_before,
         ${count(`signature = :signature and ${since}`)} as faulty_since`,
      { flow, environment, signature, at, from: at - length, to: at + length },
    );
    const one = rows[0]!;
    return {
      before: { faulty: Number(one.faulty_before), all: Number(one.before) },
      since: { faulty: Number(one.faulty_since), all: Number(one.since) },
    };
  }

  /** Strands of a flow and environment with an outcome that began next before and behind one, so many on each side. */
  async neighbours({ flow, environment, started_at }: StrandRow & { flow: string }, outcome: string, each: number): Promise<StrandRow[]> {
    const side = (sign: '<' | '>=', order: 'asc' | 'desc') =>
      this.db<StrandRow>('strand')
        .where({ flow, environment, outcome })
        .where('started_at', sign, started_at)
        .orderBy('started_at', order)
        .limit(each);
    const [before, behind] = await Promise.all([side('<', 'desc'), side('>=', 'asc')]);
    return [...before, ...behind];
  }

  /** The first strand of a flow that has a party. */
  /** How many strands have a first finding like that, and the first two of them: one of these is none that is asked about. */
  async firstAlike(signature: string): Promise<{ count: number; first: { founder: number; startedAt: number }[] }> {
    const { rows } = await this.db.raw<{ rows: { count: number; founders: number[] | null; begins: number[] | null }[] }>(
      `select count(*)::bigint as count, (array_agg(founder order by started_at, founder))[1:2] as founders,
          (array_agg(started_at order by started_at, founder))[1:2] as begins from strand where signature = ?`,
      [signature],
    );
    const { count, founders, begins } = rows[0]!;
    return { count, first: (founders ?? []).map((founder, i) => ({ founder, startedAt: begins![i]! })) };
  }
  /** Of strands, in the order asked. */
  async signatures(founders: readonly number[]): Promise<(string | null)[]> {
    const rows: { founder: number; signature: string | null }[] = await this.db('strand').whereIn('founder', [...new Set(founders)]).select('founder', 'signature'); // prettier-ignore
    const found = new Map(rows.map((row) => [row.founder, row.signature]));
    return founders.map((one) => found.get(one) ?? null);
  }
  /** `firstOf` of many, in the order asked. */
  async firstOfEach(asked: readonly { flow: string; party: number }[]): Promise<(Pick<StrandRow, 'founder' | 'value'> | undefined)[]> {
    const { rows } = await this.db.raw<{ rows: { place: number; founder: number; value: string }[] }>(
      `select u.place::int as place, s.founder, s.value from unnest(?::text[], ?::bigint[]) with ordinality u(flow, party, place)
         cross join lateral (select founder, value from strand where flow = u.flow and parties @> array[u.party] order by started_at, founder limit 1) s`,
      [asked.map((one) => one.flow), asked.map((one) => one.party)],
    );
    const found = new Map(rows.map((row) => [row.place - 1, row]));
    return asked.map((_, place) => found.get(place));
  }
  firstOf(flow: string, party: number): Promise<StrandRow | undefined> {
    return this.db<StrandRow>('strand').where({ flow }).whereRaw('parties @> array[?::bigint]', [party]).orderBy(['started_at', 'founder']).first();
  }

  async byFounders(founders: readonly number[]): Promise<StrandRow[]> {
    return founders.length === 0 ? [] : this.db<StrandRow>('strand').whereIn('founder', [...new Set(founders)]);
  }

  list(filter: StrandFilter, sort: StrandSort, after: StrandCursor | null, limit: number): Promise<StrandRow[]> {
    const column = sort.endsWith('duration') ? 'duration' : 'started_at';
    const order = sort.startsWith('-') ? 'desc' : 'asc';
    const query = this.filtered(filter)
      .orderBy([
        { column, order },
        { column: 'founder', order },
      ])
      .limit(limit)
      .select('*');
    if (after) void query.whereRaw(`(${column}, founder) ${order === 'asc' ? '>' : '<'} (?, ?)`, [after.value, after.founder]);
    return query;
  }

  /** Strands that overlap the window, by flow and outcome. */
  async counts(filter: StrandFilter): Promise<{ flow: string | null; outcome: Outcome; count: number }[]> {
    return this.filtered(filter).groupBy('flow', 'outcome').select('flow', 'outcome').count({ count: '*' });
  }

  /** Groups of strands, the largest first. */
  async groups(by: keyof typeof GROUPED_BY, filter: StrandFilter, limit: number): Promise<GroupRow[]> {
    const own = this.filtered(filter).select('flow', 'parties', 'failed_in', 'signature', 'headline', 'outcome', 'duration', 'started_at');
    const named = `select ${GROUPED_BY[by]} as name, s.* from own s ${by === 'party' ? 'cross join unnest(s.parties) p(party)' : ''} ${by === 'failed-in' || by === 'finding' ? `where ${GROUPED_BY[by]} is not null` : ''}`;
    const { rows } = await this.db.raw<{ rows: GroupRow[] }>(
      `with own as (?), named as (${named}), by_outcome as (select name, outcome, count(*) as count from named group by 1, 2),
         whole as (
           select name, count(*)::int as strands, percentile_disc(array[0.5, 0.95]) within group (order by duration) as at, max(started_at) as last, (array_agg(headline order by started_at desc))[1] as headline
             from named group by 1 order by 2 desc, 1 limit ?)
       select w.name, w.strands, w.at[1] as p50, w.at[2] as p95, w.last, w.headline,
         (select json_object_agg(o.outcome, o.count) from by_outcome o where o.name is not distinct from w.name) as outcomes
         from whole w order by w.strands desc, w.name`,
      [own, limit],
    );
    return rows;
  }

  /** Medians of a flow's strands by slot of time, all of them and those of one party. */
  async series(
    { flow, environment }: { flow: string; environment: string },
    party: number | null,
    slots: { from: number; length: number; count: number },
  ): Promise<SeriesRow[]> {
    const medians = (filter: string): string =>
      `json_build_object('strands', count(*) ${filter}, 'whole', percentile_disc(0.5) within group (order by duration) ${filter},
         'slow', percentile_disc(0.95) within group (order by duration) ${filter}, 'database', percentile_disc(0.5) within group (order by in_database) ${filter},
         'transit', percentile_disc(0.5) within group (order by in_transit) ${filter})`;
    const { rows } = await this.db.raw<{ rows: (SeriesRow & { party: Medians })[] }>(
      `select ((started_at - ?::bigint) / ?::bigint)::int as slot, ${medians('')} as all, ${medians('filter (where of_party)')} as party
         from (select *, parties && ?::bigint[] as of_party from strand where flow = ? and environment = ? and started_at >= ? and started_at < ?) s
         group by 1 order by 1`,
      [slots.from, slots.length, party === null ? [] : [party], flow, environment, slots.from, slots.from + slots.count * slots.length],
    );
    return rows.map((row) => ({ ...row, party: row.party.strands > 0 ? row.party : null }));
  }

  /** Some of the strands that fit, always the same ones: those with the smallest keys, which are hashes. */
  sample(filter: StrandFilter, limit: number): Promise<StrandRow[]> {
    return this.filtered(filter).orderBy('founder').limit(limit).select('*');
  }
  /** Those of these founders whose strands fit. */
  async fitting(filter: StrandFilter, founders: readonly number[]): Promise<Set<number>> {
    const rows = await this.filtered(filter)
      .whereIn('founder', [...founders])
      .select('founder');
    return new Set(rows.map((row) => row.founder));
  }

  related(founder: number): Promise<StrandRow[]> {
    return this.db<StrandRow>('strand')
      .whereIn('founder', this.db('relation').where({ founder }).select('other'))
      .orderBy(['started_at', 'founder'])
      .limit(MOST_RELATED)
      .select('*');
  }
  /** The same for many, in the order asked. */
  async relatedOfAll(founders: readonly number[]): Promise<StrandRow[][]> {
    const { rows } = await this.db.raw<{ rows: (StrandRow & { of: number })[] }>(
      `select u.founder as of, s.* from unnest(?::bigint[]) u(founder) cross join lateral
         (select s.* from relation r join strand s on s.founder = r.other where r.founder = u.founder order by s.started_at, s.founder limit ${MOST_RELATED}) s`,
      [[...new Set(founders)]],
    );
    const found = new Map<number, StrandRow[]>();
    for (const { of, ...row } of rows) found.set(of, [...(found.get(of) ?? []), row as StrandRow]);
    return founders.map((one) => found.get(one) ?? []);
  }

  async total(): Promise<number> {
    const row = await this.db('strand').count({ count: '*' }).first();
    return Number(row?.count ?? 0);
  }

  private filtered({
    flow,
    outcome,
    from,
    to,
    began,
    founders,
    parties,
    environment,
    components,
    hosts,
    failedIn,
    finding,
    faults,
    faultsOut,
    mentions,
    weighs,
    shortest,
    longest,
  }: StrandFilter) {
    const query = this.db<StrandRow>('strand');
    if (flow)
      void query.where((or) =>
        or
          .whereIn(
            'flow',
            flow.filter((name) => name !== 'none'),
          )
          .modify((inner) => {
            if (flow.includes('none')) void inner.orWhereNull('flow');
          }),
      );
    if (environment) void query.whereIn('environment', environment);
    if (outcome) void query.whereIn('outcome', outcome);
    if (from !== undefined) void query.where(began ? 'started_at' : 'ended_at', '>=', from);
    if (to !== undefined) void query.where('started_at', '<', to);
    if (founders) void query.whereIn('founder', founders);
    if (parties) void query.whereRaw('parties && ?::bigint[]', [parties]);
    if (components) void query.whereRaw('components && ?::bigint[]', [components]);
    if (hosts) void query.whereRaw('hosts && ?::bigint[]', [hosts]);
    if (failedIn) void query.whereIn('failed_in', failedIn);
    if (finding !== undefined) void query.where({ signature: finding });
    if (faults) void query.whereRaw('fault = any(?::bigint[])', [faults]);
    if (faultsOut && faultsOut.length > 0) void query.whereRaw('(fault is null or fault <> all(?::bigint[]))', [faultsOut]);
    if (mentions)
      void query.whereRaw(`mentions <> '{}' and mentions && ?::bigint[] and (fault is null or fault <> all(?::bigint[]))`, [mentions, mentions]);
    if (weighs !== undefined) void query.where('weight', '>=', weighs);
    if (shortest !== undefined) void query.where('duration', '>=', shortest);
    if (longest !== undefined) void query.where('duration', '<=', longest);
    return query;
  }
}
