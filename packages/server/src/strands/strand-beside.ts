import type { AgainstStrand, AgainstUsual, BesideLine } from '@fadenweg/api';
import { firstLine } from '@fadenweg/core/findings';
import type { StrandRecord } from '@fadenweg/core/path';
import { isoMicros } from '@fadenweg/core/units';
import { besideAnother, compareWithUsual, type Beside, type Side } from '@fadenweg/core/usual';
import type { DeclarationRepository, FlowWithUsual } from '../declared/declarations.ts';
import type { Names } from '../evidence/names.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { StrandRepository, StrandRow } from '../weaving/strand-rows.ts';
import { recordKey } from '../evidence/record-key.ts';
import type { Presenter } from './present.ts';
import type { Followed, StrandService } from './strand-service.ts';

/** Longer strands are not laid side by side line by line. */
const MOST_LINES = 3000;
/** Good ones among which the nearest is chosen, on each side of the strand's begin. */
const NEIGHBOURS = 40;

/** A strand beside what is usual, beside a good one, or beside any other. */
export class StrandBeside {
  constructor(
    private readonly strands: StrandService,
    private readonly rows: StrandRepository,
    private readonly declarations: DeclarationRepository,
    private readonly names: Names,
    private readonly presenter: Presenter,
  ) {}

  /** The strand's first leg beside what is usual for its flow; null where that is not known. */
  async againstUsual(row: StrandRow): Promise<AgainstUsual | null> {
    const flow = await this.flowOf(row);
    if (!flow?.usual) return null;
    const { records, rows, path } = await this.strands.followed(row);
    const leg = path.legs[0]!.records;
    const usual = flow.usual.holding(records[0]!.at);
    const { of } = usual;
    return {
      flow: flow.name,
      flowLabel: flow.label,
      legs: of.legs,
      since: isoMicros(of.since),
      wholeMs: (records[leg.at(-1)!]!.at - records[leg[0]!]!.at) / 1000,
      usualMs: of.whole.median / 1000,
      p99Ms: of.whole.p99 / 1000,
      lines: compareWithUsual(
        leg.map((index) => records[index]!),
        usual,
      ).map(({ kind, record, saying, took, wait, times }) => {
        const own = record === null ? null : rows[leg[record]!]!;
        return {
          kind,
          component: own ? this.names.component(own.component_id) : saying!.component,
          text: own ? firstLine(own.message) : `${saying!.text}${saying!.traits ? ` (${saying!.traits})` : ''}`,
          record: own && recordKey(own),
          at: own && isoMicros(own.at),
          tookMs: took === null ? null : took / 1000,
          usualMs: wait && wait.median / 1000,
          p99Ms: wait && wait.p99 / 1000,
          share: saying ? saying.legs / of.legs : 0,
          times,
        };
      }),
    };
  }

  /**
   * The good one of its flow that is nearest to a strand: it passes through all of its components and as few others as can be, concerns the same parties, and began about
   * the same time; in this order. Null where there is none.
   */
  async nearestGood(row: StrandRow): Promise<StrandRow | null> {
    if (row.flow === null) return null;
    const good = await this.rows.neighbours({ ...row, flow: row.flow }, 'done', NEIGHBOURS);
    const missed = (one: StrandRow): number => row.components.filter((component) => !one.components.includes(component)).length;
    const shared = (one: StrandRow): number => one.parties.filter((party) => row.parties.includes(party)).length;
    const away = (one: StrandRow): number => Math.abs(one.started_at - row.started_at);
    const [nearest] = good
      .filter((one) => one.founder !== row.founder)
      .sort(
        (a, b) =>
          missed(a) - missed(b) || a.components.length - b.components.length || shared(b) - shared(a) || away(a) - away(b) || a.founder - b.founder,
      );
    return nearest ?? null;
  }

  /** A strand beside another one, line by line. */
  async against(row: StrandRow, other: StrandRow): Promise<AgainstStrand> {
    const [own, theirs, flow] = await Promise.all([this.strands.followed(row), this.strands.followed(other), this.flowOf(row)]);
    const ownSide = this.side(own, row.flow === other.flow);
    const otherSide = this.side(theirs, row.flow === other.flow);
    const usual = flow?.usual?.holding(own.records[0]!.at);
    const fence = (record: StrandRecord): number | undefined => usual?.sayingOf(record)?.after?.wait.fence;
    const lines = besideAnother(ownSide.side, otherSide.side, (record, took) => {
      const most = fence(ownSide.side.records[record]!);
      return most === undefined ? null : took <= most;
    });
    const [summary] = await this.presenter.summaries([other], await this.declarations.flows());
    return {
      other: summary!,
      cut: ownSide.cut || otherSide.cut,
      lines: lines.map((line) => this.line(line, ownSide.rows, otherSide.rows)),
    };
  }

  /** First legs beside each other where both are of one flow, else all of both. */
  private side({ records, rows, named, path }: Followed, firstLegs: boolean): { side: Side; rows: RecordRow[]; cut: boolean } {
    const all = firstLegs ? path.legs[0]!.records : records.map((_, index) => index);
    const chosen = all.slice(0, MOST_LINES);
    const own = chosen.map((index) => rows[index]!);
    return {
      side: {
        records: chosen.map((index) => records[index]!),
        fields: own.map((one) => one.attributes ?? {}),
        names: new Set([...named.values()].map((name) => name.value)),
      },
      rows: own,
      cut: chosen.length < all.length,
    };
  }

  private line({ kind, own, other, took, otherTook, values }: Beside, ownRows: readonly RecordRow[], otherRows: readonly RecordRow[]): BesideLine {
    const of = (row: RecordRow | undefined) => (row ? { record: recordKey(row), at: isoMicros(row.at), text: firstLine(row.message) } : null);
    const [mine, theirs] = [own === null ? undefined : ownRows[own]!, other === null ? undefined : otherRows[other]!];
    return {
      kind,
      component: this.names.component((mine ?? theirs)!.component_id),
      own: of(mine),
      other: of(theirs),
      tookMs: took === null ? null : took / 1000,
      otherTookMs: otherTook === null ? null : otherTook / 1000,
      values,
    };
  }

  private async flowOf(row: StrandRow): Promise<FlowWithUsual | undefined> {
    return (await this.declarations.flows()).find((one) => one.name === row.flow);
  }
}
