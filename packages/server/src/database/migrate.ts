import type { Knex } from 'knex';
import type { Database } from './connect.ts';
import * as first from './migrations/001-first.ts';
import * as second from './migrations/002-happenings-and-work.ts';
import * as third from './migrations/003-stated-zones.ts';
import * as fourth from './migrations/004-speakers.ts';
import * as fifth from './migrations/005-copies.ts';
import * as sixth from './migrations/006-sums.ts';
import * as seventh from './migrations/007-hosts-and-groups.ts';
import * as eighth from './migrations/008-faults.ts';
import * as ninth from './migrations/009-shapes.ts';
import * as tenth from './migrations/010-faults-by-hand.ts';
import * as eleventh from './migrations/011-weights.ts';
import * as twelfth from './migrations/012-parameters.ts';
import * as thirteenth from './migrations/013-rows-of-runs.ts';
import * as fourteenth from './migrations/014-calls.ts';
import * as fifteenth from './migrations/015-touched.ts';
import * as sixteenth from './migrations/016-quiet-by-kind.ts';
import * as seventeenth from './migrations/017-dialogs.ts';
import * as eighteenth from './migrations/018-calls-by-environment.ts';
import * as nineteenth from './migrations/019-columns-by-task.ts';

interface Migration {
  name: string;
  up(db: Knex): Promise<void>;
}
/** In the order in which they are run. What stands here is frozen: a change of the database is a further one, with a test that runs it on data. */
const MIGRATIONS: readonly Migration[] = [
  { name: '001-first', up: first.up },
  { name: '002-happenings-and-work', up: second.up },
  { name: '003-stated-zones', up: third.up },
  { name: '004-speakers', up: fourth.up },
  { name: '005-copies', up: fifth.up },
  { name: '006-sums', up: sixth.up },
  { name: '007-hosts-and-groups', up: seventh.up },
  { name: '008-faults', up: eighth.up },
  { name: '009-shapes', up: ninth.up },
  { name: '010-faults-by-hand', up: tenth.up },
  { name: '011-weights', up: eleventh.up },
  { name: '012-parameters', up: twelfth.up },
  { name: '013-rows-of-runs', up: thirteenth.up },
  { name: '014-calls', up: fourteenth.up },
  { name: '015-touched', up: fifteenth.up },
  { name: '016-quiet-by-kind', up: sixteenth.up },
  { name: '017-dialogs', up: seventeenth.up },
  { name: '018-calls-by-environment', up: eighteenth.up },
  { name: '019-columns-by-task', up: nineteenth.up },
];

/** A database that this version cannot work with: written by a later one, or none of ours. */
export class ForeignDatabase extends Error {}

/**
 * Brings the database to this version.
 *
 * @throws ForeignDatabase when it knows migrations that this version does not, or holds tables without any
 */
export async function migrate(db: Database): Promise<void> {
  const applied: { name: string }[] = (await db.schema.hasTable('migration')) ? await db('migration').select('name').orderBy('id') : [];
  const unknown = applied.find(({ name }) => !MIGRATIONS.some((migration) => migration.name === name));
  if (unknown)
    throw new ForeignDatabase(
      `the data folder was written by a newer version (it knows “${unknown.name}”); update the program, or choose another data folder`,
    );
  if (applied.length === 0) {
    const { rows } = await db.raw<{ rows: { name: string }[] }>(
      `select c.relname as name from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = current_schema() and c.relkind in ('r', 'p') and c.relname not like 'migration%' limit 1`,
    );
    if (rows.length > 0)
      throw new ForeignDatabase(`the database holds tables that are not ours (“${rows[0]!.name}”); choose another data folder or an empty database`);
  }
  const config = {
    tableName: 'migration',
    migrationSource: {
      getMigrations: async () => [...MIGRATIONS],
      getMigrationName: ({ name }: Migration) => name,
      getMigration: async ({ up }: Migration) => ({ up, down: never }),
    },
  };
  // no other server holds the database: whoever locked them was killed, or lost it, on the way
  await db.migrate.forceFreeMigrationsLock(config);
  await db.migrate.latest(config);
}

async function never(): Promise<void> {
  throw new Error('a database is not taken back: restore its data folder');
}
