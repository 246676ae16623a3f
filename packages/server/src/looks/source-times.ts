import {
  likelyZones,
  ordersAmong,
  wallClock,
  yearsAmong,
  zonesFor,
  type BetterTimes,
  type FirstMention,
  type ReadingHints,
  type TimedSource,
} from '@fadenweg/core/reading';
import type { Database } from '../database/connect.ts';
import type { SourceRow } from '../evidence/sources.ts';

/** So many mentions are compared at most, about. */
const ENOUGH = 100_000;
const MOST_SOURCES = 500;

type Row = Pick<SourceRow, 'id' | 'import_id' | 'zone' | 'zone_by' | 'hints' | 'first_at' | 'last_at' | 'environment' | 'host_id'>;
type Own = TimedSource & { host: number };
const timed = (row: Row): Own => ({
  id: row.id,
  importId: row.import_id,
  environment: row.environment,
  zone: row.zone,
  zoneBy: row.zone_by,
  hints: row.hints,
  first: row.first_at!,
  last: row.last_at!,
  host: row.host_id,
});

/** Finds out, once an import is read, whose times were not read rightly: by the identifiers that sources have in common, and by their neighbours. */
export class SourceTimes {
  constructor(private readonly db: Database) {}

  /**
   * Sources whose zone or year has to be another one, of the environments that an import belongs to: what it brought may tell of what was there before. Those that a
   * person has set stay.
   */
  async better(importId: number): Promise<BetterTimes[]> {
    const environments: string[] = await this.db('source').where({ import_id: importId }).distinct('environment').pluck('environment');
    const own = await this.given(environments, importId);
    const days = [...(await this.years(own)), ...(await this.orders(own))];
    // a zone is looked for where the day is right
    const zones = await this.zones(own.filter((source) => !days.some((one) => one.id === source.id)));
    return [...days, ...zones];
  }

  /** The same of all sources, for zones alone: identifiers that were declared later tell more. */
  async betterZones(): Promise<BetterTimes[]> {
    return this.zones(await this.given(null));
  }
  /** @param environments null for all; @param first those of this import come first, where there are very many */
  private async given(environments: readonly string[] | null, first = 0): Promise<Own[]> {
    const query = this.db('source')
      .where({ state: 'done' })
      .whereIn('zone_by', ['given', 'guessed'])
      .whereRaw(
        `(coalesce((hints->>'lacksZone')::boolean, false) or coalesce((hints->>'lacksYear')::boolean, false) or hints->>'orderBy' = 'guessed')`,
      )
      .whereNotNull('first_at')
      .orderByRaw('import_id = ? desc, records desc', [first])
      .limit(MOST_SOURCES)
      .select('id', 'import_id', 'zone', 'zone_by', 'hints', 'first_at', 'last_at', 'environment', 'host_id');
    if (environments) void query.whereIn('environment', [...environments]);
    return ((await query) as Row[]).map(timed);
  }

  /** A year that a source does not state is that of its neighbours, where the file's date led elsewhere. */
  private async years(own: readonly Own[]): Promise<BetterTimes[]> {
    const lacking = own.filter((source) => source.hints.lacksYear);
    if (lacking.length === 0) return [];
    const rows = (await this.db('source')
      .whereIn('environment', [...new Set(lacking.map((source) => source.environment))])
      .where({ state: 'done' })
      .whereRaw(`not coalesce((hints->>'lacksYear')::boolean, false) and understood > 0`)
      .groupBy('environment', 'import_id')
      .select('environment', 'import_id')
      .max({ end: 'last_at' })) as { environment: string; import_id: number; end: number }[];
    return yearsAmong(
      lacking,
      rows.map(({ environment, import_id: importId, end }) => ({ environment, importId, end })),
    );
  }

  /** Dates that may be read in two orders are read in the one in which they fall together with what came with them, or else with what is there. Asked once. */
  private async orders(own: readonly Own[]): Promise<BetterTimes[]> {
    const open = own.filter((source) => source.hints.orderBy === 'guessed');
    if (open.length === 0) return [];
    const sure: Row[] = await this.db('source')
      .whereIn('environment', [...new Set(open.map((source) => source.environment))])
      .where({ state: 'done' })
      .whereRaw(`coalesce(hints->>'orderBy', '') <> 'guessed' and understood > 0`)
      .orderBy('id', 'desc')
      .limit(MOST_SOURCES)
      .select('import_id', 'environment', 'first_at', 'last_at');
    return ordersAmong(open, sure.map(timed));
  }

  /** Zones that sources do not state, environment by environment. */
  private async zones(own: readonly Own[]): Promise<BetterTimes[]> {
    const lacking = own.filter((source) => source.hints.lacksZone);
    const found: BetterTimes[] = [];
    for (const environment of new Set(lacking.map((source) => source.environment)))
      found.push(...(await this.zonesOf(lacking.filter((source) => source.environment === environment))));
    return found;
  }
  private async zonesOf(lacking: readonly Own[]): Promise<BetterTimes[]> {
    const [mentions, likely] = [await this.mentions(lacking), await this.likely(lacking)];
    return zonesFor(lacking, mentions, (source) => likely((source as Own).host));
  }

  /** What sources name first, in order of the key; those whose zone is in question by their wall clock. */
  private async mentions(lacking: readonly Own[]): Promise<FirstMention[]> {
    const sure: number[] = await this.db('source')
      .where({ state: 'done' })
      .whereRaw(`(not coalesce((hints->>'lacksZone')::boolean, false) or zone_by = 'set')`)
      .where({ environment: lacking[0]!.environment })
      .orderBy('id', 'desc')
      .limit(MOST_SOURCES)
      .pluck('id');
    const zones = new Map(lacking.map((source) => [source.id, source.zone]));
    const ids = [...new Set([...sure, ...zones.keys()])];
    // what stands in other environments does not thin out what is compared here
    const counted = await this.db('sighting').whereRaw('source_id = any(?)', [ids]).count({ count: '*' }).first();
    const every = Math.max(1, Math.ceil(Number(counted?.count ?? 0) / ENOUGH));
    // of each source its first mention: one that is read in many batches names the same again hours later
    const { rows } = await this.db.raw<{ rows: FirstMention[] }>(
      `select s.key, s.source_id as source, min(s.first_at)::bigint as at from sighting s
         join identifier_kind k on k.id = s.kind_id and k.definition->>'role' <> 'shared' and k.definition->>'leaseMs' is null
        where s.source_id = any(?) and mod(s.key, ?) = 0 group by 1, 2 order by 1`,
      [ids, every],
    );
    return rows.map(({ key, source, at }) => ({ key, source, at: zones.has(source) ? wallClock(at, zones.get(source)!) : at }));
  }

  /** Zones that a source of a host may be in. */
  private async likely(lacking: readonly Own[]): Promise<(host: number) => string[]> {
    const rows: { host_id: number; zone: string; zone_by: SourceRow['zone_by']; hints: ReadingHints }[] = await this.db('source')
      .where({ environment: lacking[0]!.environment, state: 'done' })
      .orderBy('id', 'desc')
      .limit(MOST_SOURCES)
      .select('host_id', 'zone', 'zone_by', 'hints');
    const beside = rows.map(({ host_id: host, zone_by: zoneBy, ...rest }) => ({ host, zoneBy, ...rest }));
    const own = new Intl.DateTimeFormat().resolvedOptions().timeZone;
    return (host) => likelyZones(host, beside, own);
  }
}
