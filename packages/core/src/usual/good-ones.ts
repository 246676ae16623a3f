import type { Outcome, StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import { keyOf } from './continuing.ts';
import { firstPatience, silenceOf, UNLEARNED } from './patience.ts';

/** With fewer ended ones among those that fell silent, ends are not known by what records say. */
const FEW_ENDED = 0.1;
const FREQUENT_END = 0.05;
/** Legs that end alike, at least, and the share of those that have it at all: what is mostly followed by more is where they got stuck. */
const ALIKE = 3;
const OFTEN_LAST = 0.2;

/** A leg of a flow, and how it went as far as its own records tell. */
export interface Lesson {
  /** In order of time. */
  records: readonly StrandRecord[];
  outcome: Outcome;
  /** First records of later legs of the same strand. */
  later?: readonly StrandRecord[];
  /** Later legs of the same strand, and how they went. */
  others?: readonly Pick<Lesson, 'records' | 'outcome'>[];
  /** How far the evidence reaches; what came behind it is not known. Nothing is said of what follows later where it is left out. */
  until?: Microseconds;
  /** How long silence lasts before it tells anything is declared. */
  patient?: boolean;
}

/** What is silent for longer than such legs ever are does not go on, however short the evidence is: before anything is known of a flow, its legs tell how patient one has to be. */
export function silentOnes(lessons: readonly Lesson[]): Lesson[] {
  if (!lessons.some(({ outcome }) => outcome === 'running')) return [...lessons];
  const patience = Math.min(UNLEARNED, firstPatience(silenceOf(lessons.map(({ records }) => records))));
  return lessons.map((lesson) => {
    const { outcome, records, until, patient } = lesson;
    const silent = outcome === 'running' && !patient && until !== undefined && until - records[records.length - 1]!.at > patience;
    return silent ? { ...lesson, outcome: 'stalled' } : lesson;
  });
}

/** Those that are known to have come to their end; where hardly any are, those without a fault that end as many others do. */
export function goodOnes(lessons: readonly Lesson[]): Lesson[] {
  const done = lessons.filter(({ outcome }) => outcome === 'done');
  const silent = lessons.filter(({ outcome }) => outcome === 'stalled');
  if (done.length >= silent.length * FEW_ENDED) return done;
  const ends = new Map<string, number>();
  const there = new Map<string, number>();
  for (const { records } of silent) {
    const last = keyOf(records[records.length - 1]!);
    ends.set(last, (ends.get(last) ?? 0) + 1);
    for (const key of new Set(records.map(keyOf))) there.set(key, (there.get(key) ?? 0) + 1);
  }
  const isEnd = (key: string, count: number): boolean =>
    count >= ALIKE && count >= silent.length * FREQUENT_END && count >= there.get(key)! * OFTEN_LAST;
  const known = new Set([...ends].flatMap(([key, count]) => (isEnd(key, count) ? [key] : [])));
  const ways = waysOf(silent);
  return [...done, ...silent.filter((lesson) => known.has(keyOf(lesson.records[lesson.records.length - 1]!)) || ways.has(lesson))];
}

/** Legs in which everybody's last words are those of many others: in what order several ended nobody knows where clocks are off. What far fewer have than the most is where it got stuck. */
function waysOf(lessons: readonly Lesson[]): ReadonlySet<Lesson> {
  const ways = new Map<string, Lesson[]>();
  for (const lesson of lessons) {
    const words = new Map(lesson.records.map((record) => [record.component, keyOf(record)]));
    const way = [...words.values()].sort().join('\n'); // prettier-ignore
    ways.set(way, [...(ways.get(way) ?? []), lesson]);
  }
  const most = Math.max(0, ...[...ways.values()].map((own) => own.length));
  return new Set([...ways.values()].filter((own) => own.length >= ALIKE && own.length >= lessons.length * FREQUENT_END && own.length >= most * OFTEN_LAST).flat()); // prettier-ignore
}
