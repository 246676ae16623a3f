import type { StrandRecord } from '../path/types.ts';
import type { Usual } from './index-of.ts';

/** What so many good legs say none that has come to its end lacks. */
const NEARLY_ALL = 0.95;

/** What good legs say nearly always, each by the places of the sayings that tell it with one result or another. */
const always = new WeakMap<Usual, readonly (readonly number[])[]>();
function alwaysSaid(usual: Usual): readonly (readonly number[])[] {
  const ready = always.get(usual);
  if (ready) return ready;
  const groups = new Map<string, number[]>();
  usual.of.sayings.forEach(({ component, shape, legs }, place) => {
    if (legs === 0) return;
    const key = `${component}\u0000${shape}`;
    groups.set(key, [...(groups.get(key) ?? []), place]);
  });
  const found = [...groups.values()].filter((places) => {
    // where a leg says it with two results it counts twice
    const legs = Math.min(usual.of.legs, places.reduce((sum, place) => sum + usual.of.sayings[place]!.legs, 0)); // prettier-ignore
    return legs >= usual.of.legs * NEARLY_ALL;
  });
  always.set(usual, found);
  return found;
}

/**
 * Whether a leg has all that good ones nearly always have, from their begin to their end. In whole seconds, or with clocks that are off, nobody knows what came last; what is there is known.
 *
 * @returns false also where good ones have hardly anything in common
 */
export function isComplete(records: readonly StrandRecord[], usual: Usual): boolean {
  const needed = alwaysSaid(usual);
  const there = new Set(usual.placesOf(records));
  return needed.length > 1 && needed.every((places) => places.some((place) => there.has(place)));
}
