import type pg from 'pg';

/** Names by their numbers, and which components are database servers, by their logs. */
export class WeaverNames {
  readonly component = new Map<number, string>();
  readonly host = new Map<number, string>();
  readonly kind = new Map<number, string>();
  /** Of a source. */
  readonly environment = new Map<number, string>();
  readonly databases = new Set<string>();

  async load(client: pg.Client): Promise<void> {
    for (const [table, map] of [
      ['component', this.component],
      ['host', this.host],
      ['identifier_kind', this.kind],
    ] as const) {
      const { rows } = await client.query<{ id: number; name: string }>(`select id, name from ${table}`);
      for (const { id, name } of rows) map.set(id, name);
    }
    const { rows } = await client.query<{ id: number; environment: string; format: string; component: number }>(
      'select id, environment, format, component_id as component from source',
    );
    for (const { id, environment, format, component } of rows) {
      this.environment.set(id, environment);
      if (format.startsWith('postgresql')) this.databases.add(this.component.get(component) ?? '');
    }
  }
}
