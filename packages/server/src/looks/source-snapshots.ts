import type { Database } from '../database/connect.ts';
import type { SourceRow } from '../evidence/sources.ts';

const MOST_SOURCES = 500;

export type BetterSnapshots = Pick<SourceRow, 'id' | 'hints'>;

/** Tables whose rows are states that were seen at an instant: they are read again, as no events of what they name. Told once each; what a person said stays. */
export class SourceSnapshots {
  constructor(private readonly db: Database) {}

  async better(importId: number): Promise<BetterSnapshots[]> {
    const own: BetterSnapshots[] = await this.db('source')
      .where({ read_for: importId, state: 'done' })
      .whereRaw(`reader_state->>'snapshots' = 'true' and hints->>'snapshots' is null`)
      .orderBy('id')
      .limit(MOST_SOURCES)
      .select('id', 'hints');
    return own.map(({ id, hints }) => ({ id, hints: { ...hints, snapshots: true } }));
  }
}
