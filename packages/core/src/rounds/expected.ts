import type { FlowSums, SlotSeen } from './types.ts';

/** Of what a flow's slots hold on the average, so much is counted to what is known of one of them: one in which nothing ever came is not known to be empty for ever. */
const ELSEWHERE = 0.1;
/** Fewer earlier strands, or from fewer days, tell nothing. */
const FEWEST_STRANDS = 12;
const FEWEST_SAMPLES = 3;
/** Counts are never held to be more even than that: a run may slip over the edge of a slot. */
const EVENEST = 0.05;

export interface Expected {
  /** By slot; null where nothing is known of that slot. */
  mean: (number | null)[];
  /** By slot, how many strands that is known from: a mean of few may well be another one. */
  from: number[];
  /** Variance over mean, from day to day. */
  spread: number;
}

/** How many strands of a flow come in each slot, from the same slots of earlier days; null where too little is known. */
export function expectedOf({ before }: FlowSums, slots: readonly SlotSeen[]): Expected | null {
  const bySlot = slots.map(() => ({ count: 0, exposure: 0, samples: 0 }));
  for (const { slot, exposure, count } of before) {
    const one = bySlot[slot]!;
    one.count += count;
    one.exposure += exposure;
    one.samples++;
  }
  const whole = bySlot.reduce((sum, one) => ({ count: sum.count + one.count, exposure: sum.exposure + one.exposure }), { count: 0, exposure: 0 });
  if (whole.count < FEWEST_STRANDS || whole.exposure === 0) return null;
  const average = whole.count / whole.exposure;
  const rate = bySlot.map((one) => (one.samples < FEWEST_SAMPLES ? null : (one.count + average * ELSEWHERE) / (one.exposure + ELSEWHERE)));
  if (rate.every((one) => one === null)) return null;
  return {
    mean: rate.map((one, i) => (one === null ? null : one * slots[i]!.exposure)),
    from: bySlot.map((one) => one.count + average * ELSEWHERE),
    spread: spreadOf(before, bySlot),
  };
}

/** Pooled over all slots: how far samples lie from the mean of their slot, against how far chance puts them. */
function spreadOf(before: FlowSums['before'], bySlot: readonly { count: number; exposure: number; samples: number }[]): number {
  let squares = 0;
  let chance = 0;
  for (const { slot, exposure, count } of before) {
    const own = bySlot[slot]!;
    if (own.samples < 2 || own.exposure === 0) continue;
    const mean = (own.count / own.exposure) * exposure;
    squares += (count - mean) ** 2 * (own.samples / (own.samples - 1));
    chance += mean;
  }
  return chance === 0 ? 1 : Math.max(EVENEST, squares / chance);
}
