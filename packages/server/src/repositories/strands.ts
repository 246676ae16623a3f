import type { Database } from '../database/connect.ts';

export interface StrandRow {
  founder: number;
  kind_id: number;
  value: string;
  flow: string | null;
  outcome: string;
  started_at: number;
  ended_at: number;
  duration: number;
  records: number;
  failed_in: string | null;
  headline: string;
  parties: number[];
  environment: string;
  /** Numbers of the components that its records are of. */
  components: number[];
}
export type StrandSort = 'started' | '-started' | 'duration' | '-duration';
export interface StrandFilter {
  flow?: string[];
  outcome?: string[];
  from?: number;
  to?: number;
  founders?: number[];
  parties?: number[];
  environment?: string[];
  /** Numbers of components: it passes through one of them at least. */
  components?: number[];
  /** Bounds of its duration, in microseconds. */
  shortest?: number;
  longest?: number;
}
export interface StrandCursor {
  value: number;
  founder: number;
}

/** Strands as they were judged. Paged by what they are sorted by, and the founder. */
export class StrandRepository {
  constructor(private readonly db: Database) {}

  byFounder(founder: number): Promise<StrandRow | undefined> {
    return this.db<StrandRow>('strand').where({ founder }).first();
  }

  async byFounders(founders: readonly number[]): Promise<StrandRow[]> {
    return founders.length === 0 ? [] : this.db<StrandRow>('strand').whereIn('founder', [...new Set(founders)]);
  }

  list(filter: StrandFilter, sort: StrandSort, after: StrandCursor | null, limit: number): Promise<StrandRow[]> {
    const column = sort.endsWith('duration') ? 'duration' : 'started_at';
    const order = sort.startsWith('-') ? 'desc' : 'asc';
    const query = this.filtered(filter)
      .orderBy([
        { column, order },
        { column: 'founder', order },
      ])
      .limit(limit)
      .select('*');
    if (after) void query.whereRaw(`(${column}, founder) ${order === 'asc' ? '>' : '<'} (?, ?)`, [after.value, after.founder]);
    return query;
  }

  /** Strands that overlap the window, by flow and outcome. */
  async counts(filter: StrandFilter): Promise<{ flow: string | null; outcome: string; count: number }[]> {
    return this.filtered(filter).groupBy('flow', 'outcome').select('flow', 'outcome').count({ count: '*' });
  }

  related(founder: number): Promise<StrandRow[]> {
    return this.db<StrandRow>('strand')
      .whereIn('founder', this.db('relation').where({ founder }).select('other'))
      .orderBy('started_at')
      .limit(200)
      .select('*');
  }

  async total(): Promise<number> {
    const row = await this.db('strand').count({ count: '*' }).first();
    return Number(row?.count ?? 0);
  }

  private filtered({ flow, outcome, from, to, founders, parties, environment, components, shortest, longest }: StrandFilter) {
    const query = this.db<StrandRow>('strand');
    if (flow)
      void query.where((or) =>
        or
          .whereIn(
            'flow',
            flow.filter((name) => name !== 'none'),
          )
          .modify((inner) => {
            if (flow.includes('none')) void inner.orWhereNull('flow');
          }),
      );
    if (environment) void query.whereIn('environment', environment);
    if (outcome) void query.whereIn('outcome', outcome);
    if (from !== undefined) void query.where('ended_at', '>=', from);
    if (to !== undefined) void query.where('started_at', '<', to);
    if (founders) void query.whereIn('founder', founders);
    if (parties) void query.whereRaw('parties && ?::bigint[]', [parties]);
    if (components) void query.whereRaw('components && ?::bigint[]', [components]);
    if (shortest !== undefined) void query.where('duration', '>=', shortest);
    if (longest !== undefined) void query.where('duration', '<=', longest);
    return query;
  }
}
