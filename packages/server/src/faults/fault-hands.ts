import { headsOf, partOf, type Together } from '@fadenweg/core/faults';
import { excerptSql } from '@fadenweg/core/path';
import type { Knex } from 'knex';
import type { Database } from '../database/connect.ts';
import { transaction } from '../database/transaction.ts';

export interface HandRow {
  id: number;
  kind: 'together' | 'parted';
  /** What was taken in, or parted. */
  fault: number;
  /** As what it counts, or what was made of it. */
  other: number;
  words: string;
  who: string;
  said_at: Date;
}
/** Records of a fault that hold some words, letter for letter, as far as an excerpt of them is looked at. */
const HOLDING = `from fault_record f join record r on r.at = f.at and r.id = f.id where f.fault = :fault and strpos(${excerptSql('r.message')}, :words) > 0`;

/** What people put together and part. */
export class FaultHands {
  constructor(private readonly db: Database) {}

  /** What was done with any of some faults, the latest first. */
  async of(ids: readonly number[]): Promise<HandRow[]> {
    return this.db<HandRow>('fault_hand').whereIn('fault', [...ids]).orWhereIn('other', [...ids]).orderBy('id', 'desc'); // prettier-ignore
  }

  async together(fault: number, head: number, who: string): Promise<void> {
    await transaction(this.db, async (trx) => {
      await trx('fault_hand').insert({ kind: 'together', fault, other: head, who });
      await writeHeads(trx);
    });
  }

  /** How many of its records hold some words, and how many do not. */
  async holding(fault: number, words: string): Promise<{ records: number; of: number }> {
    const { rows } = await this.db.raw<{ rows: { records: number; of: number }[] }>(
      `select (select count(*) ${HOLDING})::int as records, (select count(*) from fault_record where fault = :fault)::int as of`,
      { fault, words },
    );
    return rows[0]!;
  }

  /**
   * Makes a fault of its own of what holds some words.
   *
   * @returns its number, and founders of the strands that are to be judged again
   */
  async part(fault: number, words: string, who: string): Promise<{ part: number; founders: number[] }> {
    const part = partOf(fault, words);
    return transaction(this.db, async (trx) => {
      await trx.raw(
        `insert into fault (id, component, types, calls, shape, traits, words)
           select :part, component, types, calls, shape, traits, case when words = '' then :words else words || '”, “' || :words end from fault where id = :fault on conflict do nothing`,
        { part, fault, words },
      );
      await trx('fault_hand').insert({ kind: 'parted', fault, other: part, words, who });
      await movePart(trx, { part, fault, words });
      return { part, founders: await foundersOf(trx, [fault]) };
    });
  }

  /** Takes back what was done by hand. @returns founders of the strands that are to be judged again */
  async takeBack({ id, kind, fault, other }: HandRow): Promise<number[]> {
    return transaction(this.db, async (trx) => {
      await trx('fault_hand').where({ id }).delete();
      if (kind === 'together') {
        await writeHeads(trx);
        return [];
      }
      // with it goes what was made of it
      const { rows } = await trx.raw<{ rows: { id: number }[] }>(
        `with recursive made as (select ?::bigint as id union select h.other from fault_hand h join made on h.fault = made.id and h.kind = 'parted') select id from made`,
        [other],
      );
      const made = rows.map((one) => one.id);
      const founders = await foundersOf(trx, made);
      await trx('fault_hand').where({ kind: 'parted' }).whereIn('fault', made).delete();
      await trx('fault_record').whereIn('fault', made).update({ fault });
      const left: HandRow[] = await trx<HandRow>('fault_hand').where({ kind: 'parted', fault }).orderBy('id');
      for (const one of left) await movePart(trx, { part: one.other, fault, words: one.words });
      return founders;
    });
  }
}

async function writeHeads(trx: Knex.Transaction): Promise<void> {
  const said: Together[] = await trx('fault_hand').where({ kind: 'together' }).orderBy('id').select('fault', 'other as head');
  const heads = headsOf(said);
  await trx('fault').whereNotNull('head').update({ head: null });
  await trx.raw('update fault f set head = h.head from unnest(?::bigint[], ?::bigint[]) h(id, head) where f.id = h.id', [
    [...heads.keys()],
    [...heads.values()],
  ]);
}
async function movePart(trx: Knex.Transaction, one: { part: number; fault: number; words: string }): Promise<void> {
  await trx.raw(
    `update fault_record m set fault = :part from (select f.at, f.id ${HOLDING}) h where m.fault = :fault and m.at = h.at and m.id = h.id`,
    one,
  );
}
async function foundersOf(trx: Knex.Transaction, faults: readonly number[]): Promise<number[]> {
  const { rows } = await trx.raw<{ rows: { founder: number }[] }>(
    `select founder from strand where fault = any(:faults) union select founder from strand where mentions <> '{}' and mentions && :faults::bigint[]`,
    { faults: [...faults] },
  );
  return rows.map((one) => one.founder);
}
