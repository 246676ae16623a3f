import type { CallTie } from '@fadenweg/api';
import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';
import { CALL, type CallRow } from '../weaving/call-layout.ts';
import type { StrandRow } from '../weaving/strand-layout.ts';

export type ListedCall = CallRow & Pick<StrandRow, 'value' | 'kind_id' | 'flow' | 'outcome' | 'headline'>;
export type CallSort = '-started' | '-setup' | '-talking' | 'talking' | '-postdial';
export interface CallFilter {
  from: Microseconds;
  to: Microseconds;
  environment: readonly string[];
  /** Names as they are kept: any of them as caller, called or reached. */
  numbers?: readonly string[];
  caller?: readonly string[];
  called?: readonly string[];
  state?: readonly string[];
  status?: readonly number[];
  outcome?: readonly string[];
}
export interface CallCursor {
  value: number;
  founder: number;
}
/** Expressions that a list is ordered by; what has no such time comes last. */
const ORDER: Record<CallSort, string> = {
  '-started': 'c.begun_at',
  '-setup': 'coalesce(c.set_up, -1)',
  '-postdial': 'coalesce(c.post_dial, -1)',
  '-talking': 'coalesce(c.talking, -1)',
  talking: 'coalesce(c.talking, 9000000000000000)',
};
/** So many of a flow's latest calls tell what is usual. */
const USUAL_OF = 500;
const FEWEST = 20;
const MOST_TIES = 20;

/** What is kept of calls. */
export class CallRepository {
  constructor(private readonly db: Database) {}

  /** The order's own value of a row, for the place behind it. */
  async list(filter: CallFilter, sort: CallSort, after: CallCursor | null, limit: number): Promise<(ListedCall & { place: number })[]> {
    const { sql, bindings } = whereOf(filter);
    const up = !sort.startsWith('-');
    const [way, order] = [up ? '>' : '<', up ? 'asc' : 'desc'];
    // what is told of a call is long: only that of the page is carried through the sorting
    const { rows } = await this.db.raw<{ rows: (ListedCall & { place: number })[] }>(
      `with page as (
         select c.founder, ${ORDER[sort]} as place from call_told c join strand s using (founder)
           where ${sql} ${after ? `and (${ORDER[sort]}, c.founder) ${way} (?, ?)` : ''} order by ${ORDER[sort]} ${order}, c.founder ${order} limit ?)
       select ${CALL.sql('c')}, s.value, s.kind_id, s.flow, s.outcome, s.headline, page.place from page join call_told c using (founder) join strand s using (founder)
         order by page.place ${order}, founder ${order}`,
      [...bindings, ...(after ? [after.value, after.founder] : []), limit],
    );
    return rows;
  }

  async counts(filter: CallFilter): Promise<{ state: string; count: number }[]> {
    const { sql, bindings } = whereOf(filter);
    const { rows } = await this.db.raw<{ rows: { state: string; count: number }[] }>(
      `select c.state, count(*)::bigint as count from call_told c ${filter.outcome ? 'join strand s using (founder)' : ''} where ${sql} group by 1`,
      bindings,
    );
    return rows;
  }

  /** Medians and what one in twenty calls of a flow exceeds, of those before one; null where there are few. */
  async usual(flow: string, before: Microseconds): Promise<{ postDial: Usually | null; setUp: Usually | null }> {
    const { rows } = await this.db.raw<{ rows: { count: number; dial: number[] | null; setup: number[] | null }[] }>(
      `select count(*)::bigint as count, percentile_disc(array[0.5, 0.95]) within group (order by post_dial) as dial,
          percentile_disc(array[0.5, 0.95]) within group (order by set_up) as setup
         from (select c.post_dial, c.set_up from call_told c join strand s using (founder) where s.flow = ? and c.begun_at < ? order by c.begun_at desc limit ?) latest`,
      [flow, before, USUAL_OF],
    );
    const { count, dial, setup } = rows[0]!;
    const usually = (at: number[] | null): Usually | null => (at && at[0] !== null && count >= FEWEST ? { middle: at[0]!, most: at[1]! } : null);
    return { postDial: usually(dial), setUp: usually(setup) };
  }

  /** How the dialogs of a call are told to be one. */
  async ties(founder: number): Promise<CallTie[]> {
    const { rows } = await this.db.raw<{ rows: { how: CallTie['how']; sure: number; one: string; other: string }[] }>(
      `select t.how, t.sure, a.told::json ->> 'callId' as one, b.told::json ->> 'callId' as other
         from dialog a join dialog_tie t on a.key in (t.a, t.b) join dialog b on b.key in (t.a, t.b) and b.founder = a.founder
           and (b.begun_at, b.key) > (a.begun_at, a.key)
         where a.founder = ? order by a.begun_at, b.begun_at limit ?`,
      [founder, MOST_TIES],
    );
    return rows.map(({ how, sure, one, other }) => ({ callIds: [one, other], how, sure: Math.round(sure * 100) / 100 }));
  }
  async one(founder: number): Promise<CallRow | undefined> {
    return this.db<CallRow>('call_told').where({ founder }).first();
  }
}
type Bound = number | string[] | number[];
/** In microseconds. */
export interface Usually {
  middle: number;
  most: number;
}

function whereOf({ from, to, environment, numbers, caller, called, state, status, outcome }: CallFilter): { sql: string; bindings: Bound[] } {
  const parts = ['c.begun_at >= ? and c.begun_at < ?'];
  const bindings: Bound[] = [from, to];
  const add = (sql: string, ...own: Bound[]): void => {
    parts.push(sql);
    bindings.push(...own);
  };
  if (environment.length > 0) add('c.environment = any(?::text[])', [...environment]);
  if (numbers) {
    const any = [...numbers];
    add('(c.caller = any(?::text[]) or c.called = any(?::text[]) or (c.final = any(?::text[]) and c.final <> c.called))', any, any, any);
  }
  if (caller) add('c.caller = any(?::text[])', [...caller]);
  if (called) add('c.called = any(?::text[])', [...called]);
  if (state) add('c.state = any(?::text[])', [...state]);
  if (status) add('c.status = any(?::int[])', [...status]);
  if (outcome) add('s.outcome = any(?::text[])', [...outcome]);
  return { sql: parts.join(' and '), bindings };
}
