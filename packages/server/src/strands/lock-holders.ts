import type { Finding } from '@fadenweg/api';
import { MARK } from '@fadenweg/core/path';
import { strandId, type IdentifierRepository } from '../evidence/identifiers.ts';
import type { RecordRepository } from '../evidence/records.ts';
import type { RecordRow } from '../evidence/record-layout.ts';

/** As PostgreSQL tells it when a statement waits for a lock. */
const HOLDER = /Process(?:es)? holding the lock: (\d+)/;
/** A session may have spoken last so long before the wait, or speak again so long after it, in microseconds; mostly it does soon. */
const AROUND = [900_000_000, 7_200_000_000];

export interface LockHolder {
  strand: string;
  businessId: string;
  /** Label of the holder's business identifier. */
  label: string;
  /** Of the database. */
  component: number;
}

/** Which strand held a lock that another one waited for, by the process that the database names. */
export class LockHolders {
  constructor(
    private readonly records: RecordRepository,
    private readonly identifiers: IdentifierRepository,
  ) {}

  /** @param rows records of the strand that waited */
  async of(founder: number, rows: readonly RecordRow[]): Promise<LockHolder | null> {
    for (const row of rows) {
      if (!(row.marks & MARK.waits)) continue;
      const pid = HOLDER.exec([row.message, ...Object.values(row.attributes ?? {})].join('\n'))?.[1];
      if (pid === undefined) continue;
      const home = await this.home(row, pid);
      if (!home) continue;
      const tie = (await this.identifiers.ties(home.home)).find((one) => one.valid_from <= home.at && one.valid_to >= home.at);
      const named = tie && tie.founder !== founder ? (await this.identifiers.named([tie.founder])).get(tie.founder) : undefined;
      if (named)
        return { strand: strandId(named.kind, named.scope, named.value), businessId: named.value, label: named.label, component: row.component_id };
    }
    return null;
  }

  private async home(row: RecordRow, pid: string): Promise<{ home: number; at: number } | null> {
    for (const around of AROUND) {
      const home = await this.records.homeOfProcess(row.component_id, pid, row.at, around);
      if (home) return home;
    }
    return null;
  }
}

/** A finding whose sentence also tells who held the lock. */
export function withHolder(finding: Finding, { businessId, label }: LockHolder): Pick<Finding, 'parts' | 'sentence'> {
  const text = ` The lock was held by ${label} ${businessId}.`;
  return { parts: [...finding.parts, { kind: 'words', text }], sentence: finding.sentence + text };
}
