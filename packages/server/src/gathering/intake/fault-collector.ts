import { faultOrigin, partedOrigin, type Origin, type Parted } from '@fadenweg/core/faults';
import { excerptOf } from '@fadenweg/core/path';
import type { Made } from '@fadenweg/core/records';
import { tellingParts } from '@fadenweg/core/shapes';
import { LEVELS } from '@fadenweg/core/units';
import { CopyRows } from '../../database/copy-rows.ts';

const ERROR = LEVELS.indexOf('error');

/** Where the errors of one source come from. */
export class FaultCollector {
  private readonly known = new Set<number>();
  private origins: Origin[] = [];
  private rows = new CopyRows();

  /** @param parted faults that people parted */
  constructor(private readonly parted: readonly Parted[]) {}

  /**
   * @param component that says it
   * @param host writes it, whose number may not be known yet
   */
  note({ draft, at, shape, traits, home }: Made, component: string, id: number, sourceId: number, host: (rows: CopyRows) => void): void {
    if (draft.level < ERROR) return;
    const message = excerptOf(draft.message);
    const origin = partedOrigin(faultOrigin({ message, component, shape, traits: tellingParts(traits).traits }), message, this.parted);
    if (!this.known.has(origin.key)) {
      this.known.add(origin.key);
      this.origins.push(origin);
    }
    const { rows } = this;
    rows.begin(6);
    rows.big(origin.key);
    rows.big(at);
    rows.big(id);
    rows.int(sourceId);
    host(rows);
    rows.small(home >= 0 ? 1 : 0);
  }

  /** Everything since the last call; all names have to be known. */
  take(): { origins: Origin[]; faults: Uint8Array } {
    const taken = { origins: this.origins, faults: this.rows.finish() };
    this.origins = [];
    this.rows = new CopyRows();
    return taken;
  }
}
