import { fieldNames, isOwn, parseSearch, type Search, type Searchable, type WeightRules } from '@fadenweg/core/search';
import { LEVELS, type Level } from '@fadenweg/core/units';
import { weightInMarks } from '@fadenweg/core/weights';
import type { ParameterFields, Parameters } from '../kept/parameters.ts';
import type { WeighedByPeople } from '../kept/weights.ts';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { Named } from '../evidence/identifiers.ts';
import type { RecordColumn, RecordRow } from '../evidence/record-layout.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { StrandRepository } from '../weaving/strand-rows.ts';

/** What has to be looked up beside the rows of records, for what is asked about them. */
export interface Needed {
  kinds: ReadonlySet<string>;
  identifiers: boolean;
  strand: boolean;
  shape: boolean;
  fault: boolean;
  /** What people say weighs how much; null where nothing asks for it. */
  weights: WeightRules | null;
  /** Parameters of shapes under names that are asked for; null where none is. */
  parameters: ParameterFields | null;
  /** Columns of the record that are read at all. */
  columns: RecordColumn[];
}
/** What every row brings along. */
const ALWAYS: RecordColumn[] = ['at', 'id', 'source_id', 'component_id', 'host_id', 'level'];

/** Rows of the database as searches see records. */
export class Searchables {
  constructor(
    private readonly evidence: Pick<EvidenceRows, 'records' | 'sources' | 'identifiers' | 'names'>,
    private readonly strands: StrandRepository,
    private readonly declarations: DeclarationRepository,
    private readonly weights: WeighedByPeople,
    private readonly parameters: Parameters,
  ) {}

  /** @param fields further fields that are asked for, '*' for whatever there is */
  async needed(searches: readonly Search[], fields: readonly string[] = []): Promise<Needed> {
    const asked = [...searches.flatMap(fieldNames), ...fields];
    const weights = asked.includes('weight') || asked.includes('*') ? await this.weights.on() : null;
    const ofWeights = weights?.searches.map((one) => one.search) ?? [];
    const names = [...asked, ...ofWeights.flatMap(fieldNames)];
    const kinds = new Set((await this.declarations.kinds()).map((kind) => kind.name));
    const all = names.includes('*');
    const asks = (...some: string[]): boolean => all || some.some((name) => names.includes(name));
    const identifiers = all || names.some((name) => kinds.has(name));
    const strand = asks('flow', 'outcome', 'strand');
    const named = await this.parameters.on();
    const parameters = asks(...named.named.keys()) && named.named.size > 0 ? named : null;
    const shape = asks('shape') || parameters !== null;
    const fault = asks('fault');
    const columns = [...ALWAYS];
    if (asks('message') || parameters !== null || [...searches, ...ofWeights].some((search) => search.words.length > 0)) columns.push('message');
    if (all || names.some((name) => !isOwn(name) || name === 'fault' || name === 'weight')) columns.push('attributes');
    if (identifiers) columns.push('keys');
    if (strand) columns.push('home', 'lane');
    if (shape) columns.push('shape');
    if (asks('took')) columns.push('took');
    if (asks('logger')) columns.push('logger');
    if (weights) columns.push('marks');
    return { kinds, identifiers, strand, shape, fault, weights, parameters, columns };
  }

  /** @param founders the keys that founded the strands of the rows, where they are known */
  async of(rows: readonly RecordRow[], needed: Needed, cache: SearchCache, founders?: readonly (number | null)[]): Promise<Searchable[]> {
    const [sources, named, strands, shapes, faults] = await Promise.all([
      learned(cache.sources, rows.map((row) => row.source_id), (ids) => this.evidence.sources.byIds(ids)), // prettier-ignore
      needed.identifiers ? learned(cache.named, rows.flatMap((row) => row.keys ?? []), (keys) => this.evidence.identifiers.named(keys)) : null, // prettier-ignore
      needed.strand ? this.strandsOf(founders ?? (await this.foundersOf(rows, cache)), cache) : null,
      needed.shape ? learned(cache.shapes, rows.map((row) => row.shape), (ids) => this.evidence.records.shapes(ids)) : null, // prettier-ignore
      needed.fault ? this.evidence.records.faultsOf(rows) : null,
    ]);
    return rows.map((row, i): Searchable => {
      const source = sources.get(row.source_id);
      const component = this.evidence.names.component(row.component_id);
      const shape = shapes?.get(row.shape) ?? '';
      const record: Searchable = {
        at: row.at,
        level: row.level as Level,
        component,
        host: this.evidence.names.host(row.host_id),
        environment: source?.environment ?? '',
        source: source?.path ?? '',
        logger: row.logger ?? '',
        message: row.message ?? '',
        shape,
        took: row.took ?? NaN,
        fields: fieldsOf(row, needed.parameters?.of(component, shape, row.message ?? '') ?? null),
        identifiers: named === null ? [] : (row.keys ?? []).flatMap((key) => named.get(key) ?? []),
        flow: strands?.[i]?.flow ?? '',
        outcome: strands?.[i]?.outcome ?? '',
        fault: faults?.get(row.id) ?? '',
        weight: weightInMarks(row.marks ?? 0),
      };
      const said = needed.weights?.weigh(record) ?? null;
      return said === null ? record : { ...record, weight: said };
    });
  }

  private async strandsOf(
    founders: readonly (number | null)[],
    cache: SearchCache,
  ): Promise<({ flow: string | null; outcome: string } | undefined)[]> {
    const known = await learned(cache.strands, founders.flatMap((founder) => founder ?? []), async (unknown) => {
      const rows = await this.strands.byFounders(unknown);
      return new Map(rows.map((row) => [row.founder, row]));
    }); // prettier-ignore
    return founders.map((founder) => known.get(founder ?? NaN));
  }

  /** The key that founded the strand of each record, null for a record of none. Neighbours share most of their keys: each tie is looked up once. */
  async foundersOf(rows: readonly RecordRow[], cache: SearchCache): Promise<(number | null)[]> {
    const result = rows.map((): number | null => null);
    const carried = await this.evidence.records.carriedHomes(rows);
    let open = rows.flatMap((row, i) => {
      const key = row.home ?? carried.get(row.id) ?? null;
      return key === null ? [] : [{ i, key, at: row.at }];
    });
    // first one of each key, then whatever its answer did not settle
    for (const round of ['keys', 'all']) {
      const places: typeof open = [];
      const asked = new Set<number>();
      const left: typeof open = [];
      for (const one of open) {
        const tie = cache.ties.get(one.key)?.find(({ valid_from, valid_to }) => valid_from <= one.at && one.at <= valid_to);
        if (tie) result[one.i] = tie.founder;
        else if (round === 'keys' && asked.has(one.key)) left.push(one);
        else {
          asked.add(one.key);
          places.push(one);
        }
      }
      (await this.evidence.identifiers.tiesAt(places)).forEach((tie, place) => {
        const { i, key } = places[place]!;
        if (!tie) return;
        result[i] = tie.founder;
        cache.ties.set(key, [...(cache.ties.get(key) ?? []), tie]);
      });
      open = left;
    }
    return result;
  }
}

/** What the record itself tells under a name comes first. */
const fieldsOf = ({ attributes }: RecordRow, parameters: Record<string, string> | null): Searchable['fields'] =>
  parameters === null ? (attributes ?? {}) : { ...parameters, ...attributes };

/** Looks up what is not known yet. */
async function learned<Known>(known: Map<number, Known>, ids: readonly number[], lookUp: (ids: number[]) => Promise<Map<number, Known>>) {
  const unknown = new Set<number>();
  for (const id of ids) if (!known.has(id)) unknown.add(id);
  if (unknown.size > 0) for (const [id, one] of await lookUp([...unknown])) known.set(id, one);
  return known;
}

/** What is known beside the records while one search runs. */
export interface SearchCache {
  sources: Map<number, { path: string; environment: string }>;
  shapes: Map<number, string>;
  named: Map<number, Named>;
  ties: Map<number, { founder: number; valid_from: number; valid_to: number }[]>;
  strands: Map<number, { flow: string | null; outcome: string }>;
}
export const searchCache = (): SearchCache => ({ sources: new Map(), shapes: new Map(), named: new Map(), ties: new Map(), strands: new Map() });

export const parsedRule = (q: string): Search => parseSearch(q).search ?? { words: [], condition: null };
export const levelText = (text: string): string => LEVELS[Number(text)] ?? text;
