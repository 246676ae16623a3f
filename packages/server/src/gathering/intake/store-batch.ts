import type pg from 'pg';
import { insertOrigins } from '../../evidence/origins.ts';
import { RECORD } from '../../evidence/record-layout.ts';
import type { Batch } from '../../evidence/batch.ts';
import { copyInto } from '../../database/copy-into.ts';
import { joined } from '../../database/copy-rows.ts';
import type { Partitions } from '../../database/partitions.ts';
import { lockSources, transactionOn } from '../../database/transaction.ts';

const TABLES = {
  record: RECORD.sql(),
  raw_block: 'source_id, byte_from, byte_to, line_from, bytes',
  minute_count: 'minute, source_id, level, count',
  sighting: 'key, kind_id, source_id, scope, value, first_at, last_at, count',
  fault_record: 'fault, at, id, source_id, host_id, named',
  shape_slot: 'slot, source_id, component_id, shape, level, count',
  edge: 'a, b, source_id, first_at, first_id, last_at, count',
} as const;

/** A batch, and where its source stands before it. */
export interface Storing {
  batch: Batch;
  from: number;
}

/**
 * Stores batches of different sources, their identifiers and the sources' positions in one transaction: all of them or nothing.
 *
 * @param noted called at its end with those that are stored: what is to be done for them is written in the same transaction
 * @returns numbers of their sources, but for those that were taken out or stand elsewhere meanwhile: of these nothing is stored
 */
export async function storeBatches<One extends Storing>(
  client: pg.Client,
  partitions: Partitions,
  wanted: readonly One[],
  noted: (stored: readonly One[]) => Promise<void>,
): Promise<ReadonlySet<number>> {
  if (wanted.length === 0) return new Set();
  const days = new Set(wanted.flatMap(({ batch }) => batch.days));
  await partitions.ensure(client, [...days], wanted.reduce((sum, { batch }) => sum + batch.count, 0)); // prettier-ignore
  return transactionOn(client, async () => {
    await lockSources(client, wanted.map(({ batch }) => batch.sourceId)); // prettier-ignore
    const moved = await moveOn(client, wanted);
    const stored = wanted.filter(({ batch }) => moved.has(batch.sourceId));
    if (stored.length === 0) return moved;
    await putAll(client, stored.map(({ batch }) => batch)); // prettier-ignore
    await noted(stored);
    return moved;
  });
}

async function putAll(client: pg.Client, batches: readonly Batch[]): Promise<void> {
  const put = async (table: keyof typeof TABLES, rows: readonly (Uint8Array | null)[]): Promise<void> => {
    const all = joined(rows.filter((one): one is Uint8Array => one !== null));
    if (all) await copyInto(client, table, TABLES[table], all);
  };
  await put('record', batches.map((one) => one.records)); // prettier-ignore
  await put('raw_block', batches.map((one) => one.raw)); // prettier-ignore
  await put('minute_count', batches.map((one) => one.counts)); // prettier-ignore
  await put('sighting', batches.map((one) => one.sightings)); // prettier-ignore
  await put('edge', batches.map((one) => one.edges)); // prettier-ignore
  await put('shape_slot', batches.map((one) => one.said)); // prettier-ignore
  await put('fault_record', batches.map((one) => one.faults)); // prettier-ignore
  await insertOrigins(client, batches.flatMap((one) => one.origins)); // prettier-ignore
  const shapes = batches.flatMap((one) => one.shapes);
  if (shapes.length > 0) {
    // in one order everywhere, or two lanes would wait for each other
    const sorted = shapes.sort((a, b) => a.id - b.id);
    await client.query('insert into shape (id, text) select * from unnest($1::bigint[], $2::text[]) on conflict do nothing', [
      sorted.map((shape) => shape.id),
      sorted.map((shape) => shape.text.replaceAll('\0', '\u2400')),
    ]);
  }
  for (const batch of batches) if (batch.signs.length > 0) await insertSigns(client, batch);
  for (const batch of batches) if (batch.speakers.length > 0) await insertSpeakers(client, batch);
}

/** Notes how far the sources are read. Returns those that stood where their batches begin. */
async function moveOn(client: pg.Client, wanted: readonly Storing[]): Promise<ReadonlySet<number>> {
  const { rows } = await client.query<{ id: number }>(
    `update source s set done_bytes = n.byte, done_lines = n.lines, reader_state = n.state, records = s.records + n.count, understood = s.understood + n.understood,
       first_at = least(s.first_at, n.first), last_at = greatest(s.last_at, n.latest), state = case when n.ended then 'done' else 'reading' end
     from json_to_recordset($1) n(id int, byte bigint, lines int, state json, count int, understood int, first bigint, latest bigint, ended boolean, since bigint)
     where s.id = n.id and s.state = 'reading' and s.done_bytes = n.since returning s.id`,
    [
      JSON.stringify(
        wanted.map(({ batch, from }) => ({
          id: batch.sourceId,
          byte: batch.next.byte,
          lines: batch.next.line - 1,
          state: batch.state,
          count: batch.count,
          understood: batch.understood,
          first: batch.count > 0 ? batch.firstAt : null,
          latest: batch.count > 0 ? batch.lastAt : null,
          ended: batch.last,
          since: from,
        })),
      ),
    ],
  );
  return new Set(rows.map((row) => row.id));
}

/** A name that is not kept, as one of very many, counts as the source's own. */
async function insertSigns(client: pg.Client, { sourceId, signs }: Batch): Promise<void> {
  await client.query(
    `insert into sign (source_id, first_at, first_id, last_at, count, component_id, host_id, kind, subject, before, after, text)
       select $1, s.first, s."firstId", s.last, s.count, coalesce(c.id, o.component_id), coalesce(h.id, o.host_id), s.kind, s.subject, s.before, s.after, s.text
         from json_to_recordset($2) s(first bigint, "firstId" bigint, last bigint, count int, component text, host text, kind text, subject text, before text, after text, text text)
         join source o on o.id = $1 left join component c on c.name = s.component left join host h on h.name = s.host`,
    [sourceId, JSON.stringify(signs).replaceAll('\\u0000', '\\u2400')],
  );
}
async function insertSpeakers(client: pg.Client, { sourceId, speakers }: Batch): Promise<void> {
  await client.query(
    `insert into speaker (source_id, component_id, host_id)
       select $1, coalesce(c.id, o.component_id), coalesce(h.id, o.host_id) from json_to_recordset($2) s(component text, host text)
         join source o on o.id = $1 left join component c on c.name = s.component and s.component <> '' left join host h on h.name = s.host and s.host <> '' on conflict do nothing`,
    [sourceId, JSON.stringify(speakers).replaceAll('\\u0000', '\\u2400')],
  );
}
