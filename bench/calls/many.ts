import pg from 'pg';
import { call } from '../../packages/launch/src/client.ts';
import { ms, quantile, times, type Result } from '../measure.ts';

const CALLS = 100_000;
const DAY = Date.UTC(2026, 9, 1) * 1000;
/** As calls are kept, of as many callers as a town has; each with the facts of one that is there. */
const FILL = `
  with one as (select c.facts, s.kind_id from call_told c join strand s using (founder) limit 1), made as (
    insert into strand (founder, kind_id, value, flow, outcome, started_at, ended_at, duration, records, headline, parties, environment, components, in_database, in_transit, hosts, worked, mentions, weight, told_rows)
      select 7000000000 + i, one.kind_id, 'drawn-' || i, 'call', case when i % 9 = 0 then 'refused' else 'done' end, $1::bigint + i * 20000000, $1::bigint + i * 20000000 + 30000000, 30000000, 14, '', '{}', 'drawn', '{}', 0, 0, '{}', '{}', '{}', 0, '{}'
        from one, generate_series(1::bigint, ${CALLS}) i returning founder, started_at)
  insert into call_told (founder, environment, begun_at, caller, called, final, state, status, post_dial, set_up, talking, facts)
    select founder, 'drawn', started_at, '+4930' || (founder % 9001), '+493098765', '+493098765', case when founder % 9 = 0 then 'refused' else 'ended' end, 200, founder % 900000, founder % 9000000, founder % 90000000, one.facts from made, one`;

const [RUNS, JOBS] = [2000, 20];
const RUNS_FROM = Date.UTC(2026, 10, 20) * 1000;
/** Runs of jobs that begin every hour, each with a schedule of its own. */
const FILL_RUNS = `
  insert into strand (founder, kind_id, value, flow, outcome, started_at, ended_at, duration, records, headline, parties, environment, components, in_database, in_transit, hosts, worked, mentions, weight, told_rows)
    select 8000000000 + i, one.kind_id, 'R-' || i, 'job-' || (i % ${JOBS}), case when i % 31 = 0 then 'failed' else 'done' end, at, at + 9000000, 9000000, 8, '', '{}', 'production', '{}', 0, 0, '{}', '{}', '{}', 0, '{4200,4190,10,-1}'
      from (select kind_id from strand limit 1) one, (select i, $1::bigint + (i / ${JOBS}) * 3600000000 + (i % ${JOBS}) * 120000000 as at from generate_series(1::bigint, ${RUNS}) i) made`;

/** Lists of a hundred thousand calls, and of two thousand runs. */
export async function manyCalls(databaseUrl: string, url: string): Promise<Result[]> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query(FILL, [DAY]);
  await client.query(FILL_RUNS, [RUNS_FROM]);
  await client.query('analyze strand');
  await client.query('vacuum analyze call_told');
  await client.end();
  const iso = (at: number): string => new Date(at / 1000).toISOString();
  const all = `from=${iso(DAY)}&to=${iso(DAY + 30 * 86_400_000_000)}&environment=drawn&zone=UTC`;
  const asks: [string, (i: number) => string][] = [
    ['a page of the latest', (i) => `/calls?${all}&sort=-started&limit=100&after=${DAY + (CALLS - i * 100) * 20_000_000}~7000000000`],
    ['a page by set-up', () => `/calls?${all}&sort=-setup&limit=100`],
    ['calls of one number', (i) => `/calls?${all}&number=${encodeURIComponent(`030 ${1000 + i}`)}&limit=100`],
    ['counts', () => `/calls/counts?${all}`],
  ];
  const results: Result[] = [];
  const days = `from=${iso(RUNS_FROM)}&to=${iso(RUNS_FROM + 6 * 86_400_000_000)}&environment=production&zone=UTC`;
  for (const [what, path] of [
    ['jobs', `/jobs?${days}&sort=gravest`],
    ['runs beside each other', `/jobs/runs?${days}`],
  ] as const) {
    const took = await times(40, () => call(`${url}${path}`));
    results.push({ what: `${RUNS.toLocaleString('en')} runs of ${JOBS} jobs: ${what}: p50; p95`, figure: `${ms(quantile(took, 0.5))}; ${ms(quantile(took, 0.95))}`, raw: '', ratio: '', budget: 'p95 <= 150 ms' }); // prettier-ignore
  }
  for (const [what, path] of asks) {
    const took = await times(40, (i) => call(`${url}${path(i)}`));
    results.push({ what: `${CALLS.toLocaleString('en')} calls in 24 days, all of them in the window: ${what}: p50; p95`, figure: `${ms(quantile(took, 0.5))}; ${ms(quantile(took, 0.95))}`, raw: '', ratio: '', budget: 'p95 <= 150 ms' }); // prettier-ignore
  }
  return results;
}
