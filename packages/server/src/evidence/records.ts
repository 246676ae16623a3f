import { sampledStretches, type SampledRecord } from '@fadenweg/core/identifiers';
import { LEVELS } from '@fadenweg/core/units';
import { foreseenCost, type PlanNode } from './foreseen.ts';
import type { Database } from '../database/connect.ts';
import { ALWAYS, type TieRow } from './identifiers.ts';
import { COLUMNS, RECORD, type RecordColumn, type RecordRow } from './record-layout.ts';

const ERROR = LEVELS.indexOf('error');

/** What a record is about, and the founder of its strand. */
export type About = { founder: number } & Pick<RecordRow, 'component_id' | 'host_id' | 'shape' | 'attributes'>;
export interface Cursor {
  at: number;
  id: number;
}
/** Records around another are looked for this far away in time, in steps. */
const REACH = [60_000_000, 3_600_000_000, 86_400_000_000, 30 * 86_400_000_000];

export type Around = { scope: 'source' | 'component' | 'host' | 'all'; row: RecordRow };

/** A key that belongs to a strand, from when to when. */
type Own = Pick<TieRow, 'key' | 'valid_from' | 'valid_to'>;
/** A lease up to this long, in microseconds, is looked through in order of time: a number that is used all day has far more records than such a while. */
const SHORT = 60_000_000;
const MOST_SHORT = 40;

/** Keys that belong to a strand for good, those that did for a short while, and those that did for longer; no lease stands in two lists. */
function byLength(ties: readonly Own[]): { lasting: number[]; short: Own[]; long: number[] } {
  const lasting = ties.filter((tie) => tie.valid_to === ALWAYS).map((tie) => tie.key);
  const leased = ties.filter((tie) => tie.valid_to !== ALWAYS);
  const long = new Set(leased.filter((tie) => tie.valid_to - tie.valid_from > SHORT).map((tie) => tie.key));
  const short = leased.filter((tie) => !long.has(tie.key));
  for (const tie of short.splice(MOST_SHORT)) long.add(tie.key);
  return { lasting, short: short.filter((tie) => !long.has(tie.key)), long: [...long] };
}

type Narrowed = { sql: string; bindings: readonly unknown[] };
function narrowedQuery(
  from: number,
  to: number,
  latest: boolean,
  after: Cursor,
  narrowing: Narrowed,
  limit: number,
  columns: readonly RecordColumn[] = COLUMNS,
): [string, (string | number)[]] {
  // prettier-ignore
  const direction = latest ? 'desc' : 'asc';
  // a cursor between two times needs no comparison of its own for each row
  const between = latest && after.id === 0;
  const behind = between ? '' : `and (r.at, r.id) ${latest ? '<' : '>'} (?, ?)`;
  return [
    `select ${columns.map((column) => `r.${column}`).join(', ')} from record r where r.at >= ? and r.at < ? ${behind}
       and ${narrowing.sql} order by r.at ${direction}, r.id ${direction} limit ?`,
    [from, between ? Math.min(to, after.at) : to, ...(between ? [] : [after.at, after.id]), ...(narrowing.bindings as string[]), limit],
  ];
}
function tallyQuery(from: number, to: number, narrowing: Narrowed, slot: { from: number; length: number }): [string, (string | number)[]] {
  return [
    `select (r.at - ?::bigint) / ?::bigint as slot, r.level, count(*)::bigint as count from record r where r.at >= ? and r.at < ? and ${narrowing.sql} group by 1, 2`,
    [slot.from, slot.length, from, to, ...(narrowing.bindings as string[])],
  ];
}

/** A strand whose records are asked for together with others. */
export interface OfStrand {
  founder: number;
  ties: readonly Own[];
  from: number;
  to: number;
  /** How many it has. */
  records: number;
}
const spanOf = (strands: readonly OfStrand[]): { low: number; high: number } => ({
  low: strands.reduce((least, one) => Math.min(least, one.from), Infinity),
  high: strands.reduce((most, one) => Math.max(most, one.to), -Infinity),
});
/** Records that are gone through for each one that is wanted, at most. */
const DENSE = 10;
const MINUTE = 60_000_000;

/** Records by place in time. Every query is bounded in number, and pages by (at, id). */
export class RecordRepository {
  constructor(private readonly db: Database) {}

  /** What the records of many strands are about: of those that name an identifier that belongs to the strand for good. */
  async aboutAll(founders: readonly number[], limit: number): Promise<About[]> {
    const { rows } = await this.db.raw<{ rows: About[] }>(
      `select t.founder, r.component_id, r.host_id, r.shape, r.attributes
         from tie t join record r on r.home = t.key where t.founder = any(?) and t.valid_from = ${-ALWAYS} limit ${Math.floor(limit)}`,
      [[...founders]],
    );
    return rows;
  }
  /** Of the records of a component's process, the one nearest in time to a moment that is at home with an identifier: when it stands, and with which one. */
  async homeOfProcess(component: number, pid: string, near: number, around: number): Promise<{ home: number; at: number } | null> {
    const row = await this.db<RecordRow>('record')
      .where({ component_id: component })
      .whereBetween('at', [near - around, near + around])
      .whereNotNull('home')
      .whereRaw(`attributes ->> 'pid' = ?`, [pid])
      .orderByRaw('abs(at - ?)', [near])
      .first('home', 'at');
    return !row || row.home === null ? null : { home: row.home, at: row.at };
  }

  async byId(at: number, id: number): Promise<RecordRow | undefined> {
    return this.db<RecordRow>('record').where({ at, id }).first(RECORD.names);
  }
  async byIds(ids: readonly Cursor[]): Promise<RecordRow[]> {
    if (ids.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: RecordRow[] }>(
      `select ${RECORD.sql('r')} from unnest(?::bigint[], ?::bigint[]) u(at, id) join record r on r.at = u.at and r.id = u.id order by r.at, r.id`,
      [ids.map((one) => one.at), ids.map((one) => one.id)],
    );
    return rows;
  }

  /** Records of a window, oldest or newest first, behind a cursor. */
  /** @param sources only of these, null for all */
  private list(
    from: number,
    to: number,
    order: 'asc' | 'desc',
    after: Cursor | null,
    limit: number,
    sources: readonly number[] | null,
  ): Promise<RecordRow[]> {
    const query = this.db<RecordRow>('record')
      .where('at', '>=', from)
      .where('at', '<', to)
      .orderBy([
        { column: 'at', order },
        { column: 'id', order },
      ])
      .limit(limit)
      .select(RECORD.names);
    if (sources) void query.whereRaw('source_id = any(?)', [[...sources]]);
    if (after) void query.whereRaw(`(at, id) ${order === 'asc' ? '>' : '<'} (?, ?)`, [after.at, after.id]);
    return query;
  }

  /** Records of a stretch of time that a narrowing leaves, behind a cursor; at most `limit`. */
  async narrowed(...asked: Parameters<typeof narrowedQuery>): Promise<RecordRow[]> {
    return (await this.db.raw<{ rows: RecordRow[] }>(...narrowedQuery(...asked))).rows;
  }
  /** What that is expected to cost, in the planner's units. */
  costOfNarrowed(...asked: Parameters<typeof narrowedQuery>): Promise<number> {
    return this.costOf(...narrowedQuery(...asked));
  }

  /** How many records of a stretch of time fit an exact narrowing, by slot and level. */
  async tallied(...asked: Parameters<typeof tallyQuery>): Promise<{ slot: number; level: number; count: number }[]> {
    return (await this.db.raw<{ rows: { slot: number; level: number; count: number }[] }>(...tallyQuery(...asked))).rows;
  }
  costOfTally(...asked: Parameters<typeof tallyQuery>): Promise<number> {
    return this.costOf(...tallyQuery(...asked));
  }
  private async costOf(sql: string, bindings: (string | number)[]): Promise<number> {
    const { rows } = await this.db.raw<{ rows: { 'QUERY PLAN': [{ Plan: PlanNode }] }[] }>(`explain (format json) ${sql}`, bindings);
    return foreseenCost(rows[0]!['QUERY PLAN'][0].Plan);
  }

  /** Neighbours of a record, `before` and `after` it, in order of time. */
  async around({ scope, row }: Around, before: number, after: number): Promise<RecordRow[]> {
    const side = async (direction: 'before' | 'after', limit: number): Promise<RecordRow[]> => {
      if (limit === 0) return [];
      let rows: RecordRow[] = [];
      for (const reach of REACH) {
        const query = this.db<RecordRow>('record').limit(limit).select(RECORD.names);
        if (scope === 'source') void query.where({ source_id: row.source_id });
        else if (scope === 'component') void query.where({ component_id: row.component_id });
        else if (scope === 'host') void query.where({ host_id: row.host_id });
        if (direction === 'before')
          void query
            .where('at', '>=', row.at - reach)
            .whereRaw('(at, id) < (?, ?)', [row.at, row.id])
            .orderBy([
              { column: 'at', order: 'desc' },
              { column: 'id', order: 'desc' },
            ]);
        else
          void query
            .where('at', '<=', row.at + reach)
            .whereRaw('(at, id) > (?, ?)', [row.at, row.id])
            .where('at', '>=', row.at)
            .orderBy(['at', 'id']);
        if (direction === 'before') void query.where('at', '<=', row.at);
        rows = await query;
        if (rows.length === limit) break;
      }
      return direction === 'before' ? rows.reverse() : rows;
    };
    const [earlier, later] = await Promise.all([side('before', before), side('after', after)]);
    return [...earlier, row, ...later];
  }

  /** Homes of records that name nothing themselves but are carried over, by id. */
  async carriedHomes(rows: readonly Pick<RecordRow, 'at' | 'id' | 'home' | 'lane'>[]): Promise<Map<number, number>> {
    const nameless = rows.filter((row) => row.home === null && row.lane !== null);
    if (nameless.length === 0) return new Map();
    const found = await this.db.raw<{ rows: { id: number; home: number }[] }>(
      'select c.id, c.home from unnest(?::bigint[], ?::bigint[]) u(at, id) join carried c on c.at = u.at and c.id = u.id',
      [nameless.map((row) => row.at), nameless.map((row) => row.id)],
    );
    return new Map(found.rows.map((row) => [row.id, row.home]));
  }

  /** Records that belong to a strand: those at home with one of its keys while that key is its own, and those carried over from them. */
  async ofStrand(founder: number, ties: readonly Own[], from: number, to: number, after: Cursor | null, limit: number): Promise<RecordRow[]> {
    const columns = RECORD.sql('r');
    const behind = after ? 'and (r.at, r.id) > (?, ?)' : '';
    const place = after ? [after.at, after.id] : [];
    const { lasting, short, long } = byLength(ties);
    const parts: { sql: string; bindings: unknown[] }[] = [];
    const add = (sql: string, ...bindings: unknown[]): void => {
      parts.push({ sql: `(select ${columns} from ${sql} ${behind} order by r.at, r.id limit ?)`, bindings: [...bindings, ...place, limit] });
    };
    if (lasting.length > 0)
      add('record r where r.keys && ?::bigint[] and r.home = any(?::bigint[]) and r.at between ? and ?', lasting, lasting, from, to);
    if (short.length > 0)
      add(
        `record r where (${short.map(() => '(r.home = ? and r.at between ? and ?)').join(' or ')})`,
        ...short.flatMap((tie) => [tie.key, Math.max(from, tie.valid_from), Math.min(to, tie.valid_to)]),
      );
    if (long.length > 0)
      add(
        'record r join tie t on t.key = r.home and t.founder = ? and r.at >= t.valid_from and r.at <= t.valid_to where r.keys && ?::bigint[] and r.home = any(?::bigint[]) and r.at between ? and ?',
        founder,
        long,
        long,
        from,
        to,
      );
    add(
      'tie t join carried c on c.home = t.key and c.at between t.valid_from and t.valid_to join record r on r.at = c.at and r.id = c.id where t.founder = ?',
      founder,
    );
    const { rows } = await this.db.raw<{ rows: RecordRow[] }>(
      `select * from (${parts.map((part) => part.sql).join(' union all ')}) one order by at, id limit ?`,
      [...parts.flatMap((part) => part.bindings as string[]), limit],
    );
    return rows;
  }

  /** Whether a good part of what was written in the time of these strands is theirs: then all of it is gone through, else each is looked up by what it names. */
  async areDense(strands: readonly OfStrand[]): Promise<boolean> {
    const { low, high } = spanOf(strands);
    const within = await this.db('minute_count')
      .whereBetween('minute', [Math.floor(low / MINUTE) * MINUTE, high])
      .sum({ count: 'count' })
      .first();
    return Number(within?.count ?? 0) <= DENSE * strands.reduce((sum, one) => sum + one.records, 0);
  }
  /**
   * Records of many strands, each within its time and in the order of `ofStrand`; by founder.
   *
   * @param dense see `areDense`; where they are not, a key that belongs to many one after the other costs all that it names
   */
  async ofStrands(strands: readonly OfStrand[], dense: boolean): Promise<Map<number, RecordRow[]>> {
    const columns = RECORD.sql('r');
    const owners = strands.flatMap(({ founder, ties, from, to }) =>
      ties.map(({ key, valid_from, valid_to }) => ({ founder, key, low: Math.max(from, valid_from), high: Math.min(to, valid_to) })),
    );
    const keys = owners.map((one) => one.key);
    const { low, high } = spanOf(strands);
    const { rows } = await this.db.raw<{ rows: (RecordRow & { founder: number })[] }>(
      `select * from (
         select o.founder, ${columns} from record r join unnest(?::bigint[], ?::bigint[], ?::bigint[], ?::bigint[]) o(key, founder, low, high) on o.key = r.home
          where ${dense ? '' : 'r.keys && ?::bigint[] and'} r.at between ? and ? and r.at between o.low and o.high
         union all
         select t.founder, ${columns} from tie t join carried c on c.home = t.key and c.at between t.valid_from and t.valid_to join record r on r.at = c.at and r.id = c.id
          where t.founder = any(?::bigint[])) one order by at, id`,
      [
        keys,
        owners.map((one) => one.founder),
        owners.map((one) => one.low),
        owners.map((one) => one.high),
        ...(dense ? [] : [[...new Set(keys)]]),
        low,
        high,
        strands.map((one) => one.founder),
      ],
    );
    const byFounder = new Map<number, RecordRow[]>(strands.map((one) => [one.founder, []]));
    for (const row of rows) byFounder.get(row.founder)!.push(row);
    return byFounder;
  }

  /** What of these sources was not understood, by look, the most frequent first, each with its first record. */
  async keptWhole(
    sourceIds: readonly number[],
    limit: number,
  ): Promise<{ shape: string | null; count: number; message: string; line: number; at: number; id: number }[]> {
    const { rows } = await this.db.raw<{ rows: { shape: string | null; count: number; message: string; line: number; at: number; id: number }[] }>(
      `select s.text as shape, g.count, left(g.message, 2000) as message, g.line, g.at, g.id from (
         select shape, count(*)::bigint as count, (array_agg(message order by at, id))[1] as message, (array_agg(line order by at, id))[1] as line,
           min(at) as at, (array_agg(id order by at, id))[1] as id
           from record where source_id = any(?) and flags & 1 = 0 group by shape order by count(*) desc limit ?) g
         left join shape s on s.id = g.shape order by g.count desc`,
      [[...sourceIds], limit],
    );
    return rows;
  }

  /** Records of a few stretches spread over what is loaded, of one environment where it is named. @param component by its number */
  async sampled(component: (id: number) => string, environment?: string): Promise<SampledRecord[]> {
    const among = environment === undefined ? {} : { environment };
    const bounds = await this.db('source').where(among).min<{ low: number | null }[]>({ low: 'first_at' }).max({ high: 'last_at' });
    const { low, high } = bounds[0] as unknown as { low: number | null; high: number | null };
    const sources: number[] | null = environment === undefined ? null : await this.db('source').where(among).pluck('id');
    if (low === null || high === null) return [];
    const rows = await sampledStretches(low, high, (from, most) => this.list(from, high + 1, 'asc', null, most, sources));
    return rows.map((row) => ({ component: component(row.component_id), message: row.message, fields: row.attributes ?? {} }));
  }

  /** Counts by slot and level from the sums by minute. */
  async timeline(
    { from, to, slot }: { from: number; to: number; slot: number },
    { environment, sources }: { environment?: string[]; sources?: { ids: number[]; out: boolean } },
  ): Promise<{ slot: number; level: number; count: number }[]> {
    const only = environment ? 'and source_id in (select id from source where environment = any(?))' : '';
    const some = sources ? `and ${sources.out ? 'not ' : ''}source_id = any(?)` : '';
    const { rows } = await this.db.raw<{ rows: { slot: number; level: number; count: number }[] }>(
      `select (minute - ?) / ? as slot, level, sum(count)::bigint as count from minute_count where minute >= ? and minute < ? ${only} ${some} group by 1, 2`,
      [from, slot, from, to, ...(environment ? [environment] : []), ...(sources ? [sources.ids] : [])],
    );
    return rows;
  }
  /** The fault that each error among some records tells, by the record's id. */
  async faultsOf(rows: readonly Pick<RecordRow, 'at' | 'id' | 'level'>[]): Promise<Map<number, string>> {
    const errors = rows.filter((row) => row.level >= ERROR);
    if (errors.length === 0) return new Map();
    const found = await this.db.raw<{ rows: { id: number; fault: number }[] }>(
      'select r.id, f.fault from unnest(?::bigint[], ?::bigint[]) r(at, id) join fault_record f on f.at = r.at and f.id = r.id',
      [errors.map((row) => row.at), errors.map((row) => row.id)],
    );
    return new Map(found.rows.map((row) => [row.id, String(row.fault)]));
  }

  async shapes(ids: readonly number[]): Promise<Map<number, string>> {
    const rows: { id: number; text: string }[] = await this.db('shape')
      .whereIn('id', [...new Set(ids)])
      .select('id', 'text');
    return new Map(rows.map((row) => [row.id, row.text]));
  }
}
