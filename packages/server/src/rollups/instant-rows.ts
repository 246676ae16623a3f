import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';
import type { StrandRow } from '../weaving/strand-layout.ts';

const AMISS = "('failed', 'stalled', 'odd', 'doubled', 'slow', 'refused')";
/** Strands that go on are looked for among those that began so long before: what lasts longer is none that goes on. */
const LONGEST = 86_400_000_000;
const WEEK = 7 * LONGEST;
const MOST_RUNNING = 20_000;
/** Who speaks does so within some minutes. */
const NEAR = 5 * 60_000_000;
const AROUND = 12 * 3_600_000_000;

export interface InstantRow {
  flow: string;
  /** When those under way began. */
  begun: Microseconds[];
  longest: StrandRow | null;
  lastAmiss: StrandRow | null;
  lastGood: StrandRow | null;
}

/** What was under way at an instant, and what was the last before it. */
export class InstantRepository {
  constructor(private readonly db: Database) {}

  async flows(at: Microseconds, environment: string[]): Promise<InstantRow[]> {
    const { rows: names } = await this.db.raw<{ rows: { flow: string }[] }>(
      'select distinct flow from strand_hour where environment = any(?) and slot between ? and ? order by 1 limit 1000',
      [environment, Math.floor((at - WEEK) / 3_600_000_000), Math.floor(at / 3_600_000_000)],
    );
    const { rows: running } = await this.db.raw<{ rows: StrandRow[] }>(
      `select * from strand where started_at <= ? and started_at > ? and ended_at > ? and environment = any(?) order by started_at limit ${MOST_RUNNING}`,
      [at, at - LONGEST, at, environment],
    );
    const last = async (which: string): Promise<Map<string, StrandRow>> => {
      const { rows } = await this.db.raw<{ rows: StrandRow[] }>(
        `select s.* from unnest(?::text[]) f(flow) cross join lateral (
           select * from strand where flow = f.flow and environment = any(?) and started_at <= ? and started_at > ? and ended_at <= ? and outcome ${which} order by started_at desc limit 1) s`,
        [names.map((one) => one.flow), environment, at, at - WEEK, at],
      );
      return new Map(rows.map((row) => [row.flow ?? '', row]));
    };
    const [amiss, good] = await Promise.all([last(`in ${AMISS}`), last("= 'done'")]);
    return names.map(({ flow }) => {
      const own = running.filter((row) => (row.flow ?? '') === flow);
      return {
        flow,
        begun: own.map((row) => row.started_at),
        longest: own[0] ?? null,
        lastAmiss: amiss.get(flow) ?? null,
        lastGood: good.get(flow) ?? null,
      };
    });
  }

  /** Components whose sources told something within some minutes before, and those that did hours before and hours behind but not then. */
  async spoke(at: Microseconds, environment: string[]): Promise<{ speaking: number[]; silent: number[] }> {
    const { rows } = await this.db.raw<{ rows: { component: number; near: boolean; before: boolean; behind: boolean }[] }>(
      `select s.component_id as component, bool_or(m.minute > :near and m.minute <= :at) as near, bool_or(m.minute <= :near) as before, bool_or(m.minute > :at) as behind
         from minute_count m join source s on s.id = m.source_id where m.minute between :from and :to and s.environment = any(:environment) group by 1 limit 2000`,
      { near: at - NEAR, at, from: at - AROUND, to: at + AROUND, environment },
    );
    return { speaking: rows.filter((one) => one.near).map((one) => one.component), silent: rows.filter((one) => !one.near && one.before && one.behind).map((one) => one.component) }; // prettier-ignore
  }
}
