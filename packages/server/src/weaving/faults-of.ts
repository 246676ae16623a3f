import { faultOrigin, partedOrigin, type Origin, type Parted } from '@fadenweg/core/faults';
import type { StrandRecord } from '@fadenweg/core/path';
import { LEVELS } from '@fadenweg/core/units';
import type { StrandRow } from './strand-layout.ts';

const ERROR = LEVELS.indexOf('error');
/** So many records with errors of one strand are looked at. */
const MOST = 200;

/** To which faults the records of strands belong. */
export class FaultsOf {
  private readonly known = new Map<number, Origin>();

  /** @param parted faults that people parted */
  constructor(private readonly parted: readonly Parted[]) {}

  /** @param failing the record by which it failed; null where it did not */
  of(records: readonly StrandRecord[], failing: StrandRecord | null): Pick<StrandRow, 'fault' | 'fault_at' | 'fault_record' | 'mentions'> {
    const fault = failing && this.origin(failing);
    const errors = records.filter((one) => one.level >= ERROR && one !== failing).slice(0, MOST);
    const mentions = new Set(errors.map((one) => this.origin(one)));
    if (fault !== null) mentions.delete(fault);
    return {
      fault,
      fault_at: failing && failing.at,
      fault_record: failing && Number(failing.id),
      mentions: [...mentions],
    };
  }
  origins = (): Origin[] => [...this.known.values()];

  private origin(record: StrandRecord): number {
    const origin = partedOrigin(faultOrigin(record), record.message, this.parted);
    this.known.set(origin.key, origin);
    return origin.key;
  }
}
