/** Counted at one time: all, and those that are at issue. */
export interface Counted {
  at: number;
  all: number;
  some: number;
}
/** From when to when, both counted times in which some of these are. */
export interface Stretch {
  from: number;
  to: number;
  all: number;
  some: number;
}

/**
 * When something that is more frequent than usual began and ended: the stretch in which what was counted is most likelier with the share within it than with the usual one (the largest sum of
 * log-likelihood ratios, found in one pass; the share within is worked out anew from the stretch found until it stays). Not merely the first and the last: one that stands far off belongs to
 * the usual.
 *
 * @param counted in order of time
 * @param usual share, above 0
 * @returns null where there are none
 */
export function stretchOf(counted: readonly Counted[], usual: number): Stretch | null {
  const total = counted.reduce((sum, one) => ({ all: sum.all + one.all, some: sum.some + one.some }), { all: 0, some: 0 });
  if (total.some === 0) return null;
  const low = Math.min(0.999, Math.max(usual, 1e-6));
  let share = total.some / total.all;
  let best = heaviest(counted, low, share);
  for (let round = 0; round < 8 && best; round++) {
    const next = best.some / best.all;
    if (Math.abs(next - share) < 1e-9) break;
    share = next;
    best = heaviest(counted, low, share) ?? best;
  }
  return best;
}

function heaviest(counted: readonly Counted[], usual: number, share: number): Stretch | null {
  const high = Math.min(0.999, Math.max(share, usual * 1.5));
  const [yes, no] = [Math.log(high / usual), Math.log((1 - high) / (1 - usual))];
  let best: (Stretch & { weight: number }) | null = null;
  let own: (Stretch & { weight: number }) | null = null;
  for (const { at, all, some } of counted) {
    const weight = some * yes + (all - some) * no;
    if (!own || own.weight <= 0) own = some === 0 ? null : { from: at, to: at, all, some, weight };
    else own = { from: own.from, to: some === 0 ? own.to : at, all: own.all + all, some: own.some + some, weight: own.weight + weight };
    // what stands behind the last of them belongs to it no more
    if (own && some > 0 && (!best || own.weight > best.weight)) best = { ...own };
  }
  return best && { from: best.from, to: best.to, all: best.all, some: best.some };
}
