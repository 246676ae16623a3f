import { MARK } from '../path/marks.ts';
import type { StrandRecord } from '../path/types.ts';
import { lowerShare } from '../statistics/share.ts';
import type { Usual } from '../usual/index-of.ts';

/** Good legs with it, from which an error is no news. */
const NO_NEWS = 3;
/** So many times more often in bad legs than in good ones is telling. */
const MORE_OFTEN = 3;
const MUCH_MORE_OFTEN = 10;
/** Warnings and errors. */
const LOUD = 4;
/** Good legs from which on it says something that none of them has it. */
const MANY = 100;

/** How much more often a saying occurs in bad legs than in good ones; half a leg is added to each count, so that none is zero. */
function lift(saying: { legs: number; bad: number }, { of }: Usual): number {
  return ((saying.bad + 0.5) / (of.bad + 1)) * ((of.legs + 1) / (saying.legs + 0.5));
}

/** Whether good legs have this error too, about as often as others: then it does not tell why one went wrong. */
export function isHarmless(record: StrandRecord, usual: Usual): boolean {
  const saying = usual.sayingOf(record);
  // at least so often in bad ones, as far as can be told from those that are known
  return saying !== undefined && saying.legs >= NO_NEWS && lowerShare(saying.bad, usual.of.bad) < (MORE_OFTEN * saying.legs) / usual.of.legs;
}

/**
 * Records that tell a bad leg from the good ones, whatever their level says: a result that good legs do not have where they state another one,
 * a warning or an error that none of them has, and what stands in bad ones much more often. In the order in which they stand.
 */
export function tellingRecords(records: readonly StrandRecord[], usual: Usual): number[] {
  return records.flatMap((record, index) => (isTelling(record, usual) ? [index] : []));
}

function isTelling(record: StrandRecord, usual: Usual): boolean {
  const saying = usual.sayingOf(record);
  if (saying && saying.legs > 0) return saying.bad >= NO_NEWS && lift(saying, usual) >= MUCH_MORE_OFTEN;
  if (usual.of.legs < MANY) return false;
  if (record.level >= LOUD || record.marks & (MARK.failing | MARK.refusing)) return true;
  if (saying && saying.bad >= NO_NEWS && lift(saying, usual) >= MUCH_MORE_OFTEN) return true;
  return record.traits !== '' && usual.alike(record).some((other) => other.legs > 0 && other.traits !== '');
}
