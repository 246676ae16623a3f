import type { Departure, Noted, NotedBody } from '@fadenweg/api';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';

export interface NotedRow {
  key: string;
  state: 'in-hand' | 'tolerated';
  note: string;
  until_at: Microseconds | null;
  strands: number;
  share: number;
  changed_by: string;
  changed_at: Date;
}
/** So many times as frequent as it was when it was noted is worse. */
const WORSE = 2;

/** What people say of departures: in hand, or tolerated. */
export class NotedRepository {
  constructor(private readonly db: Database) {}

  async of(keys: readonly string[]): Promise<Map<string, NotedRow>> {
    if (keys.length === 0) return new Map();
    const rows = await this.db<NotedRow>('noted_departure').whereIn('key', [...keys]);
    return new Map(rows.map((row) => [row.key, row]));
  }

  /** @param until in microseconds */
  async note({ key, state, note = '', count, of, expected }: NotedBody, until: Microseconds | null, who: string): Promise<void> {
    if (state === null) {
      await this.db('noted_departure').where({ key }).delete();
      return;
    }
    const row = {
      state,
      note,
      until_at: until,
      strands: count,
      share: shareOf({ count, of, expected }),
      changed_by: who,
      changed_at: this.db.fn.now(),
    };
    await this.db('noted_departure').insert({ key, ...row }).onConflict('key').merge(row); // prettier-ignore
  }
}

/** Of how many it is, where a share is told; else how many times as many as usual. */
export const shareOf = ({ count, of, expected }: Pick<Departure, 'count' | 'of' | 'expected'>): number => count / Math.max(1, of ?? expected ?? 1);

/** @param now what a tolerance that ends is compared with */
export function notedOf(row: NotedRow | undefined, { count, share }: { count: number; share: number }, now: Microseconds): Noted | null {
  if (!row || (row.until_at !== null && row.until_at <= now)) return null;
  return {
    state: row.state,
    note: row.note,
    until: row.until_at === null ? null : isoMicros(row.until_at),
    by: row.changed_by,
    at: row.changed_at.toISOString(),
    worse: count > row.strands && share >= WORSE * row.share,
  };
}
