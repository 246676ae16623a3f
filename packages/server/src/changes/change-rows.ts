import type { SignKind, SignSpan } from '@fadenweg/core/changes';
import type { Database } from '../database/connect.ts';
import type { Names } from '../evidence/names.ts';

export interface RegisteredRow {
  id: number;
  at: number;
  component: string;
  host: string;
  environment: string;
  what: string;
  who: string;
}
export interface KnownCauseRow {
  id: number;
  signature: string;
  was: boolean;
  remedy: string;
  owner: string;
  strand: string;
  who: string;
  noted_at: Date;
}
interface SignRow {
  first_at: number;
  first_id: number;
  last_at: number;
  count: number;
  component_id: number;
  host_id: number;
  kind: string;
  subject: string;
  before: string;
  after: string;
  text: string;
  environment: string;
}
/** Signs that are looked at, the latest. */
const MOST_SIGNS = 50_000;
const MOST_REGISTERED = 10_000;

/** What records tell about changes, what people register, and what they found out about findings. */
export class ChangeRepository {
  constructor(
    private readonly db: Database,
    private readonly names: Names,
  ) {}

  /** Signs by environment, the latest where there are very many. */
  async signs(): Promise<Map<string, SignSpan[]>> {
    const { rows } = await this.db.raw<{ rows: SignRow[] }>(
      'select g.*, s.environment from sign g join source s on s.id = g.source_id order by g.first_at desc, g.first_id desc limit ?',
      [MOST_SIGNS],
    );
    const found = new Map<string, SignSpan[]>();
    for (const row of rows) {
      const own = found.get(row.environment) ?? [];
      found.set(row.environment, own);
      own.push({
        kind: row.kind as SignKind,
        subject: row.subject,
        before: row.before,
        after: row.after,
        component: this.names.component(row.component_id),
        host: this.names.host(row.host_id),
        text: row.text,
        first: row.first_at,
        last: row.last_at,
        count: row.count,
        record: `${row.first_at}-${row.first_id}`,
      });
    }
    return found;
  }

  registered(): Promise<RegisteredRow[]> {
    return this.db<RegisteredRow>('registered_change').orderBy('at', 'desc').limit(MOST_REGISTERED);
  }
  async register(row: Omit<RegisteredRow, 'id'>): Promise<RegisteredRow> {
    const rows = await this.db<RegisteredRow>('registered_change').insert(row).returning('*');
    return rows[0]!;
  }
  async forget(id: number): Promise<boolean> {
    return (await this.db('registered_change').where({ id }).delete()) > 0;
  }

  /** What was found out about findings that are alike, the latest first. */
  knownCauses(signatures: readonly string[]): Promise<KnownCauseRow[]> {
    return this.db<KnownCauseRow>('known_cause')
      .whereIn('signature', [...signatures])
      .orderBy('id', 'desc')
      .limit(50);
  }
  async keepCause(row: Omit<KnownCauseRow, 'id' | 'noted_at'>): Promise<KnownCauseRow> {
    const rows = await this.db<KnownCauseRow>('known_cause').insert(row).returning('*');
    return rows[0]!;
  }
  async forgetCause(id: number): Promise<boolean> {
    return (await this.db('known_cause').where({ id }).delete()) > 0;
  }
}
