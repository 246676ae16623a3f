import type { Mention } from '../identifiers/types.ts';
import type { LastingRecord } from './types.ts';

/** So many are kept of a source, those that took longest: what lies within them is told apart best. */
const MOST = 48;
const LEAST = 2_000;
const LONGEST = 600_000_000;
const MOST_KEYS = 4;

/** Records of a source that state how long something took, by which is told whether they stand at its begin or its end. */
export class LastingSample {
  readonly taken: LastingRecord[];
  private least = 0;

  /** @param before those of the source's earlier batches */
  constructor(before: readonly LastingRecord[] = []) {
    this.taken = [...before];
  }

  /** @param at as it is written, in no corrected time */
  note(at: number, took: number, coarse: boolean, mentions: readonly Mention[]): void {
    if (took < LEAST || took > LONGEST || mentions.length === 0) return;
    const { taken } = this;
    if (taken.length >= MOST && took <= taken[this.least]!.took) return;
    const one = { at, took, coarse, keys: mentions.slice(0, MOST_KEYS).map(({ key }) => key) };
    if (taken.length < MOST) taken.push(one);
    else taken[this.least] = one;
    this.least = taken.reduce((least, { took: other }, i) => (other < taken[least]!.took ? i : least), 0);
  }
}
