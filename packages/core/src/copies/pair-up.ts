import { common } from './words.ts';
import type { Stretch, Told } from './types.ts';

/** Of the words of the one that says less, so many are in the other one. */
const LEAST_COMMON = 0.7;
/** Whoever writes twice does not write at the same instant, in microseconds. */
export const LATER = 100_000;
/** Candidates that are compared for one event: those that share its rarest words, and the nearest where all its words are frequent. */
const MOST_COMPARED = 64;
const RAREST = 3;

/**
 * Which events of one source are told by another one too: pairs, one to one, each the most alike of those that are near enough in time, the nearest among equals.
 * Events of one source are never paired with each other.
 *
 * @param among in order of time, as `of` is
 * @returns for each of `of` its place in `among`, or -1
 */
export function pairUp(of: Stretch, among: Stretch): Int32Array {
  const reach = Math.max(of.coarse, among.coarse) + LATER;
  const places = placesOf(among.told);
  const taken = new Uint8Array(among.told.length);
  const pairs = new Int32Array(of.told.length).fill(-1);
  let first = 0;
  let behind = 0;
  of.told.forEach((event, i) => {
    while (first < among.told.length && among.told[first]!.at < event.at - reach) first++;
    behind = Math.max(behind, first);
    while (behind < among.told.length && among.told[behind]!.at <= event.at + reach) behind++;
    let best = 0;
    let chosen = -1;
    for (const place of candidates(event, places, first, behind, among.told)) {
      if (taken[place]) continue;
      const other = among.told[place]!;
      const likeness = alike(event, other);
      if (likeness < LEAST_COMMON || likeness < best) continue;
      if (likeness === best && Math.abs(other.at - event.at) >= Math.abs(among.told[chosen]!.at - event.at)) continue;
      best = likeness;
      chosen = place;
    }
    if (chosen < 0) return;
    taken[chosen] = 1;
    pairs[i] = chosen;
  });
  return pairs;
}

/** Of the words of the one that says less, the share that the other one says. */
function alike({ words: a }: Told, { words: b }: Told): number {
  const least = Math.min(a.length, b.length);
  return least === 0 ? 0 : common(a, b) / least;
}

/** Where each word stands, in order of time. */
function placesOf(told: readonly Told[]): Map<number, number[]> {
  const places = new Map<number, number[]>();
  told.forEach(({ words }, place) => {
    for (const word of words) {
      const known = places.get(word);
      if (known) known.push(place);
      else places.set(word, [place]);
    }
  });
  return places;
}

/** Places between two that share one of the rarest words of an event. */
function candidates(event: Told, places: Map<number, number[]>, from: number, to: number, told: readonly Told[]): number[] {
  if (from >= to) return [];
  const lists: { list: number[]; from: number; to: number }[] = [];
  for (const word of event.words) {
    const list = places.get(word);
    if (!list) continue;
    const low = firstNotBelow(list, from);
    const high = firstNotBelow(list, to);
    if (high > low) lists.push({ list, from: low, to: high });
  }
  lists.sort((a, b) => a.to - a.from - (b.to - b.from));
  const found = new Set<number>();
  for (const { list, from: low, to: high } of lists.slice(0, RAREST)) {
    if (high - low <= MOST_COMPARED) for (let i = low; i < high; i++) found.add(list[i]!);
    else for (const place of nearest(list, low, high, event.at, told)) found.add(place);
    if (found.size >= MOST_COMPARED) break;
  }
  return [...found].sort((a, b) => a - b);
}
function nearest(list: readonly number[], from: number, to: number, at: number, told: readonly Told[]): number[] {
  let low = from;
  let high = to;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (told[list[middle]!]!.at < at) low = middle + 1;
    else high = middle;
  }
  const begin = Math.max(from, Math.min(low - MOST_COMPARED / 2, to - MOST_COMPARED));
  return list.slice(begin, Math.min(to, begin + MOST_COMPARED));
}
function firstNotBelow(list: readonly number[], place: number): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! < place) low = middle + 1;
    else high = middle;
  }
  return low;
}
