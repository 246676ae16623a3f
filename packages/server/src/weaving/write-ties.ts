import type pg from 'pg';
import type { Graph, Leases, Ownership } from '@fadenweg/core/stitching';
import { CopyRows } from '../database/copy-rows.ts';
import { copyInto } from '../database/copy-into.ts';
import { transactionOn } from '../database/transaction.ts';
import { ALWAYS } from '../evidence/identifiers.ts';

/** Identifiers whose ties are sent at once. */
const TIES = 200_000;
/** After so many the statistics are out of date. */
const MANY = 20_000;

/** To which strand each identifier belongs: the founder's node, -1 for none, and the leases of reused keys. */
export interface Ties {
  founder: Int32Array;
  leases: Leases;
}

/**
 * Writes what belongs to which strand.
 *
 * @param changed nodes whose ties are to be written
 * @param before what is written of them; null where all is written anew
 */
export async function writeTies(
  client: pg.Client,
  graph: Graph,
  changed: readonly number[],
  before: Ties | null,
  { founder, leases }: Ties,
): Promise<void> {
  if (changed.length === 0 && before) return;
  await transactionOn(client, async () => {
    if (!before) await client.query('delete from tie');
    else {
      const known = changed.filter((node) => (before.founder[node] ?? -1) >= 0 || before.leases.has(node)).map((node) => graph.keyOf(node));
      for (let i = 0; i < known.length; i += 50_000) await client.query('delete from tie where key = any($1)', [known.slice(i, i + 50_000)]);
    }
    for (let i = 0; i < changed.length; i += TIES) {
      const rows = new CopyRows(1 << 20);
      const put = (node: number, owner: number, from: number, to: number): void => {
        rows.begin(4);
        rows.big(graph.keyOf(node));
        rows.big(graph.keyOf(owner));
        rows.big(from);
        rows.big(to);
      };
      for (const node of changed.slice(i, i + TIES)) {
        if (founder[node]! >= 0) put(node, founder[node]!, -ALWAYS, ALWAYS);
        for (let j = leases.begin(node); j < leases.end(node); j++) put(node, leases.founder[j]!, leases.from[j]!, leases.to[j]!);
      }
      await copyInto(client, 'tie', 'key, founder, valid_from, valid_to', rows.finish());
    }
  });
  if (changed.length > MANY) await client.query('analyze tie');
}

/** Writes which strands name each other, both ways. */
export async function writeRelations(client: pg.Client, graph: Graph, { relations }: Ownership): Promise<void> {
  const rows = new CopyRows();
  for (const { founder, other } of relations) {
    const a = graph.keyOf(founder);
    const b = graph.keyOf(other);
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      rows.begin(2);
      rows.big(x);
      rows.big(y);
    }
  }
  const found = rows.finish();
  await transactionOn(client, async () => {
    await client.query('create temp table relation_now (founder bigint, other bigint) on commit drop');
    await copyInto(client, 'relation_now', 'founder, other', found);
    await client.query('delete from relation r where not exists (select 1 from relation_now n where n.founder = r.founder and n.other = r.other)');
    await client.query('insert into relation select distinct founder, other from relation_now on conflict do nothing');
  });
}
