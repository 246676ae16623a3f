import { parentPort, workerData } from 'node:worker_threads';
import { estimateClocks, type ClockEstimate, type ClockRecord } from '@fadenweg/core/clocks';
import { ownClient } from '../database/own-client.ts';
import { copyOut, type RowReader } from '../database/copy-out.ts';
import { atHomeOfAll, recordsOfSome } from '../weaving/records-of-all.ts';

/** Strands that are looked at, about. */
const ENOUGH = 4000;
/** Where no more than one of so many is looked at, of those of the window or of all, strands are looked up by what they name instead of going through all records. */
const FEW_OF = 8;
/** Strands reach out of the window; what they did there does not count. A clock that is off may put a record out of it by so much, in microseconds. */
const MARGIN = 60_000_000;
/** No clock that is put right was further off, in microseconds. */
const FURTHEST = 86_400_000_000;
/** Strands whose own identifier is named more often say little about clocks. */
const MOST_RECORDS = 300;

export interface ClocksData {
  databaseUrl: string;
  /** Window of the evidence, in microseconds. */
  from: number;
  to: number;
  /** Environments whose clocks are compared, and those that share some with them. */
  environments: readonly string[];
}
export interface ClocksAnswer {
  /** By number of the clock: its host, and its component where the host is not known. */
  units: { host: number; component: number }[];
  estimates: ClockEstimate[];
}

/** Estimates clocks from a sample of the strands of a window, judged or not: always the same ones, since they are chosen by key. */
const { databaseUrl, from, to, environments } = workerData as ClocksData;
const client = await ownClient(databaseUrl);
try {
  const nameless = new Set((await client.query<{ id: number }>(`select id from host where name = ''`)).rows.map((row) => row.id));
  // of what is tied together: it need not be judged for it
  const known = await client.query(
    `create temp table known as select s.key as founder from sighting s
       where s.last_at >= $1 and s.first_at <= $2 and s.source_id = any($4) and s.key in (select founder from tie)
       group by s.key having sum(s.count) <= $3`,
    [from, to, MOST_RECORDS, await sourcesNear(environments)],
  );
  const every = Math.max(1, Math.ceil((known.rowCount ?? 0) / ENOUGH));
  const sampled = await client.query('create temp table sampled as select founder from known where mod(founder, $1) = 0', [every]);
  const { rows: counted } = await client.query<{ all: number }>(
    `select greatest(reltuples, 0)::bigint as all from pg_class where oid = 'strand'::regclass`,
  );
  const few = every >= FEW_OF || (sampled.rowCount ?? 0) * FEW_OF < counted[0]!.all;
  await client.query('analyze sampled');
  const units: ClocksAnswer['units'] = [];
  const numbers = new Map<string, number>();
  const strands: ClockRecord[][] = [];
  let founder = NaN;
  const take = (row: RowReader): void => {
    const own = row.big();
    if (own !== founder) {
      strands.push([]);
      founder = own;
    }
    const at = row.big();
    row.big(); // by which records of one instant are in order
    const [took, component, host] = [row.big(), row.small(), row.small()];
    const unit = nameless.has(host) ? `${host} ${component}` : `${host}`;
    let clock = numbers.get(unit);
    if (clock === undefined) {
      numbers.set(unit, (clock = units.length));
      units.push({ host, component });
    }
    const record = { at, took, clock, shape: row.big(), marks: row.small(), keys: row.bigs() };
    if (at >= from - MARGIN && at <= to + MARGIN) strands[strands.length - 1]!.push(record);
  };
  // at home, in the time that their clocks tell: what is carried over may be worked out already or not, and the clocks are the same either way
  const fields = 't.founder, r.at - coalesce(r.shifted, 0), r.id, r.took, r.component_id, r.host_id, r.shape, r.marks, r.keys';
  if (!few) {
    await client.query(`set work_mem = '128MB'`);
    const within = `r.at between ${from - MARGIN - FURTHEST} and ${to + MARGIN + FURTHEST}`;
    await copyOut(client, `${atHomeOfAll('sampled', fields, within)} order by 1, 2, 3`, take);
  } else {
    const { rows } = await client.query<{ founder: number }>('select founder from sampled order by founder');
    await recordsOfSome(client, rows.map((row) => row.founder), fields, take, { carried: false }); // prettier-ignore
  }
  parentPort!.postMessage({ units, estimates: estimateClocks(strands, units.length) } satisfies ClocksAnswer);
} finally {
  await client.end();
}

/** Sources of these environments, and of those that share a clock with them, with what shares one with those, and so on: others tell nothing of them. */
async function sourcesNear(of: readonly string[]): Promise<number[]> {
  const { rows } = await client.query<{ id: number }>(
    `with recursive unit as materialized (
       select distinct o.environment, s.host_id, case when h.name = '' then s.component_id else 0 end as component_id
         from speaker s join source o on o.id = s.source_id join host h on h.id = s.host_id),
     near(environment) as (
       select unnest($1::text[]) union
       select other.environment from near join unit own on own.environment = near.environment join unit other using (host_id, component_id))
     select id from source where environment in (select environment from near)`,
    [of],
  );
  return rows.map((row) => row.id);
}
