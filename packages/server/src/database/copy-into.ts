import type pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';

/** Sends rows in binary COPY format to a table. */
export async function copyInto(client: pg.Client, table: string, columns: string, rows: Uint8Array): Promise<void> {
  const stream = client.query(copyFrom(`copy ${table} (${columns}) from stdin with (format binary)`));
  await new Promise<void>((resolve, reject) => {
    stream.on('error', reject);
    stream.on('finish', resolve);
    stream.end(Buffer.from(rows.buffer, rows.byteOffset, rows.byteLength));
  });
}
