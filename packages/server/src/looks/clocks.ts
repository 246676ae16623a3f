import { Access } from '../platform/access.ts';
import { alike, renewed, renewedReadings } from '@fadenweg/core/clocks';
import { spansOf, type ClockRepository, type ClockRow, type ClockUnit, type FoundClock } from '../evidence/clock-rows.ts';
import type { Names } from '../evidence/names.ts';
import type { ClocksAnswer, ClocksData } from './clocks-worker.ts';
import { askWorker } from '../platform/threads.ts';

/** Longest estimate, in milliseconds. */
const LONGEST = 120_000;

/** Estimates the clocks of hosts from what was woven, keeps them, and tells what has to be read again with them. */
export class Clocks {
  constructor(
    private readonly databaseUrl: string,
    private readonly clocks: ClockRepository,
    private readonly names: Names,
  ) {}

  /**
   * @param from begin of the window that is estimated anew; what is known of other times stays
   * @param environments only what was written there, and where they share clocks, is looked at
   * @param due told of the sources that will have to be read again, before anything is changed
   * @returns sources whose times have to be corrected otherwise than they are
   */
  async estimate(from: number, to: number, environments: readonly string[], due: (ids: readonly number[]) => Promise<void>): Promise<number[]> {
    const { units, estimates } = await askWorker<ClocksAnswer>('looks/clocks-worker', { databaseUrl: this.databaseUrl, from, to, environments } satisfies ClocksData, LONGEST); // prettier-ignore
    const nobody = await this.names.idOf('component', '');
    const known = await this.clocks.all();
    const unitOf = ({ host, component }: ClocksAnswer['units'][number]): ClockUnit => ({
      host_id: host,
      component_id: this.names.host(host) === '' ? component : nobody,
    });
    const changed: ClockUnit[] = [];
    const found: FoundClock[] = estimates.map(({ clock, spans, readings, hops, with: partners }) => {
      const unit = unitOf(units[clock]!);
      const before = known.find((one) => one.host_id === unit.host_id && one.component_id === unit.component_id);
      const merged = renewed(before?.found ?? [], spans, from, to);
      // what is found again, but for a hair, stays as it is: nothing is read again for it
      const same = alike(before?.found ?? [], merged, readings);
      if (!same && (before?.set_ahead ?? null) === null) changed.push(unit);
      return {
        ...unit,
        found: same && before ? before.found : merged,
        readings: renewedReadings(before?.readings ?? [], readings, from, to),
        hops,
        partners: partners.map((one) => {
          const other = units[one.clock]!;
          const host = this.names.host(other.host);
          return { host, component: host === '' ? this.names.component(other.component) : '', hops: one.hops };
        }),
      };
    });
    const sources = await this.clocks.sourcesOf(changed);
    await due(sources);
    await this.clocks.saveFound(found, Access.clocks);
    return sources;
  }

  /** Sets by hand how far a clock is ahead, or lets what was found hold again. Returns the sources that have to be read again. */
  async set(clock: ClockRow, ahead: number | null, access: Access, due: (ids: readonly number[]) => Promise<void>): Promise<number[]> {
    const now = spansOf({ ...clock, set_ahead: ahead });
    const sources = alike(spansOf(clock), now, clock.readings) ? [] : await this.clocks.sourcesOf([clock]);
    await due(sources);
    await this.clocks.set(clock.id, ahead, access);
    return sources;
  }
}
