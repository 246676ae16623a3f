import type { Outcome } from '@fadenweg/core/path';
import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';

const AMISS = "('failed', 'stalled', 'odd', 'doubled', 'slow', 'refused')";
/** So many different findings of a window, and so many strands of each, are looked at. */
const MOST_FINDINGS = 500;
const MOST_TIMES = 5000;
const MOST_OF_EACH = 4;

export interface AlikeRow {
  signature: string;
  outcome: Outcome;
  flows: string[];
  failedIn: string | null;
  /** Of the latest. */
  headline: string;
  count: number;
  /** When they began, in order of time; of very many the first. */
  times: Microseconds[];
  environment: string;
}
export interface HavingCount {
  signature: string;
  id: number;
  inside: number;
  outside: number;
  /** How many there are of it and of the others, of its flows at that time. */
  departing: number;
  others: number;
}

/** Strands that have one first finding, counted. */
export class AlikeRepository {
  constructor(private readonly db: Database) {}

  /** Those that began in a window and are amiss, by finding, the most frequent first. */
  async within(from: Microseconds, to: Microseconds, environment: string[]): Promise<AlikeRow[]> {
    const { rows } = await this.db.raw<{ rows: AlikeRow[] }>(
      `select signature, mode() within group (order by outcome) as outcome, array_agg(distinct coalesce(flow, '')) as flows, mode() within group (order by failed_in) as "failedIn",
         (array_agg(headline order by started_at desc))[1] as headline, count(*)::int as count, (array_agg(started_at order by started_at))[1:${MOST_TIMES}] as times,
         mode() within group (order by environment) as environment
         from strand where signature is not null and outcome in ${AMISS} and started_at >= ? and started_at < ? and environment = any(?)
         group by signature order by count(*) desc, signature limit ${MOST_FINDINGS}`,
      [from, to, environment],
    );
    return rows;
  }

  /** How many of each there were in another window. */
  async before(signatures: string[], from: Microseconds, to: Microseconds, environment: string[]): Promise<Map<string, number>> {
    const { rows } = await this.db.raw<{ rows: { signature: string; count: number }[] }>(
      `select signature, count(*)::int as count from strand where signature = any(?) and started_at >= ? and started_at < ? and environment = any(?) and outcome in ${AMISS} group by 1`,
      [signatures, from, to, environment],
    );
    return new Map(rows.map((one) => [one.signature, one.count]));
  }

  /** The parties, or the hosts, that most of these have, each with how many others of those flows have it. */
  async having(
    what: 'parties' | 'hosts',
    asked: readonly { signature: string; flows: readonly string[]; from: Microseconds; to: Microseconds }[],
    environment: string[],
  ): Promise<HavingCount[]> {
    if (asked.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: HavingCount[] }>(
      `select u.signature, p.id, p.inside::int as inside, o.outside::int as outside, a.departing::int as departing, a.others::int as others
         from unnest(?::text[], ?::text[], ?::bigint[], ?::bigint[]) u(signature, flows, begins, ends)
         cross join lateral (
           select count(*) filter (where s.signature = u.signature) as departing, count(*) filter (where s.signature is distinct from u.signature) as others
             from strand s where s.started_at between u.begins and u.ends and s.environment = any(?) and coalesce(s.flow, '') = any(string_to_array(u.flows, chr(1)))) a
         cross join lateral (
           select id, count(*) as inside from strand s cross join unnest(s.${what}) id
             where s.signature = u.signature and s.started_at between u.begins and u.ends and s.environment = any(?) group by 1 order by 2 desc limit ${MOST_OF_EACH}) p
         cross join lateral (
           select count(*) as outside from strand s where s.${what} @> array[p.id] and s.started_at between u.begins and u.ends and s.environment = any(?)
             and coalesce(s.flow, '') = any(string_to_array(u.flows, chr(1))) and s.signature is distinct from u.signature) o`,
      [asked.map((one) => one.signature), asked.map((one) => one.flows.join('\u0001')), asked.map((one) => one.from), asked.map((one) => one.to), environment, environment, environment], // prettier-ignore
    );
    return rows;
  }
}
