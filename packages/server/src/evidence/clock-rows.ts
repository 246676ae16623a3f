import type { Access } from '../platform/access.ts';
import type { ClockReading, ClockSpan } from '@fadenweg/core/clocks';
import type { Database } from '../database/connect.ts';

export interface ClockRow {
  id: number;
  host_id: number;
  component_id: number;
  /** Names; the component's is empty where the host is known. */
  host: string;
  component: string;
  found: ClockSpan[];
  readings: ClockReading[];
  hops: number;
  /** With which it exchanged messages and calls. */
  partners: { host: string; component: string; hops: number }[];
  /** Set by hand: how far it is ahead, in microseconds; null where what was found holds. */
  set_ahead: number | null;
  changed_by: string;
  changed_at: Date;
}
export type ClockUnit = Pick<ClockRow, 'host_id' | 'component_id'>;
export type FoundClock = ClockUnit & Pick<ClockRow, 'found' | 'readings' | 'hops' | 'partners'>;

/** What holds for a clock: what was set by hand, else what was found. */
export const spansOf = ({ found, set_ahead }: Pick<ClockRow, 'found' | 'set_ahead'>): ClockSpan[] =>
  set_ahead === null ? found : [{ from: 0, to: 0, ahead: set_ahead, drift: 0, within: 0 }];

/** Clocks of hosts, and of components whose host is not known. */
export class ClockRepository {
  constructor(private readonly db: Database) {}

  private select() {
    return this.db('clock as c')
      .join('host as h', 'h.id', 'c.host_id')
      .join('component as o', 'o.id', 'c.component_id')
      .select<ClockRow[]>(
        'c.id',
        'c.host_id',
        'c.component_id',
        'h.name as host',
        'o.name as component',
        'c.found',
        'c.readings',
        'c.hops',
        'c.partners',
        'c.set_ahead',
        'c.changed_by',
        'c.changed_at',
      );
  }
  all(limit = 1000): Promise<ClockRow[]> {
    return this.select().orderBy('h.name').orderBy('o.name').limit(limit);
  }
  /** Those of hosts that records are of now, and those that were set by hand. */
  speaking(limit = 1000): Promise<ClockRow[]> {
    return this.select()
      .whereRaw(
        `(c.set_ahead is not null or exists (select from speaker s where s.host_id = c.host_id and (h.name <> '' or s.component_id = c.component_id)))`,
      )
      .orderBy('h.name')
      .orderBy('o.name')
      .limit(limit);
  }
  async byId(id: number): Promise<ClockRow | undefined> {
    return (await this.select().where('c.id', id))[0];
  }

  async saveFound(clocks: readonly FoundClock[], access: Access): Promise<void> {
    for (const { host_id, component_id, ...rest } of clocks) {
      const values = {
        found: JSON.stringify(rest.found),
        readings: JSON.stringify(rest.readings),
        hops: rest.hops,
        partners: JSON.stringify(rest.partners),
      };
      await this.db('clock')
        .insert({ host_id, component_id, ...values, changed_by: access.who })
        .onConflict(['host_id', 'component_id'])
        .merge({ ...values, changed_at: this.db.fn.now() });
    }
  }
  async set(id: number, ahead: number | null, access: Access): Promise<void> {
    await this.db('clock').where({ id }).update({ set_ahead: ahead, changed_by: access.who, changed_at: this.db.fn.now() });
  }

  /** Sources that hold records written by one of these clocks. */
  async sourcesOf(units: readonly ClockUnit[]): Promise<number[]> {
    if (units.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: { id: number }[] }>(
      `select distinct r.source_id as id from unnest(?::int[], ?::int[]) u(host, component), speaker r
         where r.host_id = u.host and (r.component_id = u.component or (select name from host where id = u.host) <> '')`,
      [units.map((unit) => unit.host_id), units.map((unit) => unit.component_id)],
    );
    return rows.map((row) => row.id);
  }
}
