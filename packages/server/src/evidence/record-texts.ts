import pg from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import { ownClient } from '../database/own-client.ts';
import { RowReader, rowEnd } from '../database/copy-out.ts';
import { FOUNDER } from './identifiers.ts';
import type { RecordColumn, RecordRow } from './record-layout.ts';

/** A record half written by the database: what has to be looked up beside it, and the rest as texts. */
export interface RecordText extends Pick<RecordRow, 'at' | 'id' | 'shape'> {
  /** What few combinations of many records have, for `sharedOf`. */
  shared: string;
  keys: number[];
  founder: number | null;
  /** It names nothing itself, and belongs to its strand by what stands around it. */
  carried: boolean;
  /** What the database was asked to write of it, as UTF-8. */
  texts: readonly [Buffer, Buffer];
  /** The columns that were asked for, of a record that has to be looked at; null for the others. */
  looked: RecordRow | null;
}
/** What many records have in common. */
export type Shared = Pick<RecordRow, (typeof SHARED)[number] | 'logger'>;
/** Of which records the columns are read besides, all that a search may ask for among these. */
export interface Doubt {
  condition: Condition;
  columns: readonly RecordColumn[];
}

/** Bytes that are read before records are given out: what is looked up beside them is looked up once for all of them. */
const BATCH = 1 << 20;
/** So many combinations of what records share are kept. */
const MOST_SHARED = 20_000;
/** Bytes at the head of a binary COPY. */
const HEAD = 19;
/** Small numbers that records share, as the row begins with; the logger follows them. */
const SHARED = ['source_id', 'component_id', 'host_id', 'level', 'flags', 'marks'] as const;
const READ = [...SHARED, 'logger', 'at', 'id', 'shape', 'keys'].map((column) => `r.${column}`).join(', ');

/** A number that stands in the text of a query: COPY takes no values beside it. */
function whole(value: number): string {
  if (!Number.isSafeInteger(value)) throw new RangeError(`${value} is no whole number`);
  return String(value);
}

/** A value within the text of a query, for COPY. @throws RangeError for what is neither a text, a number nor a list of these */
function literal(value: unknown): string {
  if (typeof value === 'string') return pg.escapeLiteral(value);
  if (typeof value === 'number' && Number.isFinite(value)) return String(value);
  if (Array.isArray(value))
    return value.every((one) => typeof one === 'number') ? `'{${value.map(whole).join()}}'` : `array[${value.map(literal).join()}]`;
  throw new RangeError(`${String(value)} cannot stand in a query`);
}

/** A condition over `record r`, with a question mark for each value. */
export interface Condition {
  sql: string;
  bindings: readonly unknown[];
}
interface Window {
  from: number;
  to: number;
}
function written({ sql, bindings }: Condition): string {
  let bound = 0;
  return sql.replace(/\?/g, () => literal(bindings[bound++]));
}

/** How a column that is looked at is read, where it is not told by what each record has. */
const TEXTS_LOOKED_AT: Partial<Record<RecordColumn, string>> = { message: 'r.message', attributes: 'r.attributes::text' };
/** A query whose reader has gone ends, also one that finds nothing to send. */
const LOOKS_FOR_READER = "set client_connection_check_interval = '2s'";

/**
 * Records as texts, for what is taken along in any number: the database writes most of each, and its bytes go on as they are. On a connection of its own, which is to
 * be closed; a stream that is left early takes the connection with it.
 */
export class RecordTexts {
  private constructor(
    private readonly client: Awaited<ReturnType<typeof ownClient>>,
    private readonly texts: readonly [string, string],
  ) {}

  /** @param texts expressions over `record r` */
  static async open(databaseUrl: string, texts: readonly [string, string]): Promise<RecordTexts> {
    const client = await ownClient(databaseUrl);
    const own = new RecordTexts(client, texts);
    try {
      await client.query(LOOKS_FOR_READER);
    } catch (error) {
      own.close();
      throw error;
    }
    return own;
  }
  /** Gives the connection back, whatever runs on it. */
  close(): void {
    (this.client as unknown as { connection: { stream: { destroy(): void } } }).connection.stream.destroy();
  }

  /** Records of a window that a condition holds for, in order of time. @param doubt null where none has to be looked at */
  async *all({ from, to }: Window, latest: boolean, condition: Condition, doubt: Doubt | null): AsyncGenerator<RecordText[]> {
    const order = latest ? 'desc' : 'asc';
    const texts = (doubt?.columns ?? []).flatMap((column) => TEXTS_LOOKED_AT[column] ?? []);
    const looked = texts.map((text) => `, case when d.doubtful then ${text} end`);
    const lookedAt = doubt ? `, coalesce(d.doubtful, false)::int, r.took${looked.join('')}` : '';
    const doubtful = doubt ? `cross join lateral (select ${written(doubt.condition)} as doubtful offset 0) d` : '';
    const query = `select ${READ}, case when t.valid_to >= r.at then t.founder end, (r.home is null)::int, ${this.texts.join(', ')}${lookedAt}
      from record r ${doubtful} left join lateral (${FOUNDER}) t on true
      where r.at >= ${whole(from)} and r.at < ${whole(to)} and ${written(condition)} order by r.at ${order}, r.id ${order}`;
    const stream = this.client.query(copyTo(`copy (${query}) to stdout with (format binary)`));
    const rowsOf = new Rows(doubt && doubt.columns.filter((column) => TEXTS_LOOKED_AT[column]));
    let chunks: Buffer[] = [];
    let bytes = 0;
    let skip = HEAD;
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      chunks.push(chunk);
      bytes += chunk.length;
      if (bytes < BATCH) continue;
      const { rows, rest } = rowsOf.within(Buffer.concat(chunks), skip);
      skip = 0;
      chunks = [rest];
      bytes = rest.length;
      if (rows.length > 0) yield rows;
    }
    const { rows } = rowsOf.within(Buffer.concat(chunks), skip);
    if (rows.length > 0) yield rows;
  }
}

/** Reads rows of the answer. */
class Rows {
  private readonly reader = new RowReader();
  private readonly shared = new Map<string, Shared>();

  /** @param columns texts of those that are looked at, null where none is */
  constructor(private readonly columns: readonly RecordColumn[] | null) {}

  /** The rows that are there whole. */
  within(buffer: Buffer, from: number): { rows: RecordText[]; rest: Buffer } {
    const { reader } = this;
    const rows: RecordText[] = [];
    reader.buffer = buffer;
    let position = from;
    for (let end = rowEnd(buffer, position); end >= 0 && buffer.readInt16BE(position) > 0; end = rowEnd(buffer, position)) {
      reader.position = position + 2;
      const row: RecordText = {
        shared: reader.fields(SHARED.length + 1),
        at: reader.big(),
        id: reader.big(),
        shape: reader.big(),
        keys: reader.bigs(),
        founder: orNull(reader.big()),
        carried: reader.int() === 1,
        texts: [reader.bytes(), reader.bytes()],
        looked: null,
      };
      if (this.columns && reader.int() === 1) row.looked = this.lookedAt(row, this.columns);
      rows.push(row);
      position = end;
    }
    return { rows, rest: buffer.subarray(position) };
  }

  private lookedAt(row: RecordText, columns: readonly RecordColumn[]): RecordRow {
    const { at, id, shape, keys } = row;
    const took = orNull(this.reader.big());
    let message = '';
    let attributes: RecordRow['attributes'] = null;
    for (const column of columns) {
      const text = this.reader.text();
      if (column === 'message') message = text;
      else if (text !== '') attributes = JSON.parse(text) as RecordRow['attributes'];
    }
    return { at, id, shape, keys, took, ...this.sharedBy(row.shared), message, attributes } as RecordRow;
  }
  private sharedBy(shared: string): Shared {
    let known = this.shared.get(shared);
    if (known) return known;
    if (this.shared.size > MOST_SHARED) this.shared.clear();
    this.shared.set(shared, (known = sharedOf(shared)));
    return known;
  }
}

const orNull = (value: number): number | null => (Number.isNaN(value) ? null : value);

/** What many records have in common, as `shared` keeps it. */
export function sharedOf(shared: string): Shared {
  const reader = new RowReader();
  reader.buffer = Buffer.from(shared, 'latin1');
  return {
    source_id: reader.int(),
    component_id: reader.small(),
    host_id: reader.small(),
    level: reader.small(),
    flags: reader.small(),
    marks: reader.small(),
    logger: reader.text(),
  };
}
