import { bucketOf } from '../lasted.ts';
import type { FlowSums, Sample, Sum } from '../types.ts';

/** A die that always falls alike. */
export function die(seed: number): () => number {
  let at = seed >>> 0 || 1;
  return () => {
    at = (Math.imul(at, 1_664_525) + 1_013_904_223) >>> 0;
    return at / 2 ** 32;
  };
}
/** How many come where a mean is expected, as chance has it. */
export function poisson(next: () => number, mean: number): number {
  const left = Math.exp(-Math.min(mean, 700));
  let count = 0;
  for (let product = next(); product > left; product *= next()) count++;
  return count;
}

export interface Habits {
  flow: string;
  /** By hour of the day. */
  mean(hour: number): number;
  /** Share that fails, usually. */
  amiss: number;
  /** Started by a clock: just as many as the mean. */
  even?: boolean;
}
export interface Hour {
  count?: number;
  amiss?: number;
  /** Share that takes ten times as long. */
  late?: number;
}

const SECOND = 1_000_000;
/** A flow over a day and so many days before it, and what went otherwise in some hours of the day. */
export function flowOf({ flow, mean, amiss, even }: Habits, days: number, seed: number, otherwise: Record<number, Hour> = {}, times = 1): FlowSums {
  const next = die(seed);
  const came = (hour: number): number => (even ? mean(hour) : poisson(next, mean(hour)));
  const failed = (count: number, share: number): number => Array.from({ length: count }, next).filter((one) => one < share).length;
  const before: Sample[] = [];
  for (let day = 0; day < days; day++) {
    for (let slot = 0; slot < 24; slot++) {
      const count = came(slot);
      before.push({ slot, exposure: 1, count, amiss: failed(count, amiss) });
    }
  }
  const now = Array.from({ length: 24 }, (_, slot): Sum[] => {
    const own = otherwise[slot] ?? {};
    const count = own.count ?? (even ? mean(slot) : poisson(next, mean(slot) * times));
    const bad = failed(count, own.amiss ?? amiss);
    const late = failed(count - bad, own.late ?? 0);
    return [
      { outcome: 'failed' as const, bucket: bucketOf(SECOND), count: bad },
      { outcome: 'done' as const, bucket: bucketOf(10 * SECOND), count: late },
      ...Array.from({ length: 10 }, (_, i) => ({
        outcome: 'done' as const,
        bucket: bucketOf(SECOND * (1 + i / 10)),
        count: Math.floor((count - bad - late + i) / 10),
      })),
    ].filter((one) => one.count > 0);
  });
  return { flow, now, before, lasted: Array.from({ length: 10 }, (_, i) => ({ bucket: bucketOf(SECOND * (1 + i / 10)), count: 50 * days })) };
}
export const SEEN = Array.from({ length: 24 }, () => ({ exposure: 1, seen: true }));
