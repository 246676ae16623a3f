import { standsAt, type Lasting } from '@fadenweg/core/path';
import type { Database } from '../database/connect.ts';
import type { LastingRecord } from '@fadenweg/core/records';
import type { SourceRow } from '../evidence/sources.ts';

const MOST_SOURCES = 500;

type Own = Pick<SourceRow, 'id' | 'hints'> & { lasting: LastingRecord[] };
export type BetterEnds = Pick<SourceRow, 'id' | 'hints'>;

/** Finds out, once an import is read, whether records that state a duration stand at its begin or its end: by what other sources say of the same meanwhile. */
export class SourceEnds {
  constructor(private readonly db: Database) {}

  /** Sources of an import's environments for which it shows now. Told once each; what a person said stays. */
  async better(importId: number): Promise<{ again: BetterEnds[]; same: BetterEnds[] }> {
    const own: Own[] = await this.db('source')
      .whereIn('environment', this.db('source').where({ import_id: importId }).distinct('environment'))
      .where({ state: 'done' })
      .whereRaw(`hints->>'standsAt' is null and json_typeof(reader_state->'lasting') = 'array' and json_array_length(reader_state->'lasting') > 0`)
      .orderBy('id', 'desc')
      .limit(MOST_SOURCES)
      .select('id', 'hints', this.db.raw(`reader_state->'lasting' as lasting`));
    const again: BetterEnds[] = [];
    const same: BetterEnds[] = [];
    for (const { id, hints, lasting } of own) {
      const end = standsAt(await this.withOthers(id, lasting));
      if (end !== null) (end === 'begin' ? again : same).push({ id, hints: { ...hints, standsAt: end } });
    }
    return { again, same };
  }

  /** When other sources name what these records name. */
  private async withOthers(id: number, lasting: readonly LastingRecord[]): Promise<Lasting[]> {
    const keys = [...new Set(lasting.flatMap((one) => one.keys))];
    const rows: { key: number; first_at: number; last_at: number }[] = await this.db('sighting')
      .whereRaw('key = any(?)', [keys])
      .whereNot({ source_id: id })
      .limit(20_000)
      .select('key', 'first_at', 'last_at');
    const times = new Map<number, number[]>();
    for (const { key, first_at, last_at } of rows) times.set(key, [...(times.get(key) ?? []), first_at, last_at]);
    return lasting.map(({ keys: own, ...one }) => ({ ...one, others: own.flatMap((key) => times.get(key) ?? []) }));
  }
}
