import type pg from 'pg';
import { Usual, type FlowUsual } from '@fadenweg/core/usual';
import { transactionOn } from '../database/transaction.ts';
import { learn, type LearnContext } from './learn.ts';

/** It is learned anew when there are so many times as many strands; those that were judged by it before are judged again then, so that lists and pages say the same. */
const GROWN = 2;
/** Of so few it is learned anew at the end of each import and of each reading again, and all are judged again: whatever order files and declarations came in. */
const FEW = 5000;
const MARK = 'usual';

/** What is usual for each flow, kept in the database and learned anew when there is much more to learn from. */
export class Usuals {
  /**
   * Learns it anew if that is due.
   *
   * @param strands how many there are
   * @param all what strands are has changed
   * @param ending whether an import, or reading again, ends with this
   * @returns founders of strands that have to be judged again for it
   */
  async renew(client: pg.Client, context: LearnContext, strands: number, all: boolean, ending: boolean): Promise<number[]> {
    const { rows } = await client.query<{ value: string }>('select value from mark where name = $1', [MARK]);
    const before = Number(rows[0]?.value ?? 0);
    const few = ending && strands < FEW;
    if (!all && !few && strands < before * GROWN) return [];
    const learned = await learn(client, context);
    await transactionOn(client, async () => {
      const flows = [...learned].sort(([one], [other]) => (one < other ? -1 : 1));
      for (const [flow, usual] of flows) await client.query('update flow set usual = $2 where name = $1', [flow, usual && JSON.stringify(usual)]);
      await client.query('insert into mark (name, value) values ($1, $2) on conflict (name) do update set value = excluded.value', [
        MARK,
        String(strands),
      ]);
    });
    // what has no number belongs to the flow that begins like it, which may show only now
    const { rows: owed } = await client.query<{ founder: number }>(
      `select founder from strand where flow is not null or kind_id in (select id from identifier_kind where definition->>'role' <> 'business')
       union select t.founder from tie t where t.key = t.founder and not exists (select from strand s where s.founder = t.founder)`,
    );
    return owed.map((row) => row.founder);
  }

  async known(client: pg.Client): Promise<Map<string, Usual>> {
    const { rows } = await client.query<{ name: string; usual: FlowUsual }>('select name, usual from flow where usual is not null');
    return new Map(rows.map(({ name, usual }) => [name, new Usual(usual)]));
  }

  /** How long strands that went well take, by flow. */
  async noteMedians(client: pg.Client): Promise<void> {
    await client.query(`update flow f set usual_us = u.median from (
      select flow, percentile_disc(0.5) within group (order by duration) as median from strand where outcome = 'done' and flow is not null group by flow) u where u.flow = f.name`);
  }
}
