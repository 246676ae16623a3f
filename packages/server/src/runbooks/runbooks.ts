import type { Access } from '../platform/access.ts';
import type { RunbookInfo } from '@fadenweg/api';
import type { Runbook } from '@fadenweg/core/runbooks';
import type { Database } from '../database/connect.ts';

interface Row {
  id: number;
  body: Runbook;
  owner: string;
  changed_at: Date;
}
const infoOf = ({ id, body, owner, changed_at }: Row): RunbookInfo<Runbook> => ({
  id: String(id),
  supplied: false,
  owner,
  changedAt: changed_at.toISOString(),
  runbook: body,
});

/** Runbooks that people wrote or brought in. */
export class RunbookRepository {
  constructor(private readonly db: Database) {}

  async all(): Promise<RunbookInfo<Runbook>[]> {
    return (await this.db<Row>('runbook').orderBy('id').limit(500)).map(infoOf);
  }
  async add(body: Runbook, access: Access): Promise<RunbookInfo<Runbook>> {
    const [row] = await this.db<Row>('runbook')
      .insert({ body: JSON.stringify(body) as never, owner: access.who })
      .returning('*');
    return infoOf(row as Row);
  }
  async change(id: number, body: Runbook): Promise<RunbookInfo<Runbook> | null> {
    const [row] = await this.db<Row>('runbook')
      .where({ id })
      .update({ body: JSON.stringify(body) as never, changed_at: this.db.fn.now() as never })
      .returning('*');
    return row ? infoOf(row as Row) : null;
  }
  async remove(id: number): Promise<boolean> {
    return (await this.db('runbook').where({ id }).delete()) > 0;
  }
}
