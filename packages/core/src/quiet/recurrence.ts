import { printValue } from '../search/language/print.ts';
import type { Duration, Microseconds } from '../units.ts';

/** Records of one look from one component. */
export interface Series {
  component: string;
  shape: string;
  /** Sorted. */
  times: readonly Microseconds[];
}
export interface Recurring {
  component: string;
  shape: string;
  period: Duration;
  count: number;
}

const FEWEST = 12;
const SHORTEST: Duration = 2_000_000;
const LONGEST: Duration = 3_600_000_000;
/** A gap counts as regular within this share of the median. */
const TOLERANCE = 0.15;
const REGULAR = 0.85;
/** What comes within this share of the median after another is the same beat: one line for each queue, say. */
const BURST = 0.1;

/** What recurs at a regular interval: at least twelve beats, 85 of 100 gaps within 15 % of their median, between 2 s and an hour apart. */
export function recurring(series: readonly Series[]): Recurring[] {
  return series.flatMap(({ component, shape, times }) => {
    const period = periodOf(times);
    return period === null ? [] : [{ component, shape, period, count: times.length }];
  });
}

function periodOf(times: readonly Microseconds[]): Duration | null {
  if (times.length < FEWEST) return null;
  // two looks: the first tells about how long a beat is, the second joins what comes together
  const beats = joined(times, SHORTEST / 2);
  const rough = quantile(gapsOf(beats), 0.9);
  const clean = joined(beats, rough * BURST);
  if (clean.length < FEWEST) return null;
  const gaps = gapsOf(clean);
  const period = quantile(gaps, 0.5);
  if (period < SHORTEST || period > LONGEST) return null;
  const regular = gaps.filter((gap) => Math.abs(gap - period) <= period * TOLERANCE).length;
  return regular >= gaps.length * REGULAR ? period : null;
}

function joined(times: readonly Microseconds[], within: Duration): Microseconds[] {
  const beats: Microseconds[] = [];
  for (const time of times) if (beats.length === 0 || time - beats[beats.length - 1]! > within) beats.push(time);
  return beats;
}
const gapsOf = (times: readonly Microseconds[]): Duration[] => times.slice(1).map((time, i) => time - times[i]!);
const quantile = (values: readonly number[], share: number): number =>
  values.length === 0 ? 0 : [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) * share)]!;

/** A search that finds what recurs, '' where nothing does; the most frequent first, as many as `longest` characters hold. */
export function searchOfRecurring(found: readonly Recurring[], longest: number): string {
  const byComponent = new Map<string, string[]>();
  let length = 40;
  for (const { component, shape } of [...found].sort((a, b) => b.count - a.count)) {
    const value = printValue(shape);
    length += value.length + (byComponent.has(component) ? 2 : component.length + 40);
    if (length > longest) break;
    byComponent.set(component, [...(byComponent.get(component) ?? []), value]);
  }
  if (byComponent.size === 0) return '';
  const parts = [...byComponent].map(([component, shapes]) => `component = ${printValue(component)} and shape in (${shapes.join(', ')})`);
  return `where level <= info and (${parts.join(' or ')})`;
}
