import { carryOver, NAMELESS, STRANGE } from './carry-over.ts';
import type { OwnerAt } from './owner-at.ts';

/** Records with a lane of one source, in the order in which they stand there, in columns. */
export interface SourceLanes {
  at: ArrayLike<number>;
  /** Key of the identifier by which a record is at home, NaN for none. */
  home: ArrayLike<number>;
  lane: ArrayLike<number>;
  shape: ArrayLike<number>;
  length: number;
}

/**
 * Records that name nothing and are carried over to the strand that their thread or process worked on.
 *
 * @returns for each record the place of the one to whose strand it is carried over, -1 for none
 */
export function carriedRecords({ at, home, lane, shape, length }: SourceLanes, ownerAt: OwnerAt): Int32Array {
  let nameless = 0;
  for (let i = 0; i < length; i++) if (Number.isNaN(home[i])) nameless++;
  if (nameless === 0 || nameless === length) return new Int32Array(length).fill(-1);
  const numbers = new Map<number, number>();
  const strand = new Int32Array(length);
  for (let i = 0; i < length; i++) {
    if (Number.isNaN(home[i])) {
      strand[i] = NAMELESS;
      continue;
    }
    const owner = ownerAt(home[i]!, at[i]!);
    if (Number.isNaN(owner)) {
      strand[i] = STRANGE;
      continue;
    }
    let number = numbers.get(owner);
    if (number === undefined) numbers.set(owner, (number = numbers.size));
    strand[i] = number;
  }
  return carryOver({ lane: Int32Array.from(lane), at: Float64Array.from(at), strand, shape: Float64Array.from(shape), length });
}
