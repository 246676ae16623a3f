import type pg from 'pg';
import { coarsenessOf, LATER, tellsTheSame, type Beside, type Stretch, type Teller, type Told } from '@fadenweg/core/copies';
import { byTime, COLUMNS, toldOf, type CopyRow, type Names } from './told.ts';

const MINUTE = 60_000_000;
/** Records of all sources that are looked at around some of one, at most: where more stand there, of the beginning. */
const MOST_ROWS = 20_000;
/** Minutes of a source that are looked at: so many at most, until there are enough records. */
const MOST_MINUTES = 12;
const ENOUGH = 120;
const MOST_OF_A_MINUTE = 40;
/** A clock that was put right moves a record out of the minute in which it is written. */
const REACH = 1_000_000 + LATER;

export interface SampledSource {
  id: number;
  path: string;
  family: string;
  component_id: number;
  first_at: number;
  last_at: number;
}
/** What stands around some records of a source, by source, in order of time, and between which moments it is whole. */
interface Around {
  bySource: Map<number, Placed[]>;
  from: number;
  to: number;
}
/** `at` is the corrected time, by which records are stored. */
interface Placed {
  at: number;
  told: Told;
}

/** Samples of sources: what all of them say around the same records. */
export class Sampler {
  private readonly coarse = new Map<number, number>();
  private readonly sources: ReadonlyMap<number, SampledSource>;
  private readonly names = new Map<number, { records: number; named: number; words: number }>();

  constructor(
    private readonly client: pg.Client,
    sources: readonly SampledSource[],
    private readonly namesOf: Names,
  ) {
    this.sources = new Map(sources.map((one) => [one.id, one]));
  }

  /** Which of the others tell all that a source tells, and of which that counts only if it tells all of theirs. */
  async within(source: SampledSource, others: readonly SampledSource[]): Promise<Map<number, 'yes' | 'if-mutual'>> {
    const minutes = await this.minutesOf(source);
    const beside = new Map<number, Beside[]>(others.map((one) => [one.id, []]));
    let looked = 0;
    for (const minute of minutes) {
      if (looked >= ENOUGH) break;
      const { bySource, from, to } = await this.around(source.id, minute);
      const within = (bySource.get(source.id) ?? []).filter(({ at }) => at >= from && at < to);
      const own = within.slice(0, MOST_OF_A_MINUTE);
      looked += own.length;
      for (const [other, list] of beside) {
        const { first_at: first, last_at: last } = this.sources.get(other)!;
        // where the other one does not speak any more, it cannot tell the same
        const spoken = own.filter(({ at }) => at >= first - REACH && at <= last + REACH);
        list.push({ of: this.stretch(source.id, spoken), among: this.stretch(other, bySource.get(other) ?? []) });
      }
    }
    const found = new Map<number, 'yes' | 'if-mutual'>();
    for (const [other, list] of beside) {
      const told = tellsTheSame(list);
      if (told !== 'no') found.set(other, told);
    }
    return found;
  }

  /** How much a source tells, of what was looked at. */
  teller({ id, path }: SampledSource): Teller {
    const { records, named, words } = this.names.get(id) ?? { records: 1, named: 0, words: 0 };
    return { id, path, names: named / records, words: words / records, coarse: this.coarse.get(id) ?? 1 };
  }

  private stretch(id: number, placed: readonly Placed[]): Stretch {
    return { told: placed.map((one) => one.told), coarse: this.coarse.get(id) ?? 1 };
  }
  /** Begins of minutes in which a source speaks, spread over its records. */
  private async minutesOf({ id }: SampledSource): Promise<number[]> {
    const { rows } = await this.client.query<{ minute: number; count: number }>(
      `select minute, sum(count)::int as count from minute_count where source_id = $1 and count > 0 group by minute order by minute limit 200000`,
      [id],
    );
    const all = rows.reduce((sum, row) => sum + row.count, 0);
    const chosen = new Set<number>();
    let before = 0;
    for (const { minute, count } of rows) {
      // the next place of those spread evenly lies in it
      const place = Math.ceil((before * MOST_MINUTES) / all - 0.5) + 0.5;
      if (place * all < (before + count) * MOST_MINUTES) chosen.add(minute);
      before += count;
    }
    return spread([...chosen].sort((a, b) => a - b));
  }
  private async around(source: number, minute: number): Promise<Around> {
    const { rows: own } = await this.client.query<{ at: number }>(
      `select at from record where at >= $1 and at < $2 and source_id = $3 order by at, id limit ${MOST_OF_A_MINUTE}`,
      [minute, minute + MINUTE, source],
    );
    if (own.length === 0) return { bySource: new Map(), from: minute, to: minute };
    const [from, last] = [own[0]!.at, own[own.length - 1]!.at];
    const { rows } = await this.client.query<CopyRow>(
      `select ${COLUMNS} from record where at >= $1 and at <= $2 and source_id = any($3) order by at, id limit ${MOST_ROWS}`,
      [from - REACH, last + REACH, [...this.sources.keys()]],
    );
    const bySource = new Map<number, Placed[]>();
    const all = rows.map((row) => ({ row, told: toldOf(row, this.namesOf, this.sources.get(row.source_id)!.component_id) })).sort(byTime);
    for (const { row, told } of all) {
      const own = bySource.get(row.source_id) ?? [];
      own.push({ at: row.at, told });
      bySource.set(row.source_id, own);
      this.count(row, told);
    }
    for (const [id, list] of bySource) this.coarse.set(id, Math.min(this.coarse.get(id) ?? Infinity, coarsenessOf(list.map((one) => one.told.at))));
    return { bySource, from, to: rows.length < MOST_ROWS ? last + 1 : rows[rows.length - 1]!.at - REACH };
  }
  private count({ source_id: id, keys }: CopyRow, { words }: Told): void {
    const counts = this.names.get(id) ?? { records: 0, named: 0, words: 0 };
    this.names.set(id, { records: counts.records + 1, named: counts.named + (keys?.length ?? 0), words: counts.words + words.length });
  }
}

/** The middle first, then ever finer between: whoever stops early has seen places that lie apart. */
function spread(all: readonly number[]): number[] {
  const found: number[] = [];
  const queue: [number, number][] = [[0, all.length]];
  for (let next = queue.shift(); next; next = queue.shift()) {
    const [from, to] = next;
    if (from >= to) continue;
    const middle = (from + to) >> 1;
    found.push(all[middle]!);
    queue.push([from, middle], [middle + 1, to]);
  }
  return found;
}
