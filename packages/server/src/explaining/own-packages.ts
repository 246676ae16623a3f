import type { Access } from '../platform/access.ts';
import type { OwnPackage } from '@fadenweg/api';
import type { Database } from '../database/connect.ts';

/** Packages that are declared to be the program's own, at most. */
export const MOST_PACKAGES = 500;

/** Beginnings of packages or folders whose calls are the program's own in every stack trace. */
export class OwnPackages {
  constructor(private readonly db: Database) {}

  async all(): Promise<OwnPackage[]> {
    const rows = await this.db<{ prefix: string; changed_by: string }>('own_package').orderBy('prefix').limit(MOST_PACKAGES);
    return rows.map(({ prefix, changed_by }) => ({ prefix, changedBy: changed_by }));
  }
  async keep(prefix: string, access: Access): Promise<void> {
    await this.db('own_package').insert({ prefix, changed_by: access.who }).onConflict('prefix').ignore();
  }
  async forget(prefix: string): Promise<boolean> {
    return (await this.db('own_package').where({ prefix }).delete()) > 0;
  }
}
