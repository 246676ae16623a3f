import type { SeriesPoint, StrandSeries } from '@fadenweg/api';
import { isoMicros } from '@fadenweg/core/units';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { SeriesRow, StrandRepository, StrandRow } from '../weaving/strand-rows.ts';

/** Half a day to both sides, in slots of half an hour, in microseconds. */
const HALF = 43_200_000_000;
const SLOT = 1_800_000_000;

/** A strand's times beside those of others. */
export class StrandSeriesService {
  constructor(
    private readonly strands: StrandRepository,
    private readonly identifiers: IdentifierRepository,
  ) {}

  /** Beside those of its first party and of everybody, of the same flow; null where it has no flow. */
  async of(row: StrandRow): Promise<StrandSeries | null> {
    if (row.flow === null) return null;
    const from = Math.floor((row.started_at - HALF) / SLOT) * SLOT;
    const party = row.parties[0] ?? null;
    const [rows, named] = await Promise.all([
      this.strands.series({ flow: row.flow, environment: row.environment }, party, { from, length: SLOT, count: (2 * HALF) / SLOT }),
      this.identifiers.named(party === null ? [] : [party]),
    ]);
    const name = party === null ? undefined : named.get(party);
    return {
      from: isoMicros(from),
      to: isoMicros(from + 2 * HALF),
      own: { at: isoMicros(row.started_at), wholeMs: row.duration / 1000, databaseMs: row.in_database / 1000, transitMs: row.in_transit / 1000 },
      everybody: rows.map((one) => point(from, one.slot, one.all)),
      party: name
        ? { kind: name.label, value: name.value, points: rows.flatMap((one) => (one.party ? [point(from, one.slot, one.party)] : [])) }
        : null,
    };
  }
}

const point = (from: number, slot: number, { strands, whole, slow, database, transit }: SeriesRow['all']): SeriesPoint => ({
  at: isoMicros(from + slot * SLOT),
  strands,
  wholeMs: whole / 1000,
  slowMs: slow / 1000,
  databaseMs: database / 1000,
  transitMs: transit / 1000,
});
