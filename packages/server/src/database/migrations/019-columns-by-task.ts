import type { Knex } from 'knex';
import { SUPPLIED_VIEWS } from '../supplied-views.ts';

/** Supplied column sets are named by what people are there for, and there are some of strands. */
export async function up(db: Knex): Promise<void> {
  await db('saved').where({ supplied: true }).whereIn('what', ['columns', 'strand-columns']).delete();
  for (const one of SUPPLIED_VIEWS)
    if (one.what !== 'search') await db('saved').insert({ ...one, body: JSON.stringify(one.body), shared: true, supplied: true, owner: 'supplied' });
}
