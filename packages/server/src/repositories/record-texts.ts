import { extent } from 'd3-array';
import pg from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import { ownClient } from '../database/connect.ts';
import { RowReader, rowEnd } from '../weaving/copy-out.ts';
import type { Cursor } from './records.ts';

/** A record half written by the database: what has to be looked up beside it, and the rest as texts. */
export interface RecordText {
  /** Source, component, host, level, flags and marks: few combinations of many records. */
  fixed: string;
  shape: number;
  keys: number[];
  founder: number | null;
  /** It names nothing itself, and belongs to its strand by what stands around it. */
  carried: boolean;
  /** What the database was asked to write of it, as UTF-8. */
  texts: readonly [Buffer, Buffer, Buffer];
}

/** Bytes that are read before records are given out: what is looked up beside them is looked up once for all of them. */
const BATCH = 1 << 20;
/** Bytes at the head of a binary COPY. */
const HEAD = 19;
const BESIDE = `left join lateral (select home from carried where r.home is null and r.lane is not null and at = r.at and id = r.id limit 1) c on true
  left join lateral (select founder, valid_to from tie where key = coalesce(r.home, c.home) and valid_from <= r.at order by valid_from desc limit 1) t on true`;

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
interface Condition {
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

/**
 * Records as texts, for what is taken along in any number: the database writes most of each, and its bytes go on as they are. On a connection of its own, which is to
 * be closed; a stream that is left early takes the connection with it.
 */
export class RecordTexts {
  private readonly selected: string;

  private constructor(
    private readonly client: Awaited<ReturnType<typeof ownClient>>,
    texts: readonly [string, string, string],
  ) {
    this.selected = `select concat_ws(',', r.source_id, r.component_id, r.host_id, r.level, r.flags, r.marks), r.shape, r.keys,
      case when t.valid_to >= r.at then t.founder end, (r.home is null)::int, ${texts.join(', ')}`;
  }

  /** @param texts expressions over `record r` */
  static async open(databaseUrl: string, texts: readonly [string, string, string]): Promise<RecordTexts> {
    const client = await ownClient(databaseUrl);
    const own = new RecordTexts(client, texts);
    try {
      await client.query('create temp table picked (place int, at bigint, id bigint)');
    } catch (error) {
      own.close();
      throw error;
    }
    return own;
  }

  /** Records of a window that a condition over `record r` holds for, in order of time. */
  all({ from, to }: Window, latest: boolean, condition: Condition): AsyncGenerator<RecordText[]> {
    return this.ordered(`r.at >= ${whole(from)} and r.at < ${whole(to)} and ${written(condition)}`, latest);
  }
  /** Of those behind a place, up to another one with it, all but the ones at these places. */
  async *allBut(places: readonly Cursor[], behind: Cursor, end: Cursor, latest: boolean, condition: Condition): AsyncGenerator<RecordText[]> {
    const [first, last] = latest ? [end, behind] : [behind, end];
    const at = ({ at, id }: Cursor): string => `(${whole(at)}, ${whole(id)})`;
    const within = `r.at between ${whole(first.at)} and ${whole(last.at)} and (r.at, r.id) ${latest ? '<' : '>'} ${at(behind)} and (r.at, r.id) ${latest ? '>=' : '<='} ${at(end)}`;
    await this.pick(places);
    yield* this.ordered(`${within} and not exists (select from picked p where p.at = r.at and p.id = r.id) and ${written(condition)}`, latest);
  }
  /** The records at these places, in their order. */
  async *at(places: readonly Cursor[]): AsyncGenerator<RecordText[]> {
    if (places.length === 0) return;
    await this.pick(places);
    // without bounds all that is stored before them would be gone through for each few of them
    const [from, to] = extent(places.map((one) => one.at));
    yield* this.batches(
      `${this.selected} from picked p join record r on r.at = p.at and r.id = p.id ${BESIDE} where r.at between ${whole(from!)} and ${whole(to!)} order by p.place`,
    );
  }
  /** Gives the connection back, whatever runs on it. */
  close(): void {
    (this.client as unknown as { connection: { stream: { destroy(): void } } }).connection.stream.destroy();
  }

  private async pick(places: readonly Cursor[]): Promise<void> {
    await this.client.query('truncate picked');
    await this.client.query('insert into picked select place, at, id from unnest($1::bigint[], $2::bigint[]) with ordinality u(at, id, place)', [
      places.map((one) => one.at),
      places.map((one) => one.id),
    ]);
  }
  private ordered(condition: string, latest: boolean): AsyncGenerator<RecordText[]> {
    const order = latest ? 'desc' : 'asc';
    return this.batches(`${this.selected} from record r ${BESIDE} where ${condition} order by r.at ${order}, r.id ${order}`);
  }
  private async *batches(query: string): AsyncGenerator<RecordText[]> {
    const stream = this.client.query(copyTo(`copy (${query}) to stdout with (format binary)`));
    let chunks: Buffer[] = [];
    let bytes = 0;
    let skip = HEAD;
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      chunks.push(chunk);
      bytes += chunk.length;
      if (bytes < BATCH) continue;
      const { rows, rest } = rowsIn(Buffer.concat(chunks), skip);
      skip = 0;
      chunks = [rest];
      bytes = rest.length;
      if (rows.length > 0) yield rows;
    }
    const { rows } = rowsIn(Buffer.concat(chunks), skip);
    if (rows.length > 0) yield rows;
  }
}

function rowsIn(buffer: Buffer, skip: number): { rows: RecordText[]; rest: Buffer } {
  const rows: RecordText[] = [];
  const reader = new RowReader();
  reader.buffer = buffer;
  let position = skip;
  for (let end = rowEnd(buffer, position); end >= 0 && buffer.readInt16BE(position) > 0; end = rowEnd(buffer, position)) {
    reader.position = position + 2;
    const fixed = reader.text();
    const shape = reader.big();
    const keys = reader.bigs();
    const founder = reader.big();
    rows.push({
      fixed,
      shape,
      keys,
      founder: Number.isNaN(founder) ? null : founder,
      carried: reader.int() === 1,
      texts: [reader.bytes(), reader.bytes(), reader.bytes()],
    });
    position = end;
  }
  return { rows, rest: buffer.subarray(position) };
}
