import type { StrandRecord } from '../path/types.ts';
import { shapeText } from '../shapes/shape.ts';
import { lowerShare } from '../statistics/share.ts';
import { SURELY } from './habits.ts';
import { byTimes } from './at-times.ts';
import type { LocalSlots } from './regularly.ts';
import type { Continuation, FlowUsual } from './types.ts';

/** Cases from which on a continuation is told. */
const FEWEST = 10;
/** What fewer have is no habit. */
const RARE = 0.02;
const MOST = 6;
/** Times what 99 of 100 take: with hours the fences of a logarithmic scale lie days away. */
const BEYOND = 1.5;
const MOST_TEXT = 160;

interface Ended {
  records: readonly StrandRecord[];
  later?: readonly StrandRecord[];
  until?: number;
}

/**
 * What strands usually go on with after their first leg has ended: a call-back, a question how it stands.
 * A strand counts only where the evidence reaches far enough behind its end for it to have come.
 */
export function continuations(good: readonly Ended[], slots: LocalSlots): Continuation[] {
  const known = good.flatMap(({ records, later = [], until }) =>
    until === undefined ? [] : [{ end: records[records.length - 1]!.at, later, until }],
  );
  const entries = new Map<string, { entry: StrandRecord; cases: { at: number; value: number }[] }>();
  for (const { end, later } of known) {
    const seen = new Set<string>();
    for (const entry of later) {
      const key = keyOf(entry);
      if (entry.at <= end || seen.has(key)) continue;
      seen.add(key);
      const own = entries.get(key);
      const one = { at: entry.at, value: entry.at - end };
      if (own) own.cases.push(one);
      else entries.set(key, { entry, cases: [one] });
    }
  }
  return [...entries.entries()]
    .flatMap(([key, { entry, cases }]): Continuation[] => {
      if (cases.length < FEWEST) return [];
      const wait = byTimes(cases, slots);
      const longest = Math.max(...[wait, ...(wait.times ?? [])].map(({ fence, p99 }) => Math.min(fence, p99 * BEYOND)));
      const could = known.filter(({ end, until }) => until - end >= longest);
      const legs = could.filter(({ later }) => later.some((one) => keyOf(one) === key)).length;
      if (legs < Math.max(FEWEST, could.length * RARE)) return [];
      const { component, shape, message } = entry;
      return [{ component, shape, text: shapeText(message).slice(0, MOST_TEXT), of: could.length, legs, wait, longest }];
    })
    .sort((a, b) => b.legs / b.of - a.legs / a.of)
    .slice(0, MOST);
}

/** What a leg began with, to be found again. */
export const keyOf = ({ component, shape }: Pick<StrandRecord, 'component' | 'shape'>): string => `${component}\u0000${shape}`;

/** What nearly all strands of a flow go on with: where it is missing, it is missed. */
export const surelyContinues = ({ continues }: FlowUsual): Continuation[] => continues.filter((one) => lowerShare(one.legs, one.of) >= SURELY);
