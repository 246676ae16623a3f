import type { CorrectedShape } from '@fadenweg/core/shapes';
import type { Database } from '../database/connect.ts';

export interface SaidOfShape {
  component: string;
  text: string;
  kind: string;
  note: string;
}

/** What people say of shapes: that some are one or stand apart, and that it is tolerated as what it is. */
export class ShapeHands {
  constructor(private readonly db: Database) {}

  /** By component, the latest said first. */
  async corrected(): Promise<Map<string, CorrectedShape[]>> {
    const rows: { component: string; text: string; is_one: boolean }[] = await this.db('shape_hand').orderBy('id', 'desc').select('component', 'text', 'is_one'); // prettier-ignore
    const found = new Map<string, CorrectedShape[]>();
    for (const { component, text, is_one } of rows) found.set(component, [...(found.get(component) ?? []), { text, is: is_one ? 'one' : 'apart' }]);
    return found;
  }
  async correct(component: string, text: string, is: CorrectedShape['is'] | null, who: string): Promise<void> {
    await this.db('shape_hand').where({ component, text }).delete();
    if (is !== null) await this.db('shape_hand').insert({ component, text, is_one: is === 'one', who });
  }

  tolerated(): Promise<SaidOfShape[]> {
    return this.db('shape_said').select('component', 'text', 'kind', 'note');
  }
  /** @param note why; null takes it back */
  async tolerate({ component, text, kind }: Omit<SaidOfShape, 'note'>, note: string | null, who: string): Promise<void> {
    const own = { component, text, kind };
    if (note === null) await this.db('shape_said').where(own).delete();
    else
      await this.db('shape_said')
        .insert({ ...own, note, who })
        .onConflict(['component', 'text', 'kind'])
        .merge({ note, who, said_at: this.db.fn.now() });
  }
}
