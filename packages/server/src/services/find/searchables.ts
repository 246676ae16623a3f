import { LEVELS, parseSearch, type Condition, type Level, type Search, type Searchable } from '@fadenweg/core';
import type { DeclarationRepository } from '../../repositories/declarations.ts';
import type { IdentifierRepository } from '../../repositories/identifiers.ts';
import type { Names } from '../../repositories/names.ts';
import type { RecordRepository, RecordRow } from '../../repositories/records.ts';
import type { SourceRepository } from '../../repositories/sources.ts';
import type { StrandRepository } from '../../repositories/strands.ts';

/** What has to be looked up beside the rows of records, for what is asked about them. */
export interface Needed {
  kinds: ReadonlySet<string>;
  identifiers: boolean;
  strand: boolean;
  shape: boolean;
}

/** Rows of the database as searches see records. */
export class Searchables {
  constructor(
    private readonly records: RecordRepository,
    private readonly sources: SourceRepository,
    private readonly identifiers: IdentifierRepository,
    private readonly strands: StrandRepository,
    private readonly declarations: DeclarationRepository,
    private readonly names: Names,
  ) {}

  /** @param fields further fields that are asked for, '*' for whatever there is */
  async needed(searches: readonly Search[], fields: readonly string[] = []): Promise<Needed> {
    const names = [...searches.flatMap(fieldNames), ...fields];
    const kinds = new Set((await this.declarations.kinds()).map((kind) => kind.name));
    const all = names.includes('*');
    return {
      kinds,
      identifiers: all || names.some((name) => kinds.has(name)),
      strand: all || names.includes('flow') || names.includes('outcome'),
      shape: all || names.includes('shape'),
    };
  }

  async of(rows: readonly RecordRow[], needed: Needed): Promise<Searchable[]> {
    const [sources, named, strands, shapes] = await Promise.all([
      this.sources.byIds(rows.map((row) => row.source_id)),
      needed.identifiers ? this.identifiers.named(rows.flatMap((row) => row.keys ?? [])) : null,
      needed.strand ? this.strandsOf(rows) : null,
      needed.shape ? this.records.shapes(rows.map((row) => row.shape)) : null,
    ]);
    return rows.map((row, i) => {
      const source = sources.get(row.source_id);
      return {
        at: row.at,
        level: row.level as Level,
        component: this.names.component(row.component_id),
        host: this.names.host(row.host_id),
        environment: source?.environment ?? '',
        source: source?.path ?? '',
        logger: row.logger,
        message: row.message,
        shape: shapes?.get(row.shape) ?? '',
        took: row.took ?? NaN,
        fields: row.attributes ?? {},
        identifiers: named === null ? [] : (row.keys ?? []).flatMap((key) => named.get(key) ?? []),
        flow: strands?.[i]?.flow ?? '',
        outcome: strands?.[i]?.outcome ?? '',
      };
    });
  }

  private async strandsOf(rows: readonly RecordRow[]): Promise<({ flow: string | null; outcome: string } | undefined)[]> {
    const founders = await this.foundersOf(rows);
    const found = new Map((await this.strands.byFounders(founders.filter((founder) => founder !== null))).map((row) => [row.founder, row]));
    return founders.map((founder) => found.get(founder ?? NaN));
  }

  /** The key that founded the strand of each record, null for a record of none. */
  async foundersOf(rows: readonly RecordRow[]): Promise<(number | null)[]> {
    const tying = rows.flatMap((row, i) => (row.home === null ? [] : [{ i, key: row.home, at: row.at }]));
    const founders = await this.identifiers.foundersAt(tying);
    const result = rows.map((): number | null => null);
    tying.forEach(({ i }, place) => (result[i] = founders[place] ?? null));
    return result;
  }
}

/** The names of all fields that a search asks about. */
export function fieldNames(search: Search): string[] {
  const names: string[] = [];
  const walk = (condition: Condition): void => {
    if ('parts' in condition) condition.parts.forEach(walk);
    else if ('part' in condition) walk(condition.part);
    else names.push(condition.field.name);
  };
  if (search.condition) walk(search.condition);
  return names;
}
export const parsedRule = (q: string): Search => parseSearch(q).search ?? { words: [], condition: null };
export const levelText = (text: string): string => LEVELS[Number(text)] ?? text;
