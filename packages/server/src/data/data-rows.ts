import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';
import type { StrandRow } from '../weaving/strand-layout.ts';
import { TOUCHED, type TouchedRow } from '../weaving/touched-layout.ts';

/** Who touched something, with what came of it. */
export type Touching = TouchedRow & Pick<StrandRow, 'value' | 'flow' | 'outcome' | 'headline'>;
export interface SetRow {
  name: string;
  kind: string;
  environment: string;
  touched: number;
  failed: number;
  usual: number | null;
  writers: { flow: string; runs: number }[] | null;
  readers: { flow: string; runs: number }[] | null;
}
export interface SetKey {
  name: string;
  environment: string;
}
const TOUCHING = `${TOUCHED.sql('t')}, s.value, s.flow, s.outcome, s.headline`;
/** From so many writes that tell rows on, it is said how many are usual. */
const FEWEST = 3;
const BY_FLOW = (writes: 0 | 1): string =>
  `(select json_agg(json_build_object('flow', f.flow, 'runs', f.runs) order by f.runs desc, f.flow) from (
     select s.flow, count(distinct t.founder)::int as runs from own t join strand s using (founder) where t.name = n.name and t.environment = n.environment and t.writes = ${writes} and s.flow is not null group by 1 order by 2 desc limit 20) f)`;

/** What is kept of what runs touched. */
export class DataRepository {
  constructor(private readonly db: Database) {}

  /** Things that were touched in a window, those that were touched most first. */
  async sets(from: Microseconds, to: Microseconds, environment: readonly string[], only: SetKey | null, limit: number): Promise<SetRow[]> {
    const narrowed = only === null ? '' : 'and t.name = ? and t.environment = ?';
    const { rows } = await this.db.raw<{ rows: SetRow[] }>(
      `with own as (select * from touched_data t where t.at >= ? and t.at < ? and t.environment = any(?::text[]) ${narrowed}),
         n as (select name, environment, min(kind) as kind, count(*)::int as touched, count(*) filter (where failed = 1)::int as failed,
             case when count(rows) filter (where writes = 1 and failed = 0) >= ${FEWEST} then percentile_disc(0.5) within group (order by rows) filter (where writes = 1 and failed = 0) end as usual
           from own group by 1, 2 order by 4 desc, 1 limit ?)
       select n.*, ${BY_FLOW(1)} as writers, ${BY_FLOW(0)} as readers from n order by n.touched desc, n.name`,
      [from, to, [...environment], ...(only === null ? [] : [only.name, only.environment]), limit],
    );
    return rows;
  }

  /** Who touched something in a window, the latest first. */
  async touching({ name, environment }: SetKey, writes: boolean, from: Microseconds, to: Microseconds, limit: number): Promise<Touching[]> {
    const { rows } = await this.db.raw<{ rows: Touching[] }>(
      `select ${TOUCHING} from touched_data t join strand s using (founder)
         where t.name = ? and t.environment = ? and t.writes = ? and t.at >= ? and t.at < ? order by t.at desc, t.founder desc limit ?`,
      [name, environment, writes ? 1 : 0, from, to, limit],
    );
    return rows;
  }

  /** Of each of several things, the run that wrote it last before an instant. */
  async lastWrites(asked: readonly (SetKey & { before: Microseconds })[]): Promise<(Touching | null)[]> {
    if (asked.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: (Touching & { place: number })[] }>(
      `select u.place::int as place, l.* from unnest(?::text[], ?::text[], ?::bigint[]) with ordinality u(name, environment, before, place) cross join lateral (
         select ${TOUCHING} from touched_data t join strand s using (founder)
           where t.name = u.name and t.environment = u.environment and t.writes = 1 and t.at < u.before order by t.at desc, t.founder desc limit 1) l`,
      [asked.map((one) => one.name), asked.map((one) => one.environment), asked.map((one) => one.before)],
    );
    const found = new Map(rows.map((row) => [row.place - 1, row]));
    return asked.map((_, place) => found.get(place) ?? null);
  }
  /** When something is written next behind an instant. */
  async nextWrite({ name, environment }: SetKey, after: Microseconds): Promise<Microseconds | null> {
    const { rows } = await this.db.raw<{ rows: { at: Microseconds | null }[] }>(
      'select min(at) as at from touched_data where name = ? and environment = ? and writes = 1 and at > ?',
      [name, environment, after],
    );
    return rows[0]!.at;
  }

  ofStrand(founder: number): Promise<TouchedRow[]> {
    return this.db<TouchedRow>('touched_data').where({ founder }).orderBy(['at', 'name']).select(TOUCHED.names);
  }
}
