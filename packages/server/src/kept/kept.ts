import type { Access } from '../platform/access.ts';
import type { QuietRuleBody, QuietRuleInfo, Saved, WeightRuleBody, WeightRuleInfo } from '@fadenweg/api';
import { HEARTBEATS, recurring, type Series } from '@fadenweg/core/quiet';
import { weightIndex, weightName } from '@fadenweg/core/weights';
import type { Database } from '../database/connect.ts';

interface QuietRow {
  name: string;
  label: string;
  why: string;
  q: string;
  is_on: boolean;
  supplied: boolean;
  changed_by: string;
}
interface SavedRow {
  id: number;
  what: Saved['what'];
  name: string;
  body: Saved['body'];
  shared: boolean;
  supplied: boolean;
  owner: string;
  changed_at: Date;
}
const savedOf = ({ changed_at, ...row }: SavedRow): Saved => ({ ...row, changedAt: changed_at.toISOString() }) as Saved;

/** Longest stretch that is looked at for what recurs, in microseconds, and how many of one look. */
const LEARNED_FROM = 86_400_000_000;
const MOST_SERIES = 300;
const MOST_TIMES = 20_000;
export const MOST_WEIGHTS = 100;

/** What people keep: quiet rules, saved searches, column sets. */
export class KeptRepository {
  constructor(private readonly db: Database) {}

  async quietRules(): Promise<QuietRuleInfo[]> {
    const rows: QuietRow[] = await this.db<QuietRow>('quiet_rule')
      .orderBy([{ column: 'supplied', order: 'desc' }, 'label'])
      .limit(500);
    return rows.map(({ is_on, changed_by, name, label, why, q, supplied }) => ({ name, label, why, q, on: is_on, supplied, changedBy: changed_by }));
  }
  async saveQuietRule({ name, label, why, q, on }: QuietRuleBody, access: Access): Promise<void> {
    const row = { label, why, q, is_on: on, changed_by: access.who, changed_at: this.db.fn.now() };
    await this.db('quiet_rule')
      .insert({ name, ...row })
      .onConflict('name')
      .merge(row);
  }
  async removeQuietRule(name: string): Promise<boolean> {
    return (await this.db('quiet_rule').where({ name, supplied: false }).delete()) > 0;
  }
  /** The latest changed first: it decides. */
  async weightRules(): Promise<WeightRuleInfo[]> {
    const rows: { name: string; label: string; q: string; weight: number; changed_by: string }[] = await this.db('weight_rule').orderBy('changed_at', 'desc').limit(MOST_WEIGHTS); // prettier-ignore
    return rows.map(({ name, label, q, weight, changed_by }) => ({ name, label, q, weight: weightName(weight), changedBy: changed_by }));
  }
  async saveWeightRule({ name, label, q, weight }: WeightRuleBody, access: Access): Promise<void> {
    const row = { label, q, weight: weightIndex(weight), changed_by: access.who, changed_at: this.db.fn.now() };
    await this.db('weight_rule').insert({ name, ...row }).onConflict('name').merge(row); // prettier-ignore
  }
  async removeWeightRule(name: string): Promise<boolean> {
    return (await this.db('weight_rule').where({ name }).delete()) > 0;
  }
  /** Keeps what was learned to recur. */
  async learnHeartbeats(q: string): Promise<void> {
    await this.db('quiet_rule').where({ name: HEARTBEATS.name }).update({ q });
  }

  /** What recurs on the last day of the evidence among records of no strand. */
  async recurringBefore(end: number, component: (id: number) => string): Promise<ReturnType<typeof recurring>> {
    const { rows } = await this.db.raw<{ rows: { component_id: number; text: string; times: number[] }[] }>(
      `select g.component_id, s.text, g.times from (
         select component_id, shape, array_agg(at order by at) as times from record
           where at >= ? and at <= ? and home is null and level <= 3 group by component_id, shape having count(*) between 12 and ? order by count(*) desc limit ?) g
         join shape s on s.id = g.shape`,
      [end - LEARNED_FROM, end, MOST_TIMES, MOST_SERIES],
    );
    const series: Series[] = rows.map((row) => ({ component: component(row.component_id), shape: row.text, times: row.times.map(Number) }));
    return recurring(series);
  }

  async saved(what: Saved['what']): Promise<Saved[]> {
    const rows = await this.db<SavedRow>('saved')
      .where({ what })
      .orderBy([{ column: 'supplied' }, { column: 'name' }])
      .limit(500);
    return rows.map(savedOf);
  }
  async savedById(id: number): Promise<Saved | undefined> {
    const row = await this.db<SavedRow>('saved').where({ id }).first();
    return row && savedOf(row);
  }
  async keep({ what, name, body, shared }: Pick<Saved, 'what' | 'name' | 'body' | 'shared'>, access: Access): Promise<Saved> {
    const rows = await this.db<SavedRow>('saved')
      .insert({ what, name, body: JSON.stringify(body) as never, shared, owner: access.who })
      .returning('*');
    return savedOf(rows[0] as SavedRow);
  }
  async change(id: number, { name, body, shared }: Pick<Saved, 'name' | 'body' | 'shared'>): Promise<Saved | undefined> {
    const rows = await this.db<SavedRow>('saved')
      .where({ id, supplied: false })
      .update({ name, body: JSON.stringify(body) as never, shared, changed_at: this.db.fn.now() as never })
      .returning('*');
    return rows[0] && savedOf(rows[0] as SavedRow);
  }
  async forget(id: number): Promise<boolean> {
    return (await this.db('saved').where({ id, supplied: false }).delete()) > 0;
  }
}
