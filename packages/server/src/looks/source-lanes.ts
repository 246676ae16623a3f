import type { Database } from '../database/connect.ts';
import type { SourceRow } from '../evidence/sources.ts';

const MOST_SOURCES = 500;

export type BetterLanes = Pick<SourceRow, 'id' | 'hints'>;

/** Sources in which a field parts the work on several transactions as a thread would: they are read again by it. Told once each. */
export class SourceLanes {
  constructor(private readonly db: Database) {}

  /** @param importId null for all */
  async better(importId: number | null): Promise<BetterLanes[]> {
    const own: (BetterLanes & { lane: string })[] = await this.db('source')
      .where({ state: 'done', ...(importId === null ? {} : { read_for: importId }) })
      .whereRaw(`coalesce(reader_state->>'laneBy', '') <> '' and hints->>'laneBy' is null`)
      .orderBy('id')
      .limit(MOST_SOURCES)
      .select('id', 'hints', this.db.raw(`reader_state->>'laneBy' as lane`));
    return own.map(({ id, hints, lane }) => ({ id, hints: { ...hints, laneBy: lane } }));
  }
}
