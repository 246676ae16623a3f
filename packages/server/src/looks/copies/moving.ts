import type pg from 'pg';
import { coarsenessOf, inAddition, LATER, pairUp, SHARE, type Stretch, type Told } from '@fadenweg/core/copies';
import { RECORD } from '../../evidence/record-layout.ts';
import { lockSources, transactionOn } from '../../database/transaction.ts';
import { byTime, COLUMNS, toldOf, type CopyRow, type Names } from './told.ts';

/** Records of both that are compared at once. */
const SLICE = 40_000;
const MOST_SLICE = 1_280_000;
/** How far two times of one event may be apart, with seconds that are cut off. */
const REACH = 1_000_000 + LATER;

/** What came of it: for whoever ties records together. */
export interface Moved {
  records: number;
  /** Homes of records that were taken out of sight or tell more now. */
  keys: number[];
  /** Identifiers that are tied by it: a, b, first, last … */
  tied: number[];
}
interface Sides {
  copy: number;
  original: number;
  /** Components of the sources themselves. */
  components: ReadonlyMap<number, number>;
  /** The original tells more. */
  part: boolean;
  /** Corrected time from which on it was not paired yet. */
  from: number;
}
interface Pair {
  copy: CopyRow;
  original: CopyRow;
  words: Int32Array;
}

/**
 * Takes the records of a source that another one tells too out of sight, stretch after stretch: of each, only where nearly all of it is told there. What only the copy
 * tells (identifiers, fields) is told by the record that is shown.
 */
export async function moveCopies(client: pg.Client, sides: Sides, names: Names): Promise<Moved> {
  const moved: Moved = { records: 0, keys: [], tied: [] };
  let size = SLICE;
  let until = sides.from;
  for (let from = sides.from; ;) {
    const { rows } = await client.query<CopyRow>(`select ${COLUMNS} from record where at >= $1 and source_id = any($2) order by at, id limit $3`, [
      from - REACH,
      [sides.copy, sides.original],
      size,
    ]);
    const whole = rows.length < size;
    const to = whole ? Infinity : rows[rows.length - 1]!.at - REACH;
    if (to <= from) {
      if (size >= MOST_SLICE) return moved;
      size *= 2;
      continue;
    }
    const all = rows.map((row) => ({ row, told: toldOf(row, names, sides.components.get(row.source_id)!) })).sort(byTime);
    const own = all.filter(({ row }) => row.source_id === sides.copy && row.at >= from && row.at < to);
    const others = all.filter(({ row }) => row.source_id === sides.original);
    const pairs: Pair[] = [];
    pairUp(stretch(own), stretch(others)).forEach((place, i) => {
      if (place >= 0) pairs.push({ copy: own[i]!.row, original: others[place]!.row, words: others[place]!.told.words });
    });
    const same = pairs.length > 0 && pairs.length >= SHARE * own.length;
    // what is not paired may be once the other one has grown
    if (same) until = pairs.reduce((most, { copy }) => Math.max(most, copy.at + 1), until);
    const stored = await transactionOn(client, () => store(client, sides, same ? pairs : [], until));
    if (!stored) return moved;
    moved.records += stored.records;
    for (const key of stored.keys) moved.keys.push(key);
    for (const one of stored.tied) moved.tied.push(one);
    if (whole) return moved;
    from = to;
  }
}
const stretch = (all: readonly { told: Told }[]): Stretch => {
  const told = all.map((one) => one.told);
  return { told, coarse: coarsenessOf(told.map((one) => one.at)) };
};

/** @returns null where one of them is being read again meanwhile: what was compared does not hold any more */
async function store(client: pg.Client, { copy, original, part }: Sides, pairs: readonly Pair[], until: number): Promise<Moved | null> {
  await lockSources(client, [copy, original]);
  const { rows } = await client.query<{ id: number }>(`select id from source where id = any($1) and state = 'done'`, [[copy, original]]);
  if (rows.length < 2) return null;
  await client.query(
    'insert into copy_of (source_id, of_id, until_at, part) values ($1, $2, $3, $4) on conflict (source_id) do update set until_at = excluded.until_at',
    [copy, original, until, part],
  );
  if (pairs.length === 0) return { records: 0, keys: [], tied: [] };
  const records = await takeOut(client, copy, pairs);
  const { keys, tied } = await addTo(client, copy, pairs);
  for (const { copy: one } of pairs) if (one.home !== null) keys.push(one.home);
  return { records, keys, tied };
}

async function takeOut(client: pg.Client, source: number, pairs: readonly Pair[]): Promise<number> {
  const { rows } = await client.query<{ taken: number }>(
    `with u as (select * from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::bigint[]) u(at, id, of_at, of_id)),
       out as (delete from record r using u where r.at = u.at and r.id = u.id returning ${RECORD.sql('r')}, u.of_at, u.of_id),
       put as (insert into copied (${RECORD.sql()}, of_at, of_id) select * from out returning at, id, level, shape, component_id),
       uncarried as (delete from carried c using u where c.at = u.at and c.id = u.id),
       said as (insert into shape_slot (slot, source_id, component_id, shape, level, count) select (at / 600000000)::int, $5, component_id, shape, max(level), -count(*) from put group by 1, 3, 4),
       counted as (insert into minute_count (minute, source_id, level, count) select at / 60000000 * 60000000, $5, level, -count(*) from put group by 1, 3)
     update source set copies = copies + (select count(*) from put) where id = $5 returning (select count(*)::int from put) as taken`,
    [
      pairs.map((one) => one.copy.at),
      pairs.map((one) => one.copy.id),
      pairs.map((one) => one.original.at),
      pairs.map((one) => one.original.id),
      source,
    ],
  );
  return rows[0]!.taken;
}

/** What only copies tell is told by what is shown for them. */
async function addTo(client: pg.Client, source: number, pairs: readonly Pair[]): Promise<Omit<Moved, 'records'>> {
  const more = pairs.flatMap(({ copy, original, words }) => {
    const known = new Set(original.keys);
    const keys = (copy.keys ?? []).filter((key) => !known.has(key));
    const fields = inAddition(words, original.attributes ?? {}, copy.attributes ?? {});
    if (keys.length === 0 && !fields && (original.home !== null || copy.home === null)) return [];
    const all = [...known, ...keys];
    return [{ at: original.at, id: original.id, home: original.home ?? copy.home, keys: all.length > 0 ? all : null, fields, tied: copy.home }];
  });
  if (more.length === 0) return { keys: [], tied: [] };
  await client.query(
    `update record r set home = m.home, keys = (select array_agg(k::text::bigint) from json_array_elements(m.keys) k),
         attributes = case when json_typeof(m.fields) = 'object' then (coalesce(r.attributes::jsonb, '{}') || m.fields::jsonb)::json else r.attributes end
       from json_to_recordset($1) m(at bigint, id bigint, home bigint, keys json, fields json) where r.at = m.at and r.id = m.id`,
    [JSON.stringify(more.map(({ tied: _tied, ...one }) => ({ ...one, keys: one.keys ?? [] }))).replaceAll('\\u0000', '\\u2400')],
  );
  const edges = more.filter(({ home, tied }) => home !== null && tied !== null && home !== tied);
  await client.query(
    `insert into edge (a, b, source_id, first_at, first_id, last_at, count)
       select a, b, $1, min(at), (array_agg(id order by at, id))[1], max(at), count(*) from unnest($2::bigint[], $3::bigint[], $4::bigint[], $5::bigint[]) u(a, b, at, id) group by a, b`,
    [source, edges.map((one) => one.home), edges.map((one) => one.tied), edges.map((one) => one.at), edges.map((one) => one.id)],
  );
  return { keys: more.flatMap(({ home }) => (home === null ? [] : [home])), tied: edges.flatMap(({ at, home, tied }) => [home!, tied!, at, at]) };
}
