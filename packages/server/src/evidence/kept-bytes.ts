import type { Database } from '../database/connect.ts';

/** The original bytes of sources, in blocks. */
export class KeptBytesRepository {
  constructor(private readonly db: Database) {}

  /** Original bytes of a stretch of a source. */
  async stretch(sourceId: number, from: number, to: number): Promise<Buffer> {
    const rows: { byte_from: number; bytes: Buffer }[] = await this.db('raw_block')
      .where({ source_id: sourceId })
      .where('byte_to', '>', from)
      .where('byte_from', '<', to)
      .orderBy('byte_from')
      .select('byte_from', 'bytes');
    if (rows.length === 0) return Buffer.alloc(0);
    const start = rows[0]!.byte_from;
    return Buffer.concat(rows.map((row) => row.bytes)).subarray(from - start, to - start);
  }

  /** Kept blocks of a source in order, a few at a time: from the one that holds a line, or behind the one that begins at a byte. */
  async blocks(
    sourceId: number,
    place: { line: number } | { behind: number },
    limit: number,
  ): Promise<{ line_from: number; byte_from: number; bytes: Buffer }[]> {
    const query = this.db('raw_block').where({ source_id: sourceId }).orderBy('byte_from').limit(limit).select('line_from', 'byte_from', 'bytes');
    if ('behind' in place) return query.where('byte_from', '>', place.behind);
    const first: { byte_from: number } | undefined = await this.db('raw_block')
      .where({ source_id: sourceId })
      .where('line_from', '<=', place.line)
      .orderBy('byte_from', 'desc')
      .first('byte_from');
    return query.where('byte_from', '>=', first?.byte_from ?? 0);
  }
}
