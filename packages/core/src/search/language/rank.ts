import { textsOf, type Searchable } from './evaluate.ts';
import { numberOf } from './values.ts';

/** What a record is put in order by: numbers before texts. */
export type Rank = number | string;
/** Letters of a text that count for its place. */
const LONGEST = 300;

/** What puts a record in its place by a field: the level's place, the weight, microseconds of `took` and `time`; null where it has none. */
export function rankOf(record: Searchable, field: string): Rank | null {
  if (field === 'level') return record.level === 0 ? null : record.level;
  if (field === 'weight') return record.weight;
  if (field === 'took') return Number.isNaN(record.took) ? null : record.took;
  if (field === 'time') return record.at;
  const text = textsOf(record, field)[0];
  return text === undefined ? null : rankOfText(text);
}
/** A text that reads as a number counts as one. */
export function rankOfText(text: string): Rank {
  const number = numberOf(text);
  return Number.isNaN(number) ? text.slice(0, LONGEST) : number;
}
/** Below 0 where the first comes before the second, from the least to the most. */
export function compareRanks(one: Rank, two: Rank): number {
  if (typeof one === 'number' && typeof two === 'number') return one - two;
  if (typeof one !== typeof two) return typeof one === 'number' ? -1 : 1;
  return one < two ? -1 : one > two ? 1 : 0;
}

/** Keeps the foremost of many, in order; what is equal stays in the order in which it came. */
export class Foremost<T> {
  private kept: { rank: Rank; item: T }[] = [];
  private sorted = true;
  /** @param down from the most to the least */
  constructor(
    private readonly most: number,
    private readonly down: boolean,
  ) {}

  add(rank: Rank, item: T): void {
    this.kept.push({ rank, item });
    this.sorted = false;
    if (this.kept.length >= 4 * this.most + 64) this.settle();
  }
  /** The foremost from first to last. */
  items(): readonly { rank: Rank; item: T }[] {
    this.settle();
    return this.kept;
  }
  private settle(): void {
    if (this.sorted) return;
    const sign = this.down ? -1 : 1;
    this.kept.sort((one, two) => sign * compareRanks(one.rank, two.rank));
    this.kept.length = Math.min(this.kept.length, this.most);
    this.sorted = true;
  }
}
