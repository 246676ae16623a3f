import { parentPort, workerData } from 'node:worker_threads';
import type pg from 'pg';
import { findCopies, type ComparedSource } from '@fadenweg/core/copies';
import { ownClient } from '../../database/own-client.ts';
import { moveCopies, type Moved } from './moving.ts';
import { StoredEvidence } from './stored-evidence.ts';
import type { Names } from './told.ts';

/** Sources of an environment that are compared with each other, the latest. */
const MOST_SOURCES = 300;

export interface CopiesData {
  databaseUrl: string;
}
export interface CopiesAnswer extends Moved {
  /** Sources that are shown for others and turn out to be copies themselves: with these they are read again, and compared anew. */
  again: number[];
}
interface Own extends ComparedSource {
  component_id: number;
  apart: boolean;
  of_id: number | null;
  until_at: number | null;
  part: boolean | null;
}

/** Compares what was read since with all else of its environment, and takes copies out of sight. */
const { databaseUrl } = workerData as CopiesData;
const client = await ownClient(databaseUrl);
try {
  const answer: CopiesAnswer = { records: 0, keys: [], tied: [], again: [] };
  const names = await namesOf(client);
  const { rows: environments } = await client.query<{ environment: string }>(
    `select distinct environment from source where state = 'done' and records > 0 and compared_bytes <> done_bytes order by 1`,
  );
  for (const { environment } of environments) await compare(environment, names, answer);
  parentPort!.postMessage(answer);
} finally {
  await client.end();
}

async function namesOf(on: pg.Client): Promise<Names> {
  const [components, hosts] = await Promise.all(
    ['component', 'host'].map(
      async (table) => new Map((await on.query<{ id: number; name: string }>(`select id, name from ${table}`)).rows.map((row) => [row.id, row.name])),
    ),
  );
  return { component: (id) => components!.get(id) ?? '', host: (id) => hosts!.get(id) ?? '' };
}

async function compare(environment: string, names: Names, answer: CopiesAnswer): Promise<void> {
  const { rows } = await client.query<Own & { done_bytes: number }>(
    `select s.id, s.path, s.family, s.component_id, s.first_at as first, s.last_at as last, s.done_bytes, s.apart, s.compared_bytes <> s.done_bytes as grown, c.of_id, c.until_at, c.part
       from source s left join copy_of c on c.source_id = s.id where s.environment = $1 and s.state = 'done' and s.records > 0 order by s.id desc limit $2`,
    [environment, MOST_SOURCES],
  );
  const known = rows.filter((one) => one.of_id !== null);
  // whoever says that it is a copy of none does not want others to be copies of it either
  const free = rows.filter((one) => one.of_id === null && !one.apart);
  const found = await findCopies(free, new StoredEvidence(client, new Map(free.map((one) => [one.id, one.component_id])), names));
  const shown = new Set(known.map((one) => one.of_id));
  const late = new Set([...found.keys()].filter((id) => shown.has(id)));
  for (const id of late) answer.again.push(id, found.get(id)!.of, ...known.filter((one) => one.of_id === id).map((one) => one.id));
  // which one is the part may be otherwise now
  const grown = new Set(rows.filter((one) => one.grown).map((one) => one.id));
  const parts = known.filter((one) => one.part && (one.grown || grown.has(one.of_id!)));
  for (const one of parts) answer.again.push(one.id, one.of_id!);
  const components = new Map(rows.map((one) => [one.id, one.component_id]));
  const move = async (copy: number, original: number, part: boolean, from: number): Promise<void> => {
    const { records, keys, tied } = await moveCopies(client, { copy, original, part, components, from }, names);
    answer.records += records;
    for (const key of keys) answer.keys.push(key);
    for (const one of tied) answer.tied.push(one);
  };
  const again = new Set(answer.again);
  for (const { id, first } of free) {
    const copy = found.get(id);
    if (copy && !again.has(id) && !again.has(copy.of)) await move(id, copy.of, copy.part, first);
  }
  for (const { id, of_id: of, until_at: until, grown: own } of known)
    if ((own || grown.has(of!)) && !again.has(id) && components.has(of!)) await move(id, of!, false, until!);
  await client.query('update source set compared_bytes = n.bytes from unnest($1::int[], $2::bigint[]) n(id, bytes) where source.id = n.id', [
    rows.map((one) => one.id),
    rows.map((one) => one.done_bytes),
  ]);
}
