import type { Outcome, StrandRecord } from '../../path/types.ts';
import { shapeHash } from '../../shapes/shape.ts';
import type { Lesson } from '../good-ones.ts';
import { learnUsual } from '../learn.ts';
import { Usual } from '../index-of.ts';

/** A record of a made-up leg; `more` overrides what it is by itself. */
export const said = (ms: number, component: string, message: string, more: Partial<StrandRecord> = {}): StrandRecord => ({
  id: String(ms),
  at: Math.round(ms * 1000),
  component,
  host: '',
  level: 3,
  marks: 0,
  took: NaN,
  message,
  shape: shapeHash(message),
  traits: '',
  keys: [],
  ...more,
});

/** Numbers from 0 to 1 that look random and are always the same. */
export function dice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
}

/**
 * A leg of a made-up flow: a shop asks, a mill grinds about four sacks a minute and tells how many, a cart takes them away.
 *
 * @param of what is different: how long the mill takes, how many sacks it tells, what the cart answers
 */
export function milling(random: () => number, of: { start?: number; grinding?: number; sacks?: number; answer?: string } = {}): StrandRecord[] {
  const start = of.start ?? Math.floor(random() * 1e9);
  const spread = (median: number): number => median * (0.8 + 0.4 * random());
  let at = start;
  const records = [said(at, 'shop', `order ${start} taken`)];
  records.push(said((at += spread(5)), 'mill', `grinding for ${start}`));
  records.push(said((at += of.grinding ?? spread(4000)), 'mill', `ground ${of.sacks ?? Math.round(spread(40))} sacks for ${start}`));
  records.push(said((at += spread(20)), 'cart', 'loaded', { traits: `status=${of.answer ?? 'ok'}` }));
  records.push(said(at + spread(900), 'shop', `order ${start} delivered`, { marks: 4 }));
  return records;
}

export const lessons = (legs: readonly StrandRecord[][], outcome: Outcome = 'done'): Lesson[] => legs.map((records) => ({ records, outcome }));

/** What is usual for so many good legs and these others. */
export function usualOf(count: number, others: readonly Lesson[] = [], seed = 7): Usual {
  const random = dice(seed);
  return new Usual(learnUsual('milling', [...lessons(Array.from({ length: count }, () => milling(random))), ...others])!);
}
