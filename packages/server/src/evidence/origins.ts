import type pg from 'pg';
import type { Origin } from '@fadenweg/core/faults';

/** Faults that people parted, in the order in which they did. */
export const PARTED = `select fault, words, other as part from fault_hand where kind = 'parted' order by id`;

/** Keeps where errors come from, each once; in one order everywhere, or two that write would wait for each other. */
export async function insertOrigins(client: pg.Client, origins: readonly Origin[]): Promise<void> {
  if (origins.length === 0) return;
  const rows = [...new Map(origins.map((one) => [one.key, one])).values()]
    .sort((a, b) => a.key - b.key)
    .map(({ key, ...origin }) => ({ id: key, ...origin }));
  await client.query(
    `insert into fault (id, component, types, calls, shape, traits, words)
       select o.id, o.component, array(select json_array_elements_text(o.types)), array(select json_array_elements_text(o.calls)), o.shape, o.traits, o.words
         from json_to_recordset($1) o(id bigint, component text, types json, calls json, shape bigint, traits text, words text) on conflict do nothing`,
    [JSON.stringify(rows).replaceAll('\\u0000', '\\u2400')],
  );
}
