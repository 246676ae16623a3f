import type { Database } from '../database/connect.ts';

/** Groups of flows, as people name them. */
export class FlowGroups {
  constructor(private readonly db: Database) {}

  /** By flow; '' is what has none. */
  async all(): Promise<Map<string, string>> {
    const rows: { flow: string; name: string }[] = await this.db('flow_group').select('flow', 'name');
    return new Map(rows.map((one) => [one.flow, one.name]));
  }

  /** @param name '' takes it out of its group */
  async put(flow: string, name: string, who: string): Promise<void> {
    if (name === '') await this.db('flow_group').where({ flow }).delete();
    else {
      const row = { name, changed_by: who, changed_at: this.db.fn.now() };
      await this.db('flow_group').insert({ flow, ...row }).onConflict('flow').merge(row); // prettier-ignore
    }
  }
}
