import type { StrandFault } from '@fadenweg/api';
import { faultState, faultTitle, type FaultState } from '@fadenweg/core/faults';
import type { Changes } from '../changes/changes.ts';
import type { KnownFaults } from '../evidence/known-faults.ts';
import type { Names } from '../evidence/names.ts';
import type { RecordRepository } from '../evidence/records.ts';
import type { FaultRepository, SaidRow } from './fault-rows.ts';

/** So long it holds which faults are quiet, in milliseconds: some are tolerated until an instant. */
const HOLDS = 30_000;

/** In which state faults are, by what was said of them and what came after. */
export class FaultStanding implements KnownFaults {
  private known: { at: number; ids: Promise<number[]> } | null = null;

  constructor(
    private readonly rows: FaultRepository,
    private readonly changes: Changes,
    private readonly names: Names,
    private readonly records: Pick<RecordRepository, 'shapes'>,
  ) {}

  /** Something was said, or came in. */
  forget(): void {
    this.known = null;
  }

  /** Those that are mended and did not return, or are tolerated. */
  quiet(): Promise<number[]> {
    if (this.known === null || Date.now() - this.known.at > HOLDS) {
      const ids = this.readQuiet();
      this.known = { at: Date.now(), ids };
      ids.catch(() => this.forget());
    }
    return this.known.ids;
  }
  async sameAs(id: number): Promise<number[]> {
    const head = await this.rows.headOf(id);
    return head === null ? [id] : (await this.rows.members(head)).map((one) => one.id);
  }
  async told(id: number): Promise<StrandFault | null> {
    const head = await this.rows.headOf(id);
    if (head === null) return null;
    const [members, [last = null]] = await Promise.all([this.rows.members(head), this.rows.said([head])]);
    const own = members[0]!;
    const shapes = own.shape === 0 ? new Map<number, string>() : await this.records.shapes([own.shape]);
    return {
      id: head,
      title: faultTitle({ ...own, said: shapes.get(own.shape) ?? '' }),
      component: own.component,
      state: await this.stateOf({ component: own.component, members: members.map((one) => one.id) }, last, null),
      owner: last?.owner ?? '',
      note: last?.note ?? '',
      ticket: last?.ticket ?? '',
    };
  }
  private async readQuiet(): Promise<number[]> {
    const said = await this.rows.lastSaid(['mended', 'tolerated']);
    const quiet = await Promise.all(
      said.map(async (last) => {
        const state = await this.stateOf(last, last, null);
        return state === 'mended' || state === 'tolerated' ? last.members : [];
      }),
    );
    return quiet.flat();
  }

  /** @param environment whose versions count; null for all */
  async stateOf(
    { component, members }: { component: string; members: readonly number[] },
    last: SaidRow | null,
    environment: string[] | null,
  ): Promise<FaultState> {
    // prettier-ignore
    if (last === null) return 'new';
    const spans = last.state === 'mended' && last.version !== '' ? await this.changes.versions(component, environment) : [];
    const first =
      last.version === '' ? (last.since_at ?? 0) : Math.min(...spans.filter((one) => one.version === last.version).map((one) => one.from));
    const occurrences = last.state === 'mended' && Number.isFinite(first) ? await this.rows.occurrences(members, first - 1, null) : [];
    const at = occurrences.map((one) => ({ at: one.at, host: one.host === null ? '' : this.names.host(one.host) }));
    return faultState({ state: last.state, since: last.since_at, version: last.version, until: last.until_at }, at, spans, Date.now() * 1000);
  }
}
