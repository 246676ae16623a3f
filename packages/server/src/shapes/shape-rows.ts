import type { SaidShape } from '@fadenweg/core/shapes';
import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';

const SLOT = 600_000_000;
export interface Stretch {
  from: Microseconds;
  to: Microseconds;
}
export interface ShapeRow {
  component: number;
  shape: number;
  /** Place of the stretch. */
  place: number;
  count: number;
  level: number;
}
/** Whose records count. */
export interface Where {
  environment: readonly string[];
  /** Only sources of this host, or all but these. */
  host?: { id: number; out: boolean };
}
/** A record of a shape, as much of it as tells its parameters and its strand. */
export interface ShapeRecord {
  at: Microseconds;
  id: number;
  home: number | null;
  lane: number | null;
  message: string;
}
const WITHIN = 'join source s on s.id = h.source_id where s.environment = any(:environment)';

/** How often shapes were said, by ten minutes. */
export class ShapeRepository {
  constructor(private readonly db: Database) {}

  /** By component and shape, how often in each of some stretches; of a stretch counts every slot that begins in it. */
  async within(stretches: readonly Stretch[], { environment, host }: Where): Promise<ShapeRow[]> {
    const ofHost = host === undefined ? '' : `and host_id ${host.out ? '<>' : '='} ?`;
    const { rows } = await this.db.raw<{ rows: ShapeRow[] }>(
      `with own as (select id from source where environment = any(?) ${ofHost})
       select h.component, h.shape, r.place - 1 as place, h.count, h.level from unnest(?::int[], ?::int[]) with ordinality r(begins, ends, place) cross join lateral (
         select component_id as component, shape, sum(count)::int as count, max(level) as level from shape_slot join own on own.id = source_id
           where slot >= r.begins and slot < r.ends group by 1, 2 having sum(count) > 0) h`,
      [[...environment], ...(host === undefined ? [] : [host.id]), stretches.map((one) => slotOf(one.from)), stretches.map((one) => slotOf(one.to))],
    );
    return rows.map((row) => ({ ...row, place: Number(row.place) }));
  }

  /** From when to when evidence reaches; null where there is none. */
  async evidence(environment: readonly string[]): Promise<Stretch | null> {
    const { rows } = await this.db.raw<{ rows: { from: Microseconds | null; to: Microseconds }[] }>('select min(first_at) as from, max(last_at) as to from source where environment = any(?) and records > 0', [[...environment]]); // prettier-ignore
    const { from, to } = rows[0]!;
    return from === null ? null : { from, to };
  }

  /** When each of some shapes was first said, in the evidence that there is. */
  async first(shapes: readonly number[], environment: readonly string[]): Promise<Map<number, Microseconds>> {
    const { rows } = await this.db.raw<{ rows: { shape: number; slot: number }[] }>(
      `select h.shape, min(h.slot) as slot from shape_slot h ${WITHIN} and h.shape = any(:shapes) group by 1`,
      { environment: [...environment], shapes: [...shapes] },
    );
    return new Map(rows.map((one) => [one.shape, one.slot * SLOT]));
  }

  /** Shapes that a component said in a stretch whose texts may fit one with ‹›. */
  async likely(text: string, component: number, { from, to }: Stretch, environment: readonly string[]): Promise<(SaidShape & { level: number })[]> {
    const { rows } = await this.db.raw<{ rows: (SaidShape & { level: number })[] }>(
      `select t.id, t.text, sum(h.count)::int as count, max(h.level) as level from shape_slot h join shape t on t.id = h.shape
         ${WITHIN} and h.component_id = :component and h.slot >= :from and h.slot < :to and (t.text = :text or t.text like :like) group by 1, 2 having sum(h.count) > 0 order by 3 desc, 1`,
      {
        environment: [...environment],
        component,
        from: slotOf(from),
        to: slotOf(to),
        text,
        like: text.replace(/[%_\\]/g, '\\$&').replaceAll('‹›', '%'),
      },
    );
    return rows;
  }

  /** Shapes that are one, over time. */
  async course(
    shapes: readonly number[],
    component: number,
    { from, to }: Stretch,
    environment: readonly string[],
  ): Promise<{ slot: number; count: number }[]> {
    const { rows } = await this.db.raw<{ rows: { slot: number; count: number }[] }>(
      `select h.slot, sum(h.count)::int as count from shape_slot h ${WITHIN} and h.shape = any(:shapes) and h.component_id = :component and h.slot >= :from and h.slot < :to group by 1 order by 1`,
      { environment: [...environment], shapes: [...shapes], component, from: slotOf(from), to: slotOf(to) },
    );
    return rows;
  }

  /** Some of their latest records in some slots. */
  async latest(
    shapes: readonly number[],
    component: number,
    slots: readonly number[],
    environment: readonly string[],
    most: number,
  ): Promise<ShapeRecord[]> {
    const { rows } = await this.db.raw<{ rows: ShapeRecord[] }>(
      `select r.at, r.id, r.home, r.lane, r.message from unnest(:slots::bigint[]) with ordinality u(slot, place) cross join lateral (
         select at, id, home, lane, message from record where at >= u.slot * ${SLOT} and at < (u.slot + 1) * ${SLOT} and component_id = :component and shape = any(:shapes)
           and source_id in (select id from source where environment = any(:environment)) limit :most) r order by r.at desc, r.id desc limit :most`,
      { environment: [...environment], shapes: [...shapes], component, slots: [...slots], most },
    );
    return rows;
  }

  async texts(shapes: readonly number[]): Promise<Map<number, string>> {
    const rows: { id: number; text: string }[] = await this.db('shape')
      .whereRaw('id = any(?::bigint[])', [[...new Set(shapes)]])
      .select('id', 'text');
    return new Map(rows.map((one) => [one.id, one.text]));
  }

  /** Of some strands how many of each flow, how many failed; and of all of these flows that began in a stretch. */
  async passing(
    founders: readonly number[],
    { from, to }: Stretch,
    environment: readonly string[],
  ): Promise<{ flow: string; strands: number; failed: number; all: number; usual: number }[]> {
    const { rows } = await this.db.raw<{ rows: { flow: string; strands: number; failed: number; all: number; usual: number }[] }>(
      `select o.*, count(s.*)::int as all, (count(*) filter (where s.outcome = 'failed'))::int as usual from (
           select coalesce(flow, '') as flow, count(*)::int as strands, (count(*) filter (where outcome = 'failed'))::int as failed from strand where founder = any(:founders) group by 1) o
         left join strand s on coalesce(s.flow, '') = o.flow and s.environment = any(:environment) and s.started_at >= :from and s.started_at < :to group by 1, 2, 3 order by 2 desc, 1`,
      { founders: [...founders], from, to, environment: [...environment] },
    );
    return rows;
  }
}
/** A slot counts where it begins. */
export const slotOf = (at: Microseconds): number => Math.ceil(at / SLOT);
export const SLOT_LENGTH = SLOT;
