import { bucketAt, durationOf } from './lasted.ts';
import { chanceOfShare } from './rare.ts';
import type { Duration } from '../units.ts';

/** Less likely than that by chance is a difference. */
const CHANCE = 0.001;
/** It matters: so many strands, so many times the share; a median so many times the other. */
const STRANDS = 3;
const TIMES = 1.5;
const SLOWER = 1.2;
const LATE = 0.75;

/** Strands of a flow in a stretch of time. */
export interface Side {
  all: number;
  amiss: number;
  /** How long those that ended well lasted. */
  lasted: readonly { bucket: number; count: number }[];
}
export interface Difference {
  /** What is different after it: the share that is amiss comes first, then how long the others lasted. */
  kind: 'worse' | 'better' | 'slower' | 'faster' | null;
  /** How likely by chance, of what is told; 1 where nothing is. */
  chance: number;
  /** Half of those that ended well lasted at most so long. */
  medians: { before: Duration | null; since: Duration | null };
}

/**
 * What of a flow is different after an instant than before it: exact tests of shares, both ways – of those that are amiss, and of those that last longer than three quarters did on the other side.
 */
export function difference(before: Side, since: Side): Difference {
  const medians = { before: median(before), since: median(since) };
  const more = chanceOfShare(since.amiss, since.all, before.amiss, before.all);
  const fewer = chanceOfShare(before.amiss, before.all, since.amiss, since.all);
  const [now, then] = [since.amiss / Math.max(1, since.all), before.amiss / Math.max(1, before.all)];
  if (more <= CHANCE && since.amiss >= STRANDS && now >= TIMES * then) return { kind: 'worse', chance: more, medians };
  if (fewer <= CHANCE && before.amiss >= STRANDS && then >= TIMES * now) return { kind: 'better', chance: fewer, medians };
  if (medians.before !== null && medians.since !== null) {
    const slower = longer(since, before);
    if (slower <= CHANCE && medians.since >= SLOWER * medians.before) return { kind: 'slower', chance: slower, medians };
    const faster = longer(before, since);
    if (faster <= CHANCE && medians.before >= SLOWER * medians.since) return { kind: 'faster', chance: faster, medians };
  }
  return { kind: null, chance: 1, medians };
}

const total = ({ lasted }: Side): number => lasted.reduce((sum, one) => sum + one.count, 0);
function median(side: Side): Duration | null {
  const bucket = bucketAt(side.lasted, 0.5);
  return bucket === null ? null : durationOf(bucket);
}
/** How likely so many of one side last longer than three quarters of the other do. */
function longer(one: Side, other: Side): number {
  const fence = bucketAt(other.lasted, LATE)!;
  const beyond = ({ lasted }: Side): number => lasted.reduce((sum, { bucket, count }) => sum + (bucket > fence ? count : 0), 0);
  return chanceOfShare(beyond(one), total(one), beyond(other), total(other));
}
