import { chanceOfCount, discoveries } from '../rounds/index.ts';

/** Of what is told, so much at most is told by chance. */
const FALSE_SHARE = 0.01;
/** It matters: so many times as often, or as seldom, and so many records more or fewer. */
const TIMES = 3;
const MORE = 5;
/** New ones that came fewer times are told apart: single sayings are new every day. */
const FEW = 3;
/** So many times as much as usual of most that is said is a shift of all; from so many shapes, each so frequent. */
const SHIFT = 1.3;
const FEWEST_SHAPES = 5;
const FREQUENT = 5;
/** With fewer stretches behind it how much counts vary is taken from all shapes. */
const FEWEST_STRETCHES = 4;

export type DifferenceKind = 'new' | 'surging' | 'fading' | 'gone';
/** How often one shape was said by one component. */
export interface SaidCounts {
  now: number;
  /** In earlier stretches as long as the window, those in which anything of the component was collected. */
  before: readonly number[];
  /** It was said before these stretches too. */
  known: boolean;
  /** Nothing of its component is there in the window: that it is gone says nothing. */
  silent: boolean;
}
export interface Different<T> {
  one: T;
  kind: DifferenceKind;
  /** How often usually, in a window as long, after what shifted as a whole. */
  expected: number;
  /** How likely by chance. */
  chance: number;
  /** It came only once or twice. */
  few: boolean;
}

/**
 * What is said otherwise in a window than in stretches before it: shapes that are new, come much more or much less often, or are gone. Counts vary more than chance, each shape in its own way: how much is learned
 * from the stretches (negative binomial). Where most of what is said came so many times as often, each is compared after that.
 *
 * @returns the surest first; `shift` of all, null for none
 */
export function differentShapes<T extends SaidCounts>(list: readonly T[]): { told: Different<T>[]; shift: number | null } {
  const shift = shiftOf(list);
  const spreads = list.flatMap((one) => (one.before.length >= 2 && meanOf(one.before) > 0 ? spreadOf(one.before) : []));
  const usual = Math.max(1, spreads.sort((a, b) => a - b)[Math.floor(spreads.length / 2)] ?? 1);
  const tested = list.map((one) => {
    const mean = meanOf(one.before);
    if (one.before.length === 0 || mean === 0) return { one, expected: 0, chance: one.now > 0 ? 0 : 1 };
    const own = Math.max(one.before.length < FEWEST_STRETCHES ? usual : spreadOf(one.before), 1);
    // where all has shifted, what a clock starts has not: as before, or as much more as the rest, is as usual
    return [1, ...(shift === null ? [] : [shift])]
      .map((scale) => {
        const expected = mean * scale;
        // a larger mean of the same shape varies as much in proportion
        const { fewer, more } = chanceOfCount(one.now, expected, 1 + (own - 1) * Math.max(1, scale));
        return { one, expected, chance: one.now > expected ? more : fewer };
      })
      .reduce((kind, other) =>
        Math.abs(Math.log((one.now + 1) / (other.expected + 1))) < Math.abs(Math.log((one.now + 1) / (kind.expected + 1))) ? other : kind,
      );
  });
  const sure = discoveries(tested.map((one) => one.chance), FALSE_SHARE); // prettier-ignore
  const told = tested.flatMap((test, i): Different<T>[] => {
    const kind = kindOf(test.one, test.expected, sure[i]!);
    return kind === null ? [] : [{ ...test, kind, few: kind === 'new' && test.one.now < FEW }];
  });
  return { told: told.sort((a, b) => Number(a.few) - Number(b.few) || a.chance - b.chance || b.one.now - a.one.now), shift };
}

function kindOf({ now, before, known, silent }: SaidCounts, expected: number, sure: boolean): DifferenceKind | null {
  // without anything before all were new
  if (before.length === 0) return null;
  if (expected === 0) return now > 0 && !known ? 'new' : null;
  if (!sure || Math.abs(now - expected) < MORE) return null;
  if (now >= TIMES * expected) return 'surging';
  if (now * TIMES > expected || silent) return null;
  return now === 0 ? 'gone' : 'fading';
}

const meanOf = (counts: readonly number[]): number => (counts.length === 0 ? 0 : counts.reduce((sum, one) => sum + one, 0) / counts.length);
/** Variance over mean. */
function spreadOf(counts: readonly number[]): number {
  const mean = meanOf(counts);
  return mean === 0 || counts.length < 2 ? 1 : counts.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (counts.length - 1) / mean;
}
function shiftOf(list: readonly SaidCounts[]): number | null {
  const ratios = list.flatMap((one) => (one.before.length > 0 && meanOf(one.before) >= FREQUENT ? one.now / meanOf(one.before) : [])).sort((a, b) => a - b); // prettier-ignore
  const middle = ratios[Math.floor(ratios.length / 2)];
  if (middle === undefined || ratios.length < FEWEST_SHAPES) return null;
  return middle >= SHIFT || (middle > 0 && middle <= 1 / SHIFT) ? middle : null;
}
