import { componentOf, folderOf } from '../evidence/naming.ts';
import type { Database } from '../database/connect.ts';
import type { Names } from '../evidence/names.ts';
import type { SourceRow } from '../evidence/sources.ts';

const MOST_SOURCES = 5000;
/** So many folders beside each other have to be hosts that records name, and so large a part of them, before the others count as hosts too. */
const FEWEST = 2;
const SHARE = 0.3;

type Own = Pick<SourceRow, 'id' | 'path' | 'environment' | 'component_id' | 'host_id' | 'component_fixed' | 'host_fixed'>;
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
        .select('id', 'path', 'environment', 'component_id', 'host_id', 'component_fixed', 'host_fixed');
      const isHost = this.hostFolders(own, await this.hostsOf(environment));
      for (const source of own) {
        const folder = folderOf(source.path);
        if (!folder || !isHost(folder)) continue;
        const better = await this.betterOf(source, folder.name);
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
  private hostFolders(own: readonly Own[], hosts: ReadonlySet<string>): (folder: { name: string; above: string }) => boolean {
    const beside = new Map<string, Set<string>>();
    for (const { path } of own) {
      const folder = folderOf(path);
      if (!folder) continue;
      const names = beside.get(folder.above) ?? new Set<string>();
      beside.set(folder.above, names.add(folder.name));
    }
    const many = new Set<string>();
    for (const [above, names] of beside) {
      const known = [...names].filter((name) => hosts.has(name)).length;
      if (known >= FEWEST && known >= names.size * SHARE) many.add(above);
    }
    return ({ name, above }) => hosts.has(name) || many.has(above);
  }

  private async betterOf(source: Own, folder: string): Promise<BetterNames> {
    const byFolder = this.names.component(source.component_id) === componentOf(source.path);
    const component = !source.component_fixed && byFolder ? await this.names.idOf('component', componentOf(source.path, true)) : source.component_id;
    const host = !source.host_fixed && this.names.host(source.host_id) === '' ? await this.names.idOf('host', folder) : source.host_id;
    return { id: source.id, component_id: component, host_id: host };
  }
}
