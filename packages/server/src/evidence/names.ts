import type { Database } from '../database/connect.ts';

/** Components and hosts by name: small tables, kept in memory and added to as names come up. */
export class Names {
  private readonly byName = { component: new Map<string, number>(), host: new Map<string, number>() };
  private readonly byId = { component: new Map<number, string>(), host: new Map<number, string>() };

  constructor(private readonly db: Database) {}

  async load(): Promise<void> {
    for (const table of ['component', 'host'] as const) {
      const rows: { id: number; name: string }[] = await this.db(table).select('id', 'name');
      for (const { id, name } of rows) {
        this.byName[table].set(name, id);
        this.byId[table].set(id, name);
      }
    }
  }

  async idOf(table: 'component' | 'host', name: string): Promise<number> {
    const known = this.byName[table].get(name);
    if (known !== undefined) return known;
    await this.db(table).insert({ name }).onConflict('name').ignore();
    const row: { id: number } | undefined = await this.db(table).where({ name }).first('id');
    this.byName[table].set(name, row!.id);
    this.byId[table].set(row!.id, name);
    return row!.id;
  }

  component = (id: number): string => this.byId.component.get(id) ?? '';
  host = (id: number): string => this.byId.host.get(id) ?? '';
  components = (): string[] => [...this.byName.component.keys()].sort();
  hosts = (): string[] => [...this.byName.host.keys()].sort();
  componentEntries = (): [number, string][] => [...this.byId.component];
  knownComponent = (name: string): number | undefined => this.byName.component.get(name);
  knownHost = (name: string): number | undefined => this.byName.host.get(name);
}
