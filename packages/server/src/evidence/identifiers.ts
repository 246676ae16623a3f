import { identifierKey, normalValue, type IdentifierKind, type Role } from '@fadenweg/core/identifiers';
import type { Database } from '../database/connect.ts';

export interface Named {
  key: number;
  kindId: number;
  kind: string;
  label: string;
  role: Role;
  scope: string;
  value: string;
  /** Its kind was found in the data, and nobody has confirmed it. */
  discovered: boolean;
}
interface NamedRow {
  key: number;
  kind_id: number;
  scope: string;
  value: string;
  definition: (IdentifierKind & { discovered?: unknown }) | null;
}
/** Two keys that a record names together, and the first that does. */
export interface EdgeRow {
  a: number;
  b: number;
  first_at: number;
  first_id: number;
}
export interface TieRow {
  key: number;
  founder: number;
  valid_from: number;
  valid_to: number;
}
/** Bounds of a tie that holds for ever, in microseconds; both are whole numbers below 2^53. */
export const ALWAYS = 9_000_000_000_000_000;
/** Of `record r`, for SQL: the founder of the strand that its home, or the home that it is carried over to, tied to last at its time, and until when. */
export const FOUNDER = `select founder, valid_to from tie where key = coalesce(r.home, (select home from carried c where r.lane is not null and c.at = r.at and c.id = r.id))
  and valid_from <= r.at order by valid_from desc limit 1`;
/** Most ties of one reused identifier that are looked at. */
const MOST_TIES = 200;

/** Most ties of one strand, and pairs among its identifiers. */
const MOST_OWN = 5000;
const MOST_EDGES = 20_000;
const EDGE_ORDER = ['first_at', 'first_id', 'a', 'b'];

/** A strand's id: its founding identifier, readable. */
export const strandId = (kind: string, scope: string, value: string): string => `${kind}${scope === '' ? '' : `@${scope}`}:${value}`;
/** Key of the founding identifier that a strand's id names; null where it names none. */
export function founderOfId(id: string): number | null {
  const hit = /^([a-z0-9-]+)(?:@([^:]*))?:(.+)$/s.exec(id);
  return hit ? identifierKey(hit[1]!, hit[2] ?? '', hit[3]!) : null;
}

/** Identifiers by key, and what they tie to. Every look-up compares the value too, or comes from a record that names it. */
export class IdentifierRepository {
  constructor(private readonly db: Database) {}

  async named(keys: readonly number[]): Promise<Map<number, Named>> {
    const found = new Map<number, Named>();
    const distinct = [...new Set(keys)];
    if (distinct.length === 0) return found;
    // a kind's definition comes once, not with each of its identifiers
    const { rows } = await this.db.raw<{ rows: NamedRow[] }>(
      `select s.key, s.kind_id, s.scope, s.value, case when row_number() over (partition by s.kind_id) = 1 then k.definition end as definition
         from unnest(?::bigint[]) u(key) cross join lateral (select * from sighting where key = u.key limit 1) s join identifier_kind k on k.id = s.kind_id`,
      [distinct],
    );
    const kinds = new Map<number, NamedRow['definition']>();
    for (const { kind_id, definition } of rows) if (definition) kinds.set(kind_id, definition);
    for (const { key, kind_id: kindId, scope, value } of rows) {
      const { name: kind, label, role, discovered } = kinds.get(kindId)!;
      found.set(key, { key, kindId, kind, label, role, scope, value, discovered: !!discovered });
    }
    return found;
  }

  /** What an identifier ties to: one strand, or for a reused one the latest of many. */
  ties(key: number): Promise<TieRow[]> {
    return this.db<TieRow>('tie').where({ key }).orderBy('valid_from', 'desc').limit(MOST_TIES).select('key', 'founder', 'valid_from', 'valid_to');
  }
  /** Of each identifier the latest founder that it ties to, and how many there are. */
  async latestTies(keys: readonly number[]): Promise<Map<number, { founder: number; count: number }>> {
    if (keys.length === 0) return new Map();
    const { rows } = await this.db.raw<{ rows: { key: number; founder: number; count: number }[] }>(
      'select key, (array_agg(founder order by valid_from desc))[1] as founder, count(distinct founder)::int as count from tie where key = any(?) group by key',
      [[...new Set(keys)]],
    );
    return new Map(rows.map((row) => [row.key, row]));
  }
  /** The founders that identifiers tie to at given moments, in the order asked; null where there is none. */
  async foundersAt(places: readonly { key: number; at: number }[]): Promise<(number | null)[]> {
    return (await this.tiesAt(places)).map((tie) => tie?.founder ?? null);
  }
  /** Whom a key belongs to at a moment, and between which moments. */
  async tiesAt(places: readonly { key: number; at: number }[]): Promise<(Pick<TieRow, 'founder' | 'valid_from' | 'valid_to'> | null)[]> {
    if (places.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: { founder: number | null; valid_from: number; valid_to: number; at: number }[] }>(
      `select u.at, t.founder, t.valid_from, t.valid_to from unnest(?::bigint[], ?::bigint[]) with ordinality u(key, at, place)
         left join lateral (select founder, valid_from, valid_to from tie where key = u.key and valid_from <= u.at order by valid_from desc limit 1) t on true
         order by u.place`,
      [places.map((one) => one.key), places.map((one) => one.at)],
    );
    return rows.map((row) =>
      row.founder === null || row.at > row.valid_to ? null : { founder: row.founder, valid_from: row.valid_from, valid_to: row.valid_to },
    );
  }
  tiesOf(founder: number): Promise<TieRow[]> {
    return this.db<TieRow>('tie').where({ founder }).orderBy('valid_from').limit(MOST_OWN).select('key', 'founder', 'valid_from', 'valid_to');
  }
  /** The same for many, in the order asked. */
  async tiesOfAll(founders: readonly number[]): Promise<TieRow[][]> {
    const { rows } = await this.db.raw<{ rows: TieRow[] }>(
      `select t.* from unnest(?::bigint[]) u(founder) cross join lateral
         (select key, founder, valid_from, valid_to from tie where founder = u.founder order by valid_from limit ${MOST_OWN}) t`,
      [[...new Set(founders)]],
    );
    const byFounder = new Map<number, TieRow[]>();
    for (const row of rows) byFounder.set(row.founder, [...(byFounder.get(row.founder) ?? []), row]);
    return founders.map((one) => byFounder.get(one) ?? []);
  }
  edgesAmong(keys: readonly number[]): Promise<EdgeRow[]> {
    return this.db('edge')
      .whereIn('a', keys as number[])
      .whereIn('b', keys as number[])
      .orderBy(EDGE_ORDER)
      .limit(MOST_EDGES)
      .select('a', 'b', 'first_at', 'first_id');
  }
  /** The same for many groups of keys, in the order asked. */
  async edgesAmongEach(groups: readonly (readonly number[])[]): Promise<EdgeRow[][]> {
    const { rows } = await this.db.raw<{ rows: (EdgeRow & { part: number })[] }>(
      `with k as (select * from unnest(?::int[], ?::bigint[]) k(part, key))
       select k.part, e.a, e.b, e.first_at, e.first_id from k join edge e on e.a = k.key join k o on o.part = k.part and o.key = e.b
         order by k.part, ${EDGE_ORDER.map((column) => `e.${column}`).join(', ')}`,
      [groups.flatMap((keys, part) => keys.map(() => part)), groups.flat()],
    );
    const found = groups.map((): EdgeRow[] => []);
    for (const { part, ...edge } of rows) if (found[part]!.length < MOST_EDGES) found[part]!.push(edge);
    return found;
  }

  /** Whether an identifier of this kind and value was ever seen, under its key. */
  async seen(candidates: readonly { kind: string; value: string; key: number }[]): Promise<Named[]> {
    const named = await this.named(candidates.map((one) => one.key));
    return candidates.flatMap((one) => {
      const found = named.get(one.key);
      return found && found.kind === one.kind && found.value === one.value ? [found] : [];
    });
  }
  keyOf = (kind: IdentifierKind, value: string): number => identifierKey(kind.name, '', normalValue(value, kind.normal));
}
