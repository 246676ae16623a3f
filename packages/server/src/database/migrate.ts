import type { Database } from './connect.ts';
import * as first from './migrations/001-first.ts';

const MIGRATIONS: { name: string; up: typeof first.up; down: typeof first.down }[] = [{ name: '001-first', ...first }];

/** The data was written by a later version of the program than this one. */
export class NewerDatabase extends Error {}

/**
 * Brings the database to this version.
 *
 * @throws NewerDatabase when it knows migrations that this version does not
 */
export async function migrate(db: Database): Promise<void> {
  const source = {
    getMigrations: async () => MIGRATIONS,
    getMigrationName: (migration: (typeof MIGRATIONS)[number]) => migration.name,
    getMigration: async (migration: (typeof MIGRATIONS)[number]) => migration,
  };
  const known = await db.schema.hasTable('migration');
  if (known) {
    const applied: { name: string }[] = await db('migration').select('name');
    const foreign = applied.filter(({ name }) => !MIGRATIONS.some((migration) => migration.name === name));
    if (foreign.length > 0) {
      throw new NewerDatabase(
        `the data folder was written by a newer version (it knows “${foreign[0]!.name}”); update the program, or choose another data folder`,
      );
    }
  }
  await db.migrate.latest({ migrationSource: source, tableName: 'migration' });
}
