import type { Duration, Microseconds } from '../units.ts';

export interface RunFacts {
  startedAt: Microseconds;
  duration: Duration;
  outcome: string;
  /** Rows by which its volume is told; null where it tells none. */
  volume: number | null;
}
export type RunOddity = 'thin' | 'many' | 'long' | 'overlapped' | 'late';
export interface Usually {
  volume: number | null;
  duration: Duration;
}

/** Of so few good runs nothing is usual. */
const FEWEST = 3;
/** So many times as much, or as little, as usual. */
const TIMES = 3;
/** A run is long from so much more than usual on. */
const LONGER: Duration = 5_000_000;
const DAY = 86_400_000_000;
const HOURS = 3 * 3_600_000_000;

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)]!;

/** What good runs before it of the same weekday and hour usually have; of all before where these are too few. */
export function usuallyFor(run: RunFacts, before: readonly RunFacts[]): Usually | null {
  const good = before.filter((one) => one.outcome === 'done' || one.outcome === 'slow');
  const week = 7 * DAY;
  const alike = good.filter((one) => {
    const apart = (((run.startedAt - one.startedAt) % week) + week) % week;
    return Math.min(apart, week - apart) <= HOURS;
  });
  const of = alike.length >= FEWEST ? alike : good;
  if (of.length < FEWEST) return null;
  const volumes = of.flatMap((one) => one.volume ?? []);
  return { volume: volumes.length < FEWEST ? null : middleOf(volumes), duration: middleOf(of.map((one) => one.duration)) };
}

/**
 * What is odd about a run against what is usual for it, and the run before it.
 *
 * @param isLate it began behind the time at which its schedule has it begin
 */
export function odditiesOf(run: RunFacts, usual: Usually | null, previous: RunFacts | undefined, isLate = false): RunOddity[] {
  const found: RunOddity[] = [];
  const { volume } = run;
  const often = usual?.volume ?? null;
  if (often !== null && volume !== null) {
    if (volume * TIMES < often) found.push('thin');
    else if (volume > TIMES * Math.max(1, often)) found.push('many');
  }
  if (usual && run.duration > TIMES * usual.duration && run.duration - usual.duration > LONGER) found.push('long');
  if (previous && previous.startedAt + previous.duration > run.startedAt) found.push('overlapped');
  if (isLate) found.push('late');
  return found;
}
