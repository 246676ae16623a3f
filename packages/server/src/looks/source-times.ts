import {
  FEWEST_PAIRS,
  pairsOf,
  readInOrder,
  zoneClock,
  zoneOf,
  zoneOfDate,
  zonesAmong,
  type DateOrder,
  type FirstMention,
  type ReadingHints,
} from '@fadenweg/core/reading';
import type { Database } from '../database/connect.ts';
import type { SourceRow } from '../evidence/sources.ts';

const DAY = 86_400_000_000;
/** Sources that end further apart are of different years. */
const APART = 0.6 * 365 * DAY;
const ORDERS: readonly DateOrder[] = ['day-first', 'month-first', 'year-first'];
/** So many mentions are compared at most, about. */
const ENOUGH = 100_000;
const MOST_SOURCES = 500;

type Own = Pick<SourceRow, 'id' | 'import_id' | 'zone' | 'zone_by' | 'hints' | 'first_at' | 'last_at' | 'environment' | 'host_id'>;
export interface BetterTimes {
  id: number;
  zone?: string;
  hints?: ReadingHints;
}

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
  private given(environments: readonly string[] | null, first = 0): Promise<Own[]> {
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
    return query;
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
    // what came with it is nearer to it than what else there is
    const endFor = (source: Own): number | undefined => {
      const beside = rows.find((row) => row.import_id === source.import_id && row.environment === source.environment);
      const all = rows.filter((row) => row.environment === source.environment).map((row) => row.end);
      return beside?.end ?? (all.length > 0 ? Math.max(...all) : undefined);
    };
    // once: where it still ends in another year then, it does so by what it says itself
    const isNew = ({ hints: { yearBy } }: Own, end: number): boolean => yearBy === undefined || Math.abs(yearBy - end) > APART;
    return lacking.flatMap((source) => {
      const end = endFor(source);
      if (end === undefined || !isNew(source, end) || Math.abs(source.last_at! - end) <= APART) return [];
      return [{ id: source.id, hints: { ...source.hints, modified: end + DAY, yearBy: end } }];
    });
  }

  /** Dates that may be read in two orders are read in the one in which they fall together with what came with them, or else with what is there. Asked once. */
  private async orders(own: readonly Own[]): Promise<BetterTimes[]> {
    const open = own.filter((source) => source.hints.orderBy === 'guessed');
    if (open.length === 0) return [];
    const sure: Pick<Own, 'import_id' | 'environment' | 'first_at' | 'last_at'>[] = await this.db('source')
      .whereIn('environment', [...new Set(open.map((source) => source.environment))])
      .where({ state: 'done' })
      .whereRaw(`coalesce(hints->>'orderBy', '') <> 'guessed' and understood > 0`)
      .orderBy('id', 'desc')
      .limit(MOST_SOURCES)
      .select('import_id', 'environment', 'first_at', 'last_at');
    return open.flatMap((source) => {
      const all = sure.filter((one) => one.environment === source.environment);
      const beside = all.filter((one) => one.import_id === source.import_id);
      const others = beside.length > 0 ? beside : all;
      const read = source.hints.dateOrder ?? 'day-first';
      const overlaps = (order: DateOrder): boolean => {
        const [from, to] = [source.first_at!, source.last_at!].map((at) => readInOrder(at, read, order)).sort((a, b) => a - b);
        return others.some((one) => from! <= one.last_at! + DAY && to! >= one.first_at! - DAY);
      };
      if (others.length === 0 || overlaps(read)) return [];
      const better = ORDERS.filter((order) => order !== read && overlaps(order));
      return better.length === 1 ? [{ id: source.id, hints: { ...source.hints, dateOrder: better[0]!, orderBy: 'neighbours' as const } }] : [];
    });
  }

  /**
   * A zone that a source does not state is one in which its identifiers fall together with those of sources that state theirs; else that in which it ends with its file; else,
   * where others without a zone name the same at other hours, one that is named, if that explains it in one way alone.
   */
  private async zones(own: readonly Own[]): Promise<BetterTimes[]> {
    const lacking = own.filter((source) => source.hints.lacksZone);
    const found: BetterTimes[] = [];
    for (const environment of new Set(lacking.map((source) => source.environment)))
      found.push(...(await this.zonesOf(lacking.filter((source) => source.environment === environment))));
    return found;
  }
  private async zonesOf(lacking: readonly Own[]): Promise<BetterTimes[]> {
    const asked = new Map(lacking.map((source) => [source.id, source]));
    const mentions = await this.mentions(lacking);
    const likely = await this.likely(lacking);
    const found = new Map<number, string>();
    const open: Own[] = [];
    const sure = pairsOf(mentions, (source) => asked.has(source));
    for (const source of lacking) {
      const pairs = sure.get(source.id) ?? [];
      const zone = zoneOf(pairs, source.zone, likely(source));
      // what was guessed gives way to what more pairs say, and to nothing else: without new evidence it stays
      const byDate = zone === null && pairs.length < FEWEST_PAIRS && source.zone_by === 'given';
      const dated = byDate ? zoneOfDate(local(source.last_at!, source.zone), source.hints.modified, source.zone, likely(source)) : null;
      if (zone ?? dated) found.set(source.id, (zone ?? dated)!);
      else if (byDate) open.push(source);
    }
    const zones = new Map(lacking.map(({ id, zone }) => [id, found.get(id) ?? zone]));
    const left = open.map((source) => ({ id: source.id, zone: source.zone, likely: likely(source) }));
    for (const [id, zone] of zonesAmong(left, mentions, zones)) found.set(id, zone);
    return [...found].map(([id, zone]) => ({ id, zone }));
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
    return rows.map(({ key, source, at }) => ({ key, source, at: zones.has(source) ? local(at, zones.get(source)!) : at }));
  }

  /** Zones that a source may be in: those that are named on its machine, then in its environment, then those in which others are read. */
  private async likely(lacking: readonly Own[]): Promise<(source: Own) => string[]> {
    const rows: { host_id: number; zone: string; zone_by: string; hints: ReadingHints }[] = await this.db('source')
      .where({ environment: lacking[0]!.environment, state: 'done' })
      .orderBy('id', 'desc')
      .limit(MOST_SOURCES)
      .select('host_id', 'zone', 'zone_by', 'hints');
    const named = ({ hints, zone, zone_by }: (typeof rows)[number]): string[] => [
      ...(hints.regions ?? []),
      ...(zone !== 'UTC' && (zone_by === 'set' || hints.lacksZone) && !zone.startsWith('Etc/') ? [zone] : []),
    ];
    const own = new Intl.DateTimeFormat().resolvedOptions().timeZone;
    return (source) => {
      const machine = rows.filter(({ host_id }) => host_id === source.host_id);
      return [...new Set([...machine.flatMap(named), ...rows.flatMap(named), 'UTC', own])];
    };
  }
}
/** The wall clock as it is written. */
const local = (at: number, zone: string): number => at + zoneClock(zone).offsetAt(Math.floor(at / 1000)) * 1000;
