import type { Instant, InstantFlow, StrandSummary } from '@fadenweg/api';
import { shiftAt } from '@fadenweg/core/clocks';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import type { Changes } from '../changes/changes.ts';
import type { DeclarationRepository } from '../declared/declarations.ts';
import { spansOf, type ClockRepository } from '../evidence/clock-rows.ts';
import type { Names } from '../evidence/names.ts';
import type { Presenter } from '../strands/present.ts';
import type { InstantRepository } from '../rollups/instant-rows.ts';
import type { StrandRow } from '../weaving/strand-layout.ts';

/** A clock that is off by less says nothing. */
const OFF = 50_000;

/** The state at an instant, from what was judged since: what was under way then, and how it stood with each flow. */
export class InstantService {
  constructor(
    private readonly rows: InstantRepository,
    private readonly declarations: DeclarationRepository,
    private readonly presenter: Presenter,
    private readonly changes: Changes,
    private readonly clocks: ClockRepository,
    private readonly names: Names,
  ) {}

  async at(at: Microseconds, environment: string[]): Promise<Instant> {
    const [flows, rows, states, clocks, spoke] = await Promise.all([
      this.declarations.flows(),
      this.rows.flows(at, environment),
      this.changes.states(at, environment),
      this.clocks.speaking(),
      this.rows.spoke(at, environment),
    ]);
    const told = rows.flatMap((one) => [one.longest, one.lastAmiss, one.lastGood].filter((row) => row !== null));
    const summaries = await this.presenter.summaries(told, flows);
    const named = new Map(told.map((row, i) => [row, summaries[i]!]));
    const of = (row: StrandRow | null): StrandSummary | undefined => (row === null ? undefined : named.get(row));
    return {
      at: isoMicros(at),
      flows: rows
        .map((row): InstantFlow => {
          const flow = flows.find((one) => one.name === row.flow);
          const usual = flow?.usualUs ?? null;
          const [longest, amiss, good] = [of(row.longest), of(row.lastAmiss), of(row.lastGood)];
          return {
            flow: row.flow,
            label: flow?.label ?? (row.flow === '' ? 'of no flow' : row.flow),
            running: row.begun.length,
            overdue: usual === null ? 0 : row.begun.filter((begun) => at - begun > usual).length,
            usualMs: usual === null ? null : usual / 1000,
            longest: longest && row.longest ? { id: longest.id, name: longest.name, forMs: (at - row.longest.started_at) / 1000 } : null,
            lastAmiss: amiss ? { id: amiss.id, name: amiss.name, outcome: amiss.outcome, at: amiss.endedAt, headline: amiss.headline } : null,
            lastGood: good ? { id: good.id, name: good.name, at: good.endedAt } : null,
          };
        })
        .sort((a, b) => b.running - a.running || (a.label < b.label ? -1 : 1)),
      states,
      clocks: clocks.flatMap((row) => {
        const ahead = 0 - shiftAt(spansOf(row), at);
        return Math.abs(ahead) < OFF ? [] : [{ host: row.host, component: row.component, aheadMs: ahead / 1000 }];
      }),
      speaking: spoke.speaking.map((id) => this.names.component(id)).sort(),
      silent: spoke.silent.map((id) => this.names.component(id)).sort(),
    };
  }
}
