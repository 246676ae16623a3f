import type pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import type { Batch } from './batch.ts';
import type { Partitions } from './partitions.ts';

const COLUMNS = {
  record:
    'at, id, source_id, line, length, component_id, host_id, level, marks, flags, took, shape, home, logger, time_text, message, attributes, keys, lane, shifted, traits',
  raw_block: 'source_id, byte_from, byte_to, line_from, bytes',
  minute_count: 'minute, source_id, level, count',
  sighting: 'key, kind_id, source_id, scope, value, first_at, last_at, count',
  edge: 'a, b, source_id, first_at, first_id, last_at, count',
} as const;

/** Sends rows in binary COPY format to a table. */
export async function copyInto(client: pg.Client, table: string, columns: string, rows: Uint8Array): Promise<void> {
  const stream = client.query(copyFrom(`copy ${table} (${columns}) from stdin with (format binary)`));
  await new Promise<void>((resolve, reject) => {
    stream.on('error', reject);
    stream.on('finish', resolve);
    stream.end(Buffer.from(rows.buffer, rows.byteOffset, rows.byteLength));
  });
}

/**
 * Stores a batch, its identifiers and the source's position in one transaction: all of it or nothing.
 *
 * @returns false when the source was taken out or stands elsewhere meanwhile; nothing is stored then
 */
export async function storeBatch(client: pg.Client, partitions: Partitions, batch: Batch, fromByte: number): Promise<boolean> {
  await partitions.ensure(client, batch.days, batch.count);
  await client.query('begin');
  try {
    const { rowCount } = await client.query(
      `update source set done_bytes = $2, done_lines = $3, reader_state = $4, records = records + $5, understood = understood + $6,
         first_at = least(first_at, $7), last_at = greatest(last_at, $8), state = case when $9 then 'done' else 'reading' end
       where id = $1 and state = 'reading' and done_bytes = $10`,
      [
        batch.sourceId,
        batch.next.byte,
        batch.next.line - 1,
        JSON.stringify(batch.state),
        batch.count,
        batch.understood,
        batch.count > 0 ? batch.firstAt : null,
        batch.count > 0 ? batch.lastAt : null,
        batch.last,
        fromByte,
      ],
    );
    if (rowCount !== 1) {
      await client.query('rollback');
      return false;
    }
    if (batch.count > 0) await copyInto(client, 'record', COLUMNS.record, batch.records);
    if (batch.raw) await copyInto(client, 'raw_block', COLUMNS.raw_block, batch.raw);
    await copyInto(client, 'minute_count', COLUMNS.minute_count, batch.counts);
    await copyInto(client, 'sighting', COLUMNS.sighting, batch.sightings);
    await copyInto(client, 'edge', COLUMNS.edge, batch.edges);
    if (batch.shapes.length > 0) {
      const sorted = [...batch.shapes].sort((a, b) => a.id - b.id);
      await client.query('insert into shape (id, text) select * from unnest($1::bigint[], $2::text[]) on conflict do nothing', [
        sorted.map((shape) => shape.id),
        sorted.map((shape) => shape.text.replaceAll('\0', '\u2400')),
      ]);
    }
    if (batch.signs.length > 0) await insertSigns(client, batch);
    await client.query('commit');
    return true;
  } catch (error) {
    await client.query('rollback').catch(() => {}); // the connection may be gone; the first error is the one to tell
    throw error;
  }
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
