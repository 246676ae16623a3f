import type { Knex } from 'knex';
import type pg from 'pg';
import { WAKE, type Happened, type HappeningKind } from './kinds.ts';

const TELL = `with told as (insert into happening (kind, body) values ($1, $2)) select pg_notify('${WAKE}', '')`;

/**
 * Writes what happened, in the transaction of what happened: it is heard when that commits, and never where it does not.
 *
 * @param trx a transaction, or a connection that is in one
 */
export async function tell<Kind extends HappeningKind>(trx: Knex.Transaction | pg.ClientBase, kind: Kind, body: Happened[Kind]): Promise<void> {
  const text = JSON.stringify(body);
  if (isKnex(trx)) await trx.raw(TELL.replace(/\$\d/g, '?'), [kind, text]);
  else await trx.query(TELL, [kind, text]);
}
export const isKnex = (trx: Knex | pg.ClientBase): trx is Knex => 'raw' in trx;
