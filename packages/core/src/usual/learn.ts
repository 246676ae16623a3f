import { unreachedBy } from '../calls/amiss.ts';
import { callOf } from '../calls/of-records.ts';
import type { StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';

import { shapeText } from '../shapes/shape.ts';
import { isResult } from '../shapes/traits.ts';
import { withoutFields } from '../shapes/without-fields.ts';
import { amiss } from './amiss.ts';
import { departures } from './depart.ts';
import { plainTraits, traitKey, Usual } from './index-of.ts';
import { countsOf } from './numbers.ts';
import { SURELY } from './habits.ts';
import { FEWEST_LEGS, followingOn, NEARLY_ALWAYS } from './following-on.ts';
import { handedAgain, hands } from './handing.ts';
import { proportions } from './proportions.ts';
import { fences, lieOf } from './robust.ts';
import { goodOnes, silentOnes, type Lesson } from './good-ones.ts';
import { silenceOf } from './patience.ts';
import { continuations } from './continuing.ts';
import { groupedByBegin } from './leg-kinds.ts';
import { LocalSlots, type Case } from './regularly.ts';
import { changedForGood } from './changing.ts';
import { apart, byTimes } from './at-times.ts';
import { farOnes } from './far-ones.ts';
import type { FlowUsual, LegKind, UsualSaying, Volume } from './types.ts';

/** More different sayings of all legs are left aside. */
const MOST_DIFFERENT = 3000;
/** Values of one trait: with more of them they tell nothing. */
const MOST_VALUES = 25;
/** The same of what tells where: with more queues each is one of many alike. */
const MOST_PLACES = 6;
/** Cases of a number from which on it is known how it lies. */
const FEWEST_NUMBERS = 10;
const FREQUENT_BEGIN = 0.05;
const MOST_VARIANTS = 12;
/** Numbers of which nearly all differ and that are as long as this are no volumes: they name something. */
const NAMES_FROM = 100_000;
const MOST_TEXT = 160;

/**
 * What is usual for a flow. Legs that depart from what the good ones say are left out, and it is learned once more, so that
 * faults among them that nobody noticed do not count as normal. Where the flow changed for good, what was usual before is learned apart.
 *
 * @param all legs, their records in order of time
 * @param zone IANA zone in which hours and weekdays are told
 * @returns null where there are too few good ones to say
 */
export function learnUsual(flow: string, all: readonly Lesson[], zone = 'UTC'): FlowUsual | null {
  const usual = learnLegs(flow, all, zone);
  const kinds = legKinds(flow, all, zone);
  return usual && (kinds.length > 0 ? { ...usual, kinds } : usual);
}

/** Legs of one kind, whatever their strands are. */
function learnLegs(flow: string, all: readonly Lesson[], zone: string): FlowUsual | null {
  const lessons = silentOnes(all);
  const good = goodOnes(lessons);
  if (good.length < FEWEST_LEGS) return null;
  const known = new Set(good);
  const bad = lessons.filter((lesson) => !known.has(lesson) && lesson.outcome !== 'running');
  const first = learnFrom(flow, good, bad, zone);
  const changed = changedForGood(good.map(({ records }) => records), new Usual(first), new LocalSlots(zone)); // prettier-ignore
  const at = changed[0]?.at;
  if (at === undefined) return withoutOdd(first, good, bad);
  const era = (isIn: (at: Microseconds) => boolean): FlowUsual => {
    const [own, others] = [good, bad].map((some) => some.filter(({ records }) => isIn(records[0]!.at))) as [Lesson[], Lesson[]];
    return withoutOdd(learnFrom(flow, own, others, zone), own, others);
  };
  return { ...era((begin) => begin >= at), changed, before: era((begin) => begin < at) };
}

/** What is usual for legs that begin alike: a later leg has a way of its own, and so may each of several that one kind of number names. Nothing where all strands are one leg that begins alike. */
function legKinds(flow: string, all: readonly Lesson[], zone: string): LegKind[] {
  const lessons = all.flatMap((lesson) => [lesson, ...(lesson.others ?? []).map((other) => laterLesson(other, lesson))]); // prettier-ignore
  const firstOnes = new Set(all);
  const groups = groupedByBegin(
    lessons.map(({ records }) => records),
    FEWEST_LEGS,
  );
  return groups.flatMap(({ by: { component, shape }, count, legs }): LegKind[] => {
    const own = legs.map((i) => lessons[i]!);
    // what nearly all first ones are is told by the flow itself
    if (own.filter((one) => firstOnes.has(one)).length >= all.length * NEARLY_ALWAYS) return [];
    const usual = learnLegs(flow, own, zone);
    return usual ? [{ component, shape, legs: count, usual }] : [];
  });
}

/** A later leg as a lesson: that it went well is not told by anything but its silence. */
const laterLesson = ({ records, outcome }: Pick<Lesson, 'records' | 'outcome'>, { until, patient }: Lesson): Lesson => ({
  records,
  outcome: outcome === 'done' ? 'stalled' : outcome,
  until,
  patient,
});

/** Learned once more without those that depart from what was learned of all. */
function withoutOdd(first: FlowUsual, good: readonly Lesson[], bad: readonly Lesson[]): FlowUsual {
  const usual = new Usual(first);
  const far = farOnes(good, usual);
  const near = good.filter((lesson) => !far.has(lesson));
  const plain = near.filter(({ records }) => departures(records, usual).length === 0 && amiss(records, usual, SURELY).length === 0);
  // where many depart, that is how it is
  const least = Math.max(FEWEST_LEGS, good.length * 0.75);
  const kept = [plain, near].find((own) => own.length >= least);
  return !kept || kept.length === good.length ? first : learnFrom(first.flow, kept, bad, first.zone);
}

function learnFrom(flow: string, good: readonly Lesson[], bad: readonly Lesson[], zone: string): FlowUsual {
  const slots = new LocalSlots(zone);
  const sayings = new Sayings([...good, ...bad]);
  const legs = good.map(({ records }) => sayings.read(records));
  const badLegs = bad.map(({ records }) => sayings.read(records));
  const count = sayings.all.length;
  const withSaying = new Float64Array(count);
  const most = new Float64Array(count);
  const ends = new Float64Array(count);
  const positions = new Float64Array(count);
  const [twice, repeated, lasts, handing, taken] = Array.from({ length: 5 }, () => new Float64Array(count)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const takers = new Map<number, number>();
  const components = new Map<string, number>();
  const volumes = new Map<string, Case[]>();
  legs.forEach((places, i) => {
    const { records } = good[i]!;
    const times = new Map<number, number>();
    places.forEach((place, index) => {
      if (place < 0) return;
      const { at } = records[index]!;
      times.set(place, (times.get(place) ?? 0) + 1);
      if (times.get(place) === 1) positions[place]! += index / records.length;
      for (const { of, value } of countsOf(records[index]!)) {
        const key = `${place} ${of}`;
        const own = volumes.get(key);
        if (own) own.push({ at, value });
        else volumes.set(key, [{ at, value }]);
      }
    });
    const handings = hands(records);
    const again = handedAgain(records, handings);
    for (const [place, n] of times) {
      withSaying[place]!++;
      most[place] = Math.max(most[place]!, n);
      if (n > 1) repeated[place]!++;
      if (n > 1 && again.has(sayings.all[place]!.component)) twice[place]!++;
    }
    const words = new Map(places.map((place, index) => [records[index]!.component, place]));
    for (const [component, place] of words) {
      components.set(component, (components.get(component) ?? 0) + 1);
      if (place >= 0) lasts[place]!++;
    }
    const handed = new Map<number, boolean>();
    for (const { record, taker } of handings) {
      const place = places[record]!;
      if (place < 0) continue;
      handed.set(place, taker !== null || handed.get(place) === true);
      if (taker === null || places[taker]! < 0) continue;
      const key = place * count + places[taker]!;
      takers.set(key, (takers.get(key) ?? 0) + 1);
    }
    for (const [place, was] of handed) {
      handing[place]!++;
      if (was) taken[place]!++;
    }
    const end = places[places.length - 1]!;
    if (end >= 0) ends[end]!++;
  });
  const badWith = new Float64Array(count);
  for (const places of badLegs) for (const place of new Set(places)) if (place >= 0) badWith[place]!++;
  const first = (records: readonly StrandRecord[]): number => records[0]!.at;
  const begins = good.map(({ records }) => first(records)).sort((a, b) => a - b);
  const sizes = good.map(({ records }) => records.length).sort((a, b) => a - b);
  const following = followingOn(
    legs.map((places, i) => ({ places, at: (index) => good[i]!.records[index]!.at })),
    withSaying,
    (saying) => sayings.all[saying]!.component,
    slots,
  );
  const takerOf = (place: number): number | null => {
    let best: number | null = null;
    let times = 0;
    for (const [key, n] of takers) if (Math.floor(key / count) === place && n > times) [best, times] = [key % count, n];
    return best;
  };
  const all: UsualSaying[] = sayings.all.map((saying, place) => ({
    ...saying,
    legs: withSaying[place]!,
    bad: badWith[place]!,
    most: most[place]!,
    twice: twice[place]!,
    repeated: repeated[place]!,
    last: lasts[place]!,
    hands: { legs: handing[place]!, taken: taken[place]!, by: takerOf(place) },
    position: positions[place]! / Math.max(1, withSaying[place]!),
    ...following[place]!,
    volumes: [],
  }));
  for (const [key, cases] of volumes) {
    const blank = key.indexOf(' ');
    const { legs: with_, volumes: own } = all[Number(key.slice(0, blank))]!;
    own.push(...volumeOf(key.slice(blank + 1), cases, with_, slots));
  }
  return {
    flow,
    legs: good.length,
    bad: bad.length,
    since: begins[0]!,
    until: begins[begins.length - 1]!,
    whole: byTimes(
      good.map(({ records }) => ({ at: first(records), value: records[records.length - 1]!.at - first(records) })),
      slots,
    ),
    silence: silenceOf(good.map(({ records }) => records)),
    records: { least: sizes[0]!, median: sizes[sizes.length >> 1]!, most: sizes[sizes.length - 1]! },
    sayings: all,
    components: [...components].map(([component, n]) => ({ component, legs: n })),
    varied: [...sayings.varied],
    ends: [...ends].flatMap((n, saying) => (n > 0 ? [{ saying, share: n / good.length }] : [])).sort((a, b) => b.share - a.share),
    begins: beginsOf(good),
    variants: variantsOf(good),
    proportions: proportions(
      good.map(({ records }, i) => ({ records, places: legs[i]! })),
      all,
    ),
    continues: continuations(good, slots),
    ...callsOf(good),
    zone,
    changed: [],
    before: null,
  };
}

/** Of legs that were looked at, whether their addresses look so; null for what is no call. What is usual is learned several times of the same legs, and messages take a third of a millisecond a call. */
const unreached = new WeakMap<readonly StrandRecord[], boolean | null>();
function isUnreached({ records }: Lesson): boolean | null {
  const known = unreached.get(records);
  if (known !== undefined) return known;
  const call = callOf(records);
  const own = call && unreachedBy(call);
  unreached.set(records, own);
  return own;
}
/** Calls among good legs, by their messages. */
function callsOf(good: readonly Lesson[]): Pick<FlowUsual, 'calls'> {
  const calls = good.map(isUnreached).filter((one) => one !== null);
  return calls.length === 0 ? {} : { calls: { legs: calls.length, unreached: calls.filter(Boolean).length } };
}
function beginsOf(good: readonly Lesson[]): NonNullable<FlowUsual['begins']> {
  const counts = new Map<string, { component: string; shape: number; share: number }>();
  for (const { records } of good) {
    const { component, shape } = records[0]!;
    const key = `${component}\u0000${shape}`;
    const known = counts.get(key);
    if (known) known.share += 1 / good.length;
    else counts.set(key, { component, shape, share: 1 / good.length });
  }
  return [...counts.values()].filter((one) => one.share >= FREQUENT_BEGIN).sort((a, b) => b.share - a.share);
}

/** Numbers sayings in the order in which they are first seen. */
class Sayings {
  readonly all: { component: string; shape: number; traits: string; text: string }[] = [];
  readonly varied: ReadonlySet<string>;
  private readonly places = new Map<string, number>();

  constructor(lessons: readonly Lesson[]) {
    this.varied = variedTraits(lessons);
  }

  /** The place of each record's saying, -1 where there are too many different ones already. */
  read(records: readonly StrandRecord[]): number[] {
    return records.map((record) => {
      const { component, shape, message } = record;
      const traits = plainTraits(record, this.varied);
      const key = `${component}\u0000${shape}\u0000${traits}`;
      const known = this.places.get(key);
      if (known !== undefined) return known;
      if (this.all.length >= MOST_DIFFERENT) return -1;
      this.places.set(key, this.all.length);
      return this.all.push({ component, shape, traits, text: wordsOf(message, traits).slice(0, MOST_TEXT) }) - 1;
    });
  }
}

/** The words of a shape, with the traits that stand in them or beside them. */
function wordsOf(message: string, traits: string): string {
  const [words, whole] = [withoutFields(message), shapeText(message)];
  let text = shapeText(words);
  for (const trait of traits === '' ? [] : traits.split(' ')) {
    const open = `${trait.slice(0, trait.indexOf('=') + 1)}‹›`;
    if (text.includes(open)) text = text.replace(open, trait);
    else if (whole.includes(open)) text += ` ${trait}`;
  }
  return text;
}

/** Traits whose values are too many to tell anything, by their keys. */
function variedTraits(lessons: readonly Lesson[]): Set<string> {
  const values = new Map<string, Map<string, number>>();
  for (const { records } of lessons) {
    for (const { component, shape, traits } of records) {
      if (traits === '') continue;
      for (const part of traits.split(' ')) {
        const at = part.indexOf('=');
        const key = traitKey(component, shape, part.slice(0, at));
        let own = values.get(key);
        if (!own) values.set(key, (own = new Map()));
        const value = part.slice(at + 1);
        if (own.size <= MOST_VALUES) own.set(value, (own.get(value) ?? 0) + 1);
      }
    }
  }
  const varied = new Set<string>();
  for (const [key, own] of values) {
    const cases = [...own.values()].reduce((sum, n) => sum + n, 0);
    const most = isResult(key.slice(key.lastIndexOf('\u0000') + 1)) ? MOST_VALUES : MOST_PLACES;
    if (own.size > most || (own.size > 4 && own.size > cases / 3)) varied.add(key);
  }
  return varied;
}

/** A number that is a volume: there in nearly every case, neither a name nor something that grows with time. */
function volumeOf(of: string, cases: readonly Case[], legs: number, slots: LocalSlots): Volume[] {
  if (cases.length < Math.max(FEWEST_NUMBERS, legs * NEARLY_ALWAYS)) return [];
  const values = cases.map((one) => one.value);
  const different = new Set(values).size;
  const lie = lieOf(values, 1);
  if (different > cases.length * 0.9 && lie.median >= NAMES_FROM) return [];
  const sorted = [...cases].sort((a, b) => a.at - b.at).map((one) => one.value);
  const half = sorted.length >> 1;
  const [early, late] = [sorted.slice(0, half).sort((a, b) => a - b), sorted.slice(half).sort((a, b) => a - b)];
  if (different > 10 && (early[Math.floor(half * 0.9)]! < late[Math.floor(half * 0.1)]! || early[Math.floor(half * 0.1)]! > late[Math.floor(half * 0.9)]!)) return []; // prettier-ignore
  const { rest, parts } = apart(cases, slots);
  const times = parts.map(({ inside, span, days }) => ({ ...volumeBounds(of, inside), span, days }));
  return [{ ...volumeBounds(of, rest), ...(times.length > 0 && { times }) }];
}

function volumeBounds(of: string, cases: readonly Case[]): Volume {
  const values = cases.map((one) => one.value);
  const lie = lieOf(values, 1);
  const { low, high } = fences(lie, 1, cases.length);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  // where nothing varies, twice as much and half as much depart; the fewer cases there are, the further away it has to be
  const factor = Math.max(2, 1 + FEWEST_LEGS / cases.length);
  return { of, median: lie.median, least, most, low: Math.min(low, (lie.median - 1) / factor), high: Math.max(high, factor * lie.median + 1), cases: cases.length }; // prettier-ignore
}

function variantsOf(good: readonly Lesson[]): FlowUsual['variants'] {
  const counts = new Map<string, { components: string[]; count: number }>();
  for (const { records } of good) {
    const components = [...new Set(records.map((record) => record.component))];
    const key = components.join('\u0000');
    const own = counts.get(key);
    if (own) own.count++;
    else counts.set(key, { components, count: 1 });
  }
  return [...counts.values()]
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_VARIANTS)
    .map(({ components, count }) => ({ components, share: count / good.length }));
}
