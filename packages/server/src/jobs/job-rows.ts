import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';
import type { StrandRow } from '../weaving/strand-layout.ts';

export type RunRow = Pick<
  StrandRow,
  'founder' | 'value' | 'outcome' | 'started_at' | 'ended_at' | 'duration' | 'headline' | 'told_rows' | 'components'
>;
const COLUMNS = 's.founder, s.value, s.outcome, s.started_at, s.ended_at, s.duration, s.headline, s.told_rows, s.components';

/** Runs of flows, in order of time. */
export class JobRepository {
  constructor(private readonly db: Database) {}

  /** Flows that have strands in an environment. */
  async flows(environment: readonly string[]): Promise<{ flow: string; environment: string }[]> {
    // by the index: from one flow to the next
    const { rows } = await this.db.raw<{ rows: { flow: string; environment: string }[] }>(
      `with recursive f(flow) as (
         (select flow from strand where flow is not null order by flow limit 1)
         union all select (select s.flow from strand s where s.flow > f.flow order by s.flow limit 1) from f where f.flow is not null)
       select f.flow, e.environment from f cross join unnest(?::text[]) e(environment)
         where f.flow is not null and exists (select from strand s where s.flow = f.flow and s.environment = e.environment) order by 1, 2`,
      [[...environment]],
    );
    return rows;
  }

  /** When strands of some flows began last before an instant, so many of each, in order of time. */
  async begins(flows: readonly { flow: string; environment: string }[], before: Microseconds, each: number): Promise<Microseconds[][]> {
    const { rows } = await this.db.raw<{ rows: { place: number; begins: Microseconds[] }[] }>(
      `select (u.place - 1)::int as place, array(select s.started_at from strand s where s.flow = u.flow and s.environment = u.environment and s.started_at < ?
           order by s.started_at desc limit ?) as begins from unnest(?::text[], ?::text[]) with ordinality u(flow, environment, place)`,
      [before, each, flows.map((one) => one.flow), flows.map((one) => one.environment)],
    );
    const found = new Map(rows.map((one) => [one.place, one.begins.reverse()]));
    return flows.map((_, place) => found.get(place) ?? []);
  }

  /** The latest runs of some flows that began before an instant, so many each, the latest first. */
  async latest(flows: readonly { flow: string; environment: string }[], before: Microseconds, each: number): Promise<(RunRow & { place: number })[]> {
    const { rows } = await this.db.raw<{ rows: (RunRow & { place: number })[] }>(
      `select (u.place - 1)::int as place, s.* from unnest(?::text[], ?::text[]) with ordinality u(flow, environment, place) cross join lateral (
         select ${COLUMNS} from strand s where s.flow = u.flow and s.environment = u.environment and s.started_at < ? order by s.started_at desc, s.founder desc limit ?) s
         order by u.place, s.started_at desc, s.founder desc`,
      [flows.map((one) => one.flow), flows.map((one) => one.environment), before, each],
    );
    return rows;
  }

  /** How far evidence reaches: in all, and of each component; null where there is none. */
  async until(environment: readonly string[]): Promise<{ all: Microseconds; of: ReadonlyMap<number, Microseconds> } | null> {
    const { rows } = await this.db.raw<{ rows: { component: number | null; until: Microseconds }[] }>(
      'select component_id as component, max(last_at) as until from source where environment = any(?) and last_at is not null group by 1',
      [[...environment]],
    );
    if (rows.length === 0) return null;
    return {
      all: Math.max(...rows.map((one) => one.until)),
      of: new Map(rows.flatMap(({ component, until }) => (component === null ? [] : [[component, until]]))),
    };
  }
}
