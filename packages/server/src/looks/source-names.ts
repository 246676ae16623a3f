import { namesByFolder } from '@fadenweg/core/reading';
import type { Database } from '../database/connect.ts';
import type { Names } from '../evidence/names.ts';
import type { SourceRow } from '../evidence/sources.ts';

const MOST_SOURCES = 5000;
type Own = Pick<SourceRow, 'id' | 'path' | 'environment' | 'component_id' | 'host_id' | 'component_fixed' | 'host_fixed'> & {
  shapes: number[] | null;
};
export interface BetterNames {
  id: number;
  component_id: number;
  host_id: number;
}

/** Finds out, once an import is read, which folders are those of machines: they name the host, and the files in them what wrote them. */
export class SourceNames {
  constructor(
    private readonly db: Database,
    private readonly names: Names,
  ) {}

  /** Sources whose component or host has to be another one, of the environments that an import belongs to. Those that a person or their records name stay. */
  async better(importId: number): Promise<BetterNames[]> {
    const environments: string[] = await this.db('source').where({ import_id: importId }).distinct('environment').pluck('environment');
    const found: BetterNames[] = [];
    for (const environment of environments) {
      const own: Own[] = await this.db('source')
        .where({ environment, state: 'done' })
        .orderBy('id', 'desc')
        .limit(MOST_SOURCES)
        .select(
          'id',
          'path',
          'environment',
          'component_id',
          'host_id',
          'component_fixed',
          'host_fixed',
          this.db.raw(`reader_state->'shapes' as shapes`),
        );
      const beside = own.map(({ path, shapes }) => ({ path, shapes: shapes ?? [] }));
      const namesOf = namesByFolder(beside, await this.hostsOf(environment));
      for (const source of own) {
        const { component, host } = namesOf({
          path: source.path,
          component: this.names.component(source.component_id),
          host: this.names.host(source.host_id),
          componentFixed: source.component_fixed,
          hostFixed: source.host_fixed,
        });
        const better = { id: source.id, component_id: await this.names.idOf('component', component), host_id: await this.names.idOf('host', host) };
        if (better.component_id !== source.component_id || better.host_id !== source.host_id) found.push(better);
      }
    }
    return found;
  }

  private async hostsOf(environment: string): Promise<Set<string>> {
    const { rows } = await this.db.raw<{ rows: { name: string }[] }>(
      `select name from host h where name <> '' and exists (
         select from speaker s join source o on o.id = s.source_id where s.host_id = h.id and o.environment = ?) limit 20000`,
      [environment],
    );
    return new Set(rows.map((row) => row.name));
  }
}
