import { bestSet, type BestSet } from '../identifiers/best-set.ts';
import { knownIn } from '../identifiers/discovering.ts';
import type { IdentifierKind } from '../identifiers/types.ts';
import { sampled } from './in-time.ts';
import type { HeldRecord } from './types.ts';

/**
 * The set of kinds that a newcomer is offered, by what was read while nothing was declared.
 *
 * @param kinds those that are supplied
 */
export async function offered(records: readonly HeldRecord[], kinds: readonly IdentifierKind[]): Promise<BestSet | null> {
  const some = await sampled(records);
  return some.length === 0 ? null : bestSet(knownIn(some, kinds));
}
