import { sampledStretches } from '../identifiers/discovering.ts';
import type { HeldRecord } from './types.ts';

/** Records in order of time, those of one instant in order of their sources. */
export const inTime = (records: readonly HeldRecord[]): HeldRecord[] => [...records].sort((a, b) => a.at - b.at || a.id - b.id);

/** The first place in a list in order of time at or behind a moment. */
export function placeAt(list: readonly HeldRecord[], at: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.at < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Stretches of records in which identifiers are looked for. */
export async function sampled(records: readonly HeldRecord[]): Promise<HeldRecord[]> {
  const all = inTime(records);
  if (all.length === 0) return [];
  return sampledStretches(all[0]!.at, all[all.length - 1]!.at, (from, most) => {
    const begin = placeAt(all, from);
    return all.slice(begin, begin + most);
  });
}
