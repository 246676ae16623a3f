import type { Microseconds } from '../units.ts';
import { coarsenessOf } from './coarseness.ts';
import type { Teller } from './copies-among.ts';
import { LATER } from './pair-up.ts';
import { tellsTheSame, type Beside } from './same-events.ts';
import type { Stretch, Told } from './types.ts';

const MINUTE = 60_000_000;
/** Records of all sources that are looked at around some of one, at most: where more stand there, of the beginning. */
const MOST_ROWS = 20_000;
/** Minutes of a source that are looked at: so many at most, until there are enough records. */
const MOST_MINUTES = 12;
const ENOUGH = 120;
const MOST_OF_A_MINUTE = 40;
/** A clock that was put right moves a record out of the minute in which it is written. */
const REACH = 1_000_000 + LATER;

/** A source that is compared with others. */
export interface ComparedSource {
  id: number;
  path: string;
  /** What the parts of one rotated log have in common. */
  family: string;
  /** Corrected times of its first and last record. */
  first: Microseconds;
  last: Microseconds;
  /** More was read of it since it was compared. */
  grown: boolean;
}
/** A record as it is compared. */
export interface ComparedRecord {
  source: number;
  /** Corrected time, by which records are kept. */
  at: Microseconds;
  /** How many identifiers it names. */
  names: number;
  told: Told;
}
/** Where records are looked up. */
export interface ComparedEvidence {
  /** Minutes in which a source speaks, in order, with how much. */
  minutes(source: number): Promise<{ minute: Microseconds; count: number }[]>;
  /** Corrected times of a source's records from a moment on and before another one, in order, at most so many. */
  timesOf(source: number, from: Microseconds, before: Microseconds, most: number): Promise<Microseconds[]>;
  /** Records of all sources that are compared, from one moment to another one, in order of corrected time, at most so many. */
  records(from: Microseconds, to: Microseconds, most: number): Promise<ComparedRecord[]>;
}

/** What stands around some records of a source, by source, in order of time, and between which moments it is whole. */
interface Around {
  bySource: Map<number, ComparedRecord[]>;
  from: number;
  to: number;
}

/** Samples of sources: what all of them say around the same records. */
export class Sampler {
  private readonly coarse = new Map<number, number>();
  private readonly sources: ReadonlyMap<number, ComparedSource>;
  private readonly sums = new Map<number, { records: number; names: number; words: number }>();

  constructor(
    private readonly evidence: ComparedEvidence,
    sources: readonly ComparedSource[],
  ) {
    this.sources = new Map(sources.map((one) => [one.id, one]));
  }

  /** Which of the others tell all that a source tells, and of which that counts only if it tells all of theirs. */
  async within(source: ComparedSource, others: readonly ComparedSource[]): Promise<Map<number, 'yes' | 'if-mutual'>> {
    const beside = new Map<number, Beside[]>(others.map((one) => [one.id, []]));
    let looked = 0;
    for (const minute of await this.minutesOf(source)) {
      if (looked >= ENOUGH) break;
      const { bySource, from, to } = await this.around(source.id, minute);
      const within = (bySource.get(source.id) ?? []).filter(({ at }) => at >= from && at < to);
      const own = within.slice(0, MOST_OF_A_MINUTE);
      looked += own.length;
      for (const [other, list] of beside) {
        const { first, last } = this.sources.get(other)!;
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
  teller({ id, path }: ComparedSource): Teller {
    const { records, names, words } = this.sums.get(id) ?? { records: 1, names: 0, words: 0 };
    return { id, path, names: names / records, words: words / records, coarse: this.coarse.get(id) ?? 1 };
  }

  private stretch(id: number, records: readonly ComparedRecord[]): Stretch {
    return { told: records.map((one) => one.told), coarse: this.coarse.get(id) ?? 1 };
  }
  /** Begins of minutes in which a source speaks, spread over its records. */
  private async minutesOf({ id }: ComparedSource): Promise<number[]> {
    const minutes = await this.evidence.minutes(id);
    const all = minutes.reduce((sum, row) => sum + row.count, 0);
    const chosen = new Set<number>();
    let before = 0;
    for (const { minute, count } of minutes) {
      // the next place of those spread evenly lies in it
      const place = Math.ceil((before * MOST_MINUTES) / all - 0.5) + 0.5;
      if (place * all < (before + count) * MOST_MINUTES) chosen.add(minute);
      before += count;
    }
    return spread([...chosen].sort((a, b) => a - b));
  }
  private async around(source: number, minute: number): Promise<Around> {
    const own = await this.evidence.timesOf(source, minute, minute + MINUTE, MOST_OF_A_MINUTE);
    if (own.length === 0) return { bySource: new Map(), from: minute, to: minute };
    const [from, last] = [own[0]!, own[own.length - 1]!];
    const records = await this.evidence.records(from - REACH, last + REACH, MOST_ROWS);
    const to = records.length < MOST_ROWS ? last + 1 : records[records.length - 1]!.at - REACH;
    const bySource = new Map<number, ComparedRecord[]>();
    for (const one of records.sort((a, b) => a.told.at - b.told.at)) {
      const known = bySource.get(one.source);
      if (known) known.push(one);
      else bySource.set(one.source, [one]);
      this.count(one);
    }
    for (const [id, list] of bySource) this.coarse.set(id, Math.min(this.coarse.get(id) ?? Infinity, coarsenessOf(list.map((one) => one.told.at))));
    return { bySource, from, to };
  }
  private count({ source, names, told }: ComparedRecord): void {
    const sums = this.sums.get(source) ?? { records: 0, names: 0, words: 0 };
    this.sums.set(source, { records: sums.records + 1, names: sums.names + names, words: sums.words + told.words.length });
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
