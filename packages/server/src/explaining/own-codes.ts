import type { Access } from '../platform/access.ts';
import type { KeptCode, OwnCode } from '@fadenweg/api';
import type { Database } from '../database/connect.ts';

type Row = OwnCode & { id: number; changed_by: string };
/** Entries of one's own, at most. */
export const MOST_CODES = 5000;

/** What codes of one's own mean: a partner's, a program's. */
export class OwnCodes {
  private known: Promise<KeptCode[]> | null = null;

  constructor(private readonly db: Database) {}

  all(): Promise<KeptCode[]> {
    this.known ??= this.read().catch((error: unknown) => {
      this.known = null;
      throw error;
    });
    return this.known;
  }
  private async read(): Promise<KeptCode[]> {
    const rows = await this.db<Row>('own_code').orderBy(['code', 'id']).limit(MOST_CODES);
    return rows.map(({ id, code, component, title, means, causes, next, changed_by }) => ({ id, code, component, title, means, causes, next, changedBy: changed_by })); // prettier-ignore
  }

  /** Adds entries; one for the same code and component is replaced. */
  async keep(codes: readonly OwnCode[], access: Access): Promise<void> {
    await this.db.transaction(async (trx) => {
      for (const { code, component, title, means, causes, next } of codes) {
        await trx.raw(
          `insert into own_code (code, component, title, means, causes, next, changed_by) values (?, ?, ?, ?, ?, ?, ?)
             on conflict (code, (coalesce(component, ''))) do update set title = excluded.title, means = excluded.means, causes = excluded.causes,
             next = excluded.next, changed_by = excluded.changed_by, changed_at = now()`,
          [code, component, title, means, causes, next, access.who],
        );
      }
    });
    this.known = null;
  }
  async forget(id: number): Promise<boolean> {
    const gone = (await this.db('own_code').where({ id }).delete()) > 0;
    this.known = null;
    return gone;
  }
}
