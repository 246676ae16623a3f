import pg from 'pg';
import type { Departure, Departures } from '@fadenweg/api';
import { identifierKey } from '@fadenweg/core/identifiers';
import { call } from '../packages/launch/src/client.ts';
import { ms, quantile, times, type Result } from './measure.ts';
import { drawnDays, type DrawnDays, type DrawnStrand, type Incident } from './rounds/drawn-days.ts';
import { system } from './world.ts';

const HOUR = 3_600_000_000;
const DAY = 24 * HOUR;
const MINUTE = 60_000_000;
const WORLDS = Number(process.env.FADENWEG_BENCH_RUNS ?? 20);
const FIRST = process.env.FADENWEG_BENCH_SEEDS === 'final' ? 901 : 1;
const STRANDS = 200_000;
const PARTIES = 400;
const PHONES = Array.from({ length: PARTIES }, (_, i) => `+49301234${String(i).padStart(4, '0')}`);
const keyOf = (phone: string): number => identifierKey('phone', '', phone);
const SHAPES = 260;
const FAULT_RECORDS = 250_000;
const RECORDS = 5_000_000;

/** What is said of days whose incidents are known, and how fast it is said at size. Strands are written as judging would have written them. */
export async function benchRounds(): Promise<Result[]> {
  const own = await system('rounds', true);
  const client = new pg.Client(own.postgres.url);
  await client.connect();
  try {
    return [...(await known(client, own.server.url)), ...(await large(client, own.server.url))];
  } finally {
    await client.end();
    await own.stop();
  }
}

let founder = 0;
/** Stores strands as they are, and that something was collected all the time, to the last minute. */
async function store(
  client: pg.Client,
  environment: string,
  strands: readonly DrawnStrand[],
  from: number,
  to: number,
  sources = 1,
  each = 60,
): Promise<number> {
  const began = performance.now();
  for (let i = 0; i < strands.length; i += 20_000) {
    const part = strands.slice(i, i + 20_000);
    await client.query(
      `insert into strand (founder, kind_id, value, flow, outcome, started_at, ended_at, duration, records, in_database, in_transit, failed_in, headline, parties, environment, components, signature, fault)
         select founder, 1, 'X' || founder, flow, outcome, started_at, started_at + duration, duration, 10, duration / 3, duration / 9, case when signature is null then null else 'part' end,
         coalesce(signature, ''), array[($8::bigint[])[1 + founder % ${PARTIES}]], $7, '{1}', signature, case when outcome = 'failed' then hashtext(signature)::bigint + 3000000000 end from unnest($1::bigint[], $2::text[], $3::text[], $4::bigint[], $5::bigint[], $6::text[]) s(founder, flow, outcome, started_at, duration, signature)`,
      [part.map(() => ++founder), part.map((one) => one.flow), part.map((one) => one.outcome), part.map((one) => one.startedAt), part.map((one) => one.duration), part.map((one) => one.signature), environment, PHONES.map(keyOf)], // prettier-ignore
    );
  }
  const took = performance.now() - began;
  const { rows } = await client.query<{ id: number }>(
    `insert into import (state, who, environment, zone) values ('done', 'bench', $1, 'UTC') returning id`,
    [environment],
  );
  for (let source = 0; source < sources; source++) {
    const path = `${environment}/${source}.log`;
    const made = await client.query<{ id: number }>(
      `insert into source (import_id, read_for, path, zone, hints, family, environment, state, records, first_at, last_at) values ($1, 0, $2, 'UTC', '{}', $2, $3, 'done', 1000, $4, $5) returning id`,
      [rows[0]!.id, path, environment, from, to],
    );
    await client.query(`insert into minute_count select m, $1, 3, 1 from (select generate_series($2::bigint, $3::bigint, $4::bigint) union select $3::bigint / 60000000 * 60000000) s(m)`, [made.rows[0]!.id, from, to - 1, each * MINUTE]); // prettier-ignore
  }
  await client.query('analyze strand, strand_minute, strand_hour, minute_count');
  return took;
}

const iso = (at: number): string => new Date(at / 1000).toISOString();
const asked = (environment: string, from: number, to: number): string => `from=${iso(from)}&to=${iso(to)}&environment=${environment}&zone=UTC`;

/** Whether a departure tells of an incident: of its finding, or of its flow at its time. */
function tells({ finding, flows, what, from, to }: Departure, one: Incident): boolean {
  if (!flows.some((flow) => flow.flow === one.flow)) return false;
  const meets = Date.parse(from) * 1000 < one.to + HOUR && Date.parse(to) * 1000 >= one.from - HOUR;
  if (one.kind === 'finding') return finding === one.signature || (finding === null && what === 'failing' && meets);
  return meets && (one.kind === 'late' ? what === 'slow' : what === 'gone' || what === 'fading');
}

async function known(client: pg.Client, url: string): Promise<Result[]> {
  let [all, found, inTime, told, right, quietDays, quietTold] = [0, 0, 0, 0, 0, 0, 0];
  const missed = new Map<string, number>();
  for (let seed = FIRST; seed < FIRST + WORLDS; seed++) {
    const world: DrawnDays = drawnDays(seed, true);
    await store(client, `world-${seed}`, world.strands, world.from, world.day.to);
    const { items } = await call<Departures>(`${url}/api/rounds/departures?${asked(`world-${seed}`, world.day.from, world.day.to)}`);
    for (const one of world.incidents) {
      all++;
      const hits = items.filter((item) => tells(item, one));
      if (hits.length > 0) found++;
      else missed.set(one.kind, (missed.get(one.kind) ?? 0) + 1);
      if (hits.some((item) => Math.abs(Date.parse(item.from) * 1000 - one.from) <= HOUR)) inTime++;
    }
    told += items.length;
    right += items.filter((item) => world.incidents.some((one) => tells(item, one))).length;
    const quiet = drawnDays(seed + 5000, false);
    await store(client, `quiet-${seed}`, quiet.strands, quiet.from, quiet.day.to);
    for (let day = 0; day < 3; day++) {
      const answer = await call<Departures>(
        `${url}/api/rounds/departures?${asked(`quiet-${seed}`, quiet.day.from - day * DAY, quiet.day.to - day * DAY)}`,
      );
      quietDays++;
      quietTold += answer.items.length;
    }
  }
  const share = (part: number, of: number): string => `${(part / Math.max(1, of)).toFixed(3)} (${part} of ${of})`;
  const kinds = [...missed].map(([kind, count]) => `${count} ${kind}`).join(', ');
  return [
    {
      what: `incidents of ${WORLDS} drawn systems that are told`,
      figure: share(found, all),
      raw: kinds === '' ? '' : `missed: ${kinds}`,
      ratio: '',
      budget: '≥ 0.9',
    },
    { what: 'of what is told, what tells of one', figure: share(right, told), raw: '', ratio: '', budget: '≥ 0.9' },
    { what: 'of those told, begun within a slot', figure: share(inTime, found), raw: '', ratio: '', budget: 'within one slot' },
    { what: 'departures of a day without incidents', figure: (quietTold / quietDays).toFixed(2), raw: `${quietDays} days`, ratio: '', budget: '≤ 1' },
  ];
}

/** 60 flows and 200 jobs over 30 days. */
async function large(client: pg.Client, url: string): Promise<Result[]> {
  const [from, days] = [Date.UTC(2026, 9, 1) * 1000, 30];
  const to = from + days * DAY;
  const strands: DrawnStrand[] = [];
  let at = 1;
  const next = (): number => (at = (at * 48_271) % 2_147_483_647) / 2_147_483_647;
  for (let job = 0; job < 200; job++)
    for (let run = 0; run < days * 8; run++) strands.push(one(`job-${job}`, from + run * 3 * HOUR + Math.floor(next() * 9_000_000), 0.002, next));
  while (strands.length < STRANDS) strands.push(one(`flow-${Math.floor(next() ** 2 * 60)}`, from + Math.floor(next() * days * DAY), 0.03, next));
  const took = await store(client, 'large', strands, from, to, RECORDS / (days * 1440 * 10), 1);
  const raw = await times(1, async () => {
    await client.query('create temp table bare (like strand including indexes)');
    await client.query("insert into bare select * from strand where environment = 'large'");
  });
  await beside(client, from, to);
  // each time another window: none is at hand yet
  const measure = async (what: string, path: (shift: number) => string, budget: string): Promise<Result> => {
    const ask = (i: number): Promise<unknown> => call(`${url}/api/${path(i * MINUTE)}`);
    await times(5, (i) => ask(100 + i));
    const found = await times(40, ask);
    return { what: `${what}, ${STRANDS.toLocaleString('en')} strands of 260 flows: p50 / p95`, figure: `${ms(quantile(found, 0.5))} / ${ms(quantile(found, 0.95))}`, raw: '', ratio: '', budget }; // prettier-ignore
  };
  const day = (shift: number): string => asked('large', to - DAY - shift, to - shift);
  const size = await client.query<{ bytes: number }>(
    `select pg_total_relation_size('strand_minute') + pg_total_relation_size('strand_hour') as bytes`,
  );
  return [
    await measure('Rounds of a day', (shift) => `rounds?${day(shift)}`, 'p95 ≤ 300 ms'),
    await measure('Rounds of 30 days', (shift) => `rounds?${asked('large', from, to - shift * 60)}`, 'p95 ≤ 1,000 ms'),
    await measure('what departs in a day', (shift) => `rounds/departures?${day(shift)}`, 'p95 ≤ 200 ms'),
    await measure('a party against everybody, a day and the day before', (shift) => `against?what=party&of=phone&name=${encodeURIComponent(PHONES[(shift / MINUTE) % PARTIES]!)}&${day(shift)}`, 'p95 ≤ 400 ms'), // prettier-ignore
    await measure('the same, 15 days', (shift) => `against?what=party&of=phone&name=${encodeURIComponent(PHONES[(shift / MINUTE) % PARTIES]!)}&${asked('large', to - 15 * DAY - shift, to - shift)}`, ''), // prettier-ignore
    await measure('faults of a day', (shift) => `faults?${day(shift)}`, 'p95 ≤ 200 ms'),
    await measure('what is said otherwise: an hour, earlier days', (shift) => `shapes/different?baseline=days&${asked('large', to - HOUR - shift * 10, to - shift * 10)}`, 'p95 ≤ 700 ms'), // prettier-ignore
    await measure('what is said otherwise: a day, the days before', (shift) => `shapes/different?${day(shift * 10)}`, ''),
    await measure('an instant', (shift) => `rounds/instant?at=${iso(to - 3 * HOUR - shift)}&environment=large`, ''),
    { what: 'strands stored, counted in the same statement', figure: `${((took / strands.length) * 1000).toFixed(0)} µs each`, raw: `${((raw[0]! / strands.length) * 1000).toFixed(0)} µs each, copied within the database`, ratio: '', budget: '≤ 5 % of an import' }, // prettier-ignore
    {
      what: 'sums of all drawn systems on disk',
      figure: `${(Number(size.rows[0]!.bytes) / 1e6).toFixed(1)} MB`,
      raw: `${founder.toLocaleString('en')} strands`,
      ratio: '',
      budget: '≤ 40 MB a million records',
    },
  ];
}

/** Parties that are known, faults with as many records as five million hold where one in twenty is an error, and what is said, by ten minutes. */
async function beside(client: pg.Client, from: number, to: number): Promise<void> {
  const { rows } = await client.query<{ id: number }>("select id from source where environment = 'large' order by id limit 1");
  const source = rows[0]!.id;
  await client.query(
    `insert into sighting (key, kind_id, source_id, scope, value, first_at, last_at, count)
       select k.key, (select id from identifier_kind where name = 'phone'), $1, '', k.value, $2, $3, 10 from unnest($4::bigint[], $5::text[]) k(key, value)`,
    [source, from, to, PHONES.map(keyOf), PHONES],
  );
  await client.query(
    "insert into fault select distinct fault, 'part', array['Exception'], array['Part.run'], 0, '' from strand where fault is not null on conflict do nothing",
  );
  await client.query(
    `insert into fault_record select f.ids[1 + (i % array_length(f.ids, 1))], $2 + (random() * ($3::bigint - $2::bigint))::bigint, i, $1, 1, 1
       from generate_series(1, ${FAULT_RECORDS}) i cross join (select array_agg(id) as ids from fault) f`,
    [source, from, to],
  );
  await client.query(
    `insert into shape_slot select s, $1, 1 + h % 40, h, 3, 1 + (random() * 12)::int from generate_series($2::int, $3::int) s cross join generate_series(1, ${SHAPES}) h`,
    [source, Math.ceil(from / (10 * MINUTE)), Math.floor(to / (10 * MINUTE))],
  );
  await client.query('analyze fault, fault_record, shape_slot, sighting');
}

function one(flow: string, startedAt: number, amiss: number, next: () => number): DrawnStrand {
  const bad = next() < amiss;
  return {
    flow,
    outcome: bad ? 'failed' : 'done',
    startedAt,
    duration: Math.floor(1_000_000 * (1 + next() * 5)),
    signature: bad ? `failed-at|${flow}|part||${Math.floor(next() * 4)}` : null,
  };
}
