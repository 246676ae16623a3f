import type { Microseconds } from '../units.ts';
import { keyOf } from './continuing.ts';
import { beginOf } from './leg-kinds.ts';
import { LocalSlots } from './regularly.ts';
import type { FlowUsual, AtTimes, Saying, UsualSaying } from './types.ts';

/** One trait of what a component says in one shape. */
export const traitKey = (component: string, shape: number, name: string): string => `${component}\u0000${shape}\u0000${name}`;

/** The traits of a record without those that vary too much. */
export function plainTraits({ component, shape, traits }: Saying, varied: ReadonlySet<string>): string {
  if (traits === '' || varied.size === 0) return traits;
  const parts = traits.split(' ');
  const kept = parts.filter((part) => !varied.has(traitKey(component, shape, part.slice(0, part.indexOf('=')))));
  return kept.length === parts.length ? traits : kept.join(' ');
}

/** What is usual, with its sayings found by what they are. */
export class Usual {
  /** Places of the sayings of each shape: they are few. */
  private readonly places = new Map<number, number[]>();
  private readonly varied: ReadonlySet<string>;
  private readonly slots: LocalSlots;
  private readonly before: Usual | null;
  private readonly kinds: ReadonlyMap<string, { legs: number; usual: Usual }>;
  private last: { records: readonly Saying[]; places: readonly number[] } | null = null;

  constructor(readonly of: FlowUsual) {
    this.slots = new LocalSlots(of.zone);
    this.before = of.before && new Usual(of.before);
    this.kinds = new Map((of.kinds ?? []).map((one) => [keyOf(one), { legs: one.legs, usual: new Usual(one.usual) }]));
    this.varied = new Set(of.varied);
    of.sayings.forEach((saying, place) => {
      const own = this.places.get(saying.shape);
      if (own) own.push(place);
      else this.places.set(saying.shape, [place]);
    });
  }

  /** What was usual when a leg began. */
  holding(begin: Microseconds): Usual {
    return this.before && begin < this.of.changed[0]!.at ? this.before.holding(begin) : this;
  }
  /** What is usual for legs that begin as this one does, where that is known. */
  ofKind(records: readonly Saying[]): Usual | undefined {
    if (this.kinds.size === 0) return undefined;
    const by = beginOf(records, (key) => this.kinds.get(key)?.legs);
    return by && this.kinds.get(keyOf(by))!.usual;
  }
  /** What holds at a moment: where something is regularly otherwise at some hours or weekdays, what it is then. */
  at<T extends { times?: (T & AtTimes)[] }>(usual: T, at: Microseconds): T {
    return usual.times?.find(({ span }) => this.slots.isIn(span, at)) ?? usual;
  }
  /** Place of the saying that a record is one of, -1 where none such was learned. */
  placeOf(record: Saying): number {
    const own = this.places.get(record.shape);
    if (!own) return -1;
    const traits = plainTraits(record, this.varied);
    return own.find((place) => this.isOf(place, record) && this.of.sayings[place]!.traits === traits) ?? -1;
  }
  /** Those of all records of a leg. The last leg's are kept: several look at each of them. */
  placesOf<R extends Saying>(records: readonly R[]): readonly number[] {
    if (this.last?.records !== records) this.last = { records, places: records.map((record) => this.placeOf(record)) };
    return this.last.places;
  }
  sayingOf(record: Saying): UsualSaying | undefined {
    return this.of.sayings[this.placeOf(record)];
  }
  /** Sayings of the same component and shape, whatever their traits. */
  alike(record: Saying): UsualSaying[] {
    return (this.places.get(record.shape) ?? []).filter((place) => this.isOf(place, record)).map((place) => this.of.sayings[place]!);
  }
  private isOf(place: number, { component }: Saying): boolean {
    return this.of.sayings[place]!.component === component;
  }
}
