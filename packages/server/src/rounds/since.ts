import type { SinceThen } from '@fadenweg/api';
import { departing, difference, type Side } from '@fadenweg/core/rounds';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import type { AlikeRepository } from '../rollups/alike.ts';
import type { SumRepository, SumRow } from '../rollups/sums.ts';
import type { RoundsService } from './rounds.ts';

const MINUTE = 60_000_000;
const HOUR = 60 * MINUTE;
/** So long on each side; longer where either side holds fewer strands than that. */
const LENGTHS = [6, 24, 8 * 24];
const FEW = 40;
const MOST_FINDINGS = 20;
const UNDER_WAY = new Set(['running', 'out-of-sight']);

/** What was different after an instant than before it, flow by flow and finding by finding. */
export class SinceService {
  constructor(
    private readonly sums: SumRepository,
    private readonly alike: AlikeRepository,
    private readonly rounds: RoundsService,
  ) {}

  async of(at: Microseconds, environment: string[]): Promise<SinceThen> {
    const sides = await this.sides(at, environment);
    const labels = await this.rounds.labels();
    const names = [...new Set(sides.rows.map((one) => one.flow))];
    const before = new Map(names.map((flow) => [flow, sideOf(sides.rows, flow, 0)]));
    const since = new Map(names.map((flow) => [flow, sideOf(sides.rows, flow, 1)]));
    const length = sides.hours * HOUR;
    const found = await this.alike.within(at, at + length, environment);
    const earlier = await this.alike.before(found.map((one) => one.signature), at - length, at, environment); // prettier-ignore
    const whole = (flows: readonly string[], of: Map<string, Side>): number => flows.reduce((sum, flow) => sum + (of.get(flow)?.all ?? 0), 0);
    const told = departing(
      found.map((row) => ({ row, outcome: row.outcome, count: row.count, of: whole(row.flows, since), before: { count: earlier.get(row.signature) ?? 0, of: whole(row.flows, before) }, stretch: null, byClock: false })), // prettier-ignore
      true,
    );
    return {
      at: isoMicros(at),
      hours: sides.hours,
      flows: names
        .map((flow) => {
          const [then, now] = [before.get(flow)!, since.get(flow)!];
          const { kind, chance, medians } = difference(then, now);
          const side = ({ all, amiss }: Side, median: number | null) => ({ all, amiss, medianMs: median === null ? null : median / 1000 });
          return { flow, label: labels(flow), before: side(then, medians.before), since: side(now, medians.since), differs: kind, chance };
        })
        .sort((a, b) => Number(a.differs === null) - Number(b.differs === null) || a.chance - b.chance || b.since.all - a.since.all),
      findings: told.slice(0, MOST_FINDINGS).map(({ one, chance }) => ({
        finding: one.row.signature,
        title: one.row.headline,
        outcome: one.outcome,
        before: one.before,
        since: { count: one.count, of: one.of },
        chance,
      })),
    };
  }

  private async sides(at: Microseconds, environment: string[]): Promise<{ hours: number; rows: SumRow[] }> {
    // sums are by minute: that of the change is one since
    const minute = Math.floor(at / MINUTE) * MINUTE;
    for (const hours of LENGTHS) {
      const rows = await this.sums.within(
        [
          { place: 0, day: 0, from: minute - hours * HOUR, to: minute },
          { place: 1, day: 0, from: minute, to: minute + hours * HOUR },
        ],
        environment,
      );
      const count = (place: number): number => rows.reduce((sum, one) => sum + (one.place === place ? one.strands : 0), 0);
      if (Math.min(count(0), count(1)) >= FEW || hours === LENGTHS.at(-1)) return { hours, rows };
    }
    throw new Error('there is a longest length');
  }
}

function sideOf(rows: readonly SumRow[], flow: string, place: number): Side {
  const own = rows.filter((one) => one.flow === flow && one.place === place);
  const sum = (wanted: (outcome: string) => boolean): number => own.reduce((whole, one) => whole + (wanted(one.outcome) ? one.strands : 0), 0);
  return {
    all: sum(() => true),
    amiss: sum((outcome) => outcome !== 'done' && !UNDER_WAY.has(outcome)),
    lasted: own.filter((one) => one.outcome === 'done' || one.outcome === 'slow').map((one) => ({ bucket: one.lasted, count: one.strands })),
  };
}
