import { bestSet, type BestSet } from '../identifiers/best-set.ts';
import { knownIn, sampledStretches } from '../identifiers/discovering.ts';
import type { IdentifierKind } from '../identifiers/types.ts';
import type { HeldRecord } from './types.ts';

/**
 * The set of kinds that a newcomer is offered, by what was read while nothing was declared.
 *
 * @param kinds those that are supplied
 */
export async function offered(records: readonly HeldRecord[], kinds: readonly IdentifierKind[]): Promise<BestSet | null> {
  const all = [...records].sort((a, b) => a.at - b.at || a.id - b.id);
  if (all.length === 0) return null;
  const sampled = await sampledStretches(all[0]!.at, all[all.length - 1]!.at, (from, most) => {
    const begin = all.findIndex((one) => one.at >= from);
    return begin < 0 ? [] : all.slice(begin, begin + most);
  });
  return bestSet(knownIn(sampled, kinds));
}
