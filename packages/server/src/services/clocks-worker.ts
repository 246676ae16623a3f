import { parentPort, workerData } from 'node:worker_threads';
import { estimateClocks, type ClockEstimate, type ClockRecord } from '@fadenweg/core';
import { ownClient } from '../database/connect.ts';
import { copyOut } from '../weaving/copy-out.ts';
import { recordsOfAll } from '../weaving/records-of-all.ts';

/** Strands that are looked at, about. */
const ENOUGH = 4000;
/** Strands reach out of the window; what they did there does not count. A clock that is off may put a record out of it by so much, in microseconds. */
const MARGIN = 60_000_000;
/** Strands whose own identifier is named more often say little about clocks. */
const MOST_RECORDS = 300;

export interface ClocksData {
  databaseUrl: string;
  /** Window of the evidence, in microseconds. */
  from: number;
  to: number;
}
export interface ClocksAnswer {
  /** By number of the clock: its host, and its component where the host is not known. */
  units: { host: number; component: number }[];
  estimates: ClockEstimate[];
}

/** Estimates clocks from a sample of the strands of a window, judged or not: always the same ones, since they are chosen by key. */
const { databaseUrl, from, to } = workerData as ClocksData;
const client = await ownClient(databaseUrl);
try {
  const nameless = new Set((await client.query<{ id: number }>(`select id from host where name = ''`)).rows.map((row) => row.id));
  // of what is tied together: it need not be judged for it
  const window = `select s.key as founder from sighting s where s.last_at >= $1 and s.first_at <= $2 and s.key in (select founder from tie) group by s.key having sum(s.count) <= $3`;
  const counted = await client.query<{ count: number }>(`select count(*)::int as count from (${window}) one`, [from, to, MOST_RECORDS]);
  const every = Math.max(1, Math.ceil(counted.rows[0]!.count / ENOUGH));
  await client.query(`create temp table sampled as select founder from (${window}) one where mod(founder, $4) = 0`, [from, to, MOST_RECORDS, every]);
  await client.query('analyze sampled');
  const units: ClocksAnswer['units'] = [];
  const numbers = new Map<string, number>();
  const strands: ClockRecord[][] = [];
  let founder = NaN;
  await client.query(`set work_mem = '128MB'`);
  await copyOut(
    client,
    `${recordsOfAll('sampled', 't.founder, r.at - coalesce(r.shifted, 0), r.took, r.component_id, r.host_id, r.shape, r.marks, r.keys')} order by 1`,
    (row) => {
      const own = row.big();
      if (own !== founder) {
        strands.push([]);
        founder = own;
      }
      const [at, took, component, host] = [row.big(), row.big(), row.small(), row.small()];
      const unit = nameless.has(host) ? `${host} ${component}` : `${host}`;
      let clock = numbers.get(unit);
      if (clock === undefined) {
        numbers.set(unit, (clock = units.length));
        units.push({ host, component });
      }
      const record = { at, took, clock, shape: row.big(), marks: row.small(), keys: row.bigs() };
      if (at >= from - MARGIN && at <= to + MARGIN) strands[strands.length - 1]!.push(record);
    },
  );
  parentPort!.postMessage({ units, estimates: estimateClocks(strands, units.length) } satisfies ClocksAnswer);
} finally {
  await client.end();
}
