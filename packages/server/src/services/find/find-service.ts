import type { FieldValues, FoundPage, LevelName, TimelinePart } from '@fadenweg/api';
import { compileSearch, LEVELS, textsOf, type Condition, type Level, type Search, type Searchable, type Test } from '@fadenweg/core';
import type { DeclarationRepository } from '../../repositories/declarations.ts';
import type { IdentifierRepository } from '../../repositories/identifiers.ts';
import type { Names } from '../../repositories/names.ts';
import type { Cursor, RecordRepository, RecordRow } from '../../repositories/records.ts';
import type { SourceRepository } from '../../repositories/sources.ts';
import type { StrandRepository } from '../../repositories/strands.ts';
import { recordKey, type Presenter } from '../present.ts';
import { narrow, type Narrowing } from './narrowing.ts';

export interface Asked {
  search: Search;
  from: number;
  to: number;
  environment?: string[];
  order: 'oldest' | 'latest';
  after: Cursor | null;
}
/** How long one call searches, in milliseconds; the next goes on where it ended. */
const BUDGET = 220;
const ROWS = 1000;
const SHORTEST = 60_000_000;
const LONGEST = 30 * 86_400_000_000;
const FIRST = 3_600_000_000;
const LARGEST_ID = Number.MAX_SAFE_INTEGER;
/** Values are taken from so many records at most. */
const SAMPLE = 20_000;
const VALUES_BUDGET = 900;
const MOST_VALUES = 5000;

/** Searches records: stretch after stretch of time, as long as a call may last, so that the first are there at once and any search can be left. */
export class FindService {
  constructor(
    private readonly records: RecordRepository,
    private readonly sources: SourceRepository,
    private readonly identifiers: IdentifierRepository,
    private readonly strands: StrandRepository,
    private readonly declarations: DeclarationRepository,
    private readonly names: Names,
    private readonly presenter: Presenter,
  ) {}

  /** A page of what a search finds; fewer than asked where the time was over, `next` then goes on. */
  async page(question: Asked, limit: number): Promise<FoundPage> {
    const asked = await this.bounded(question);
    const found: RecordRow[] = [];
    const end = await this.scan(asked, BUDGET, (row) => {
      found.push(row);
      return found.length < limit;
    });
    return { items: await this.presenter.recordsOf(found), next: end === null ? null : recordKey(end), searched: this.share(asked, end) };
  }

  /** Counts by slot and level of as much as a call reaches, from the latest back. */
  async tally(question: Asked, slot: number): Promise<TimelinePart> {
    const asked = await this.bounded(question);
    const counts = new Map<number, Partial<Record<LevelName, number>>>();
    let total = 0;
    const end = await this.scan({ ...asked, order: 'latest' }, BUDGET, (row) => {
      const place = Math.floor((row.at - question.from) / slot);
      const own = counts.get(place) ?? {};
      const level = LEVELS[row.level] as LevelName;
      own[level] = (own[level] ?? 0) + 1;
      counts.set(place, own);
      total++;
      return true;
    });
    return {
      total,
      slots: [...counts].map(([place, own]) => ({ slot: place, counts: own })),
      next: end === null ? null : recordKey(end),
      searched: this.share(asked, end),
    };
  }

  /** The most frequent values of fields among the latest records that a search finds, all from the same records. */
  async values(question: Asked, fields: readonly string[], limit: number): Promise<FieldValues[]> {
    const asked = await this.bounded(question);
    const counts = fields.map(() => new Map<string, number>());
    const without = fields.map(() => 0);
    let looked = 0;
    const known = await this.context(asked.search, fields);
    const take = (_row: RecordRow, record: Searchable | null): boolean => {
      looked++;
      fields.forEach((field, i) => {
        const own = counts[i]!;
        const texts = record === null ? [] : textsOf(record, field);
        if (texts.length === 0) without[i]!++;
        for (const text of texts) {
          const value = field === 'level' ? LEVELS[Number(text)]! : text.slice(0, 300);
          if (own.has(value) || own.size < MOST_VALUES) own.set(value, (own.get(value) ?? 0) + 1);
        }
      });
      return looked < SAMPLE;
    };
    const end = await this.scan({ ...asked, order: 'latest' }, VALUES_BUDGET, take, known);
    return fields.map((field, i) => {
      const sorted = [...counts[i]!].sort(([one, x], [two, y]) => y - x || one.localeCompare(two));
      return {
        field,
        values: sorted.slice(0, limit).map(([value, count]) => ({ value, count })),
        distinct: sorted.length,
        records: looked,
        without: without[i]!,
        complete: end === null,
      };
    });
  }

  /** Nothing is looked for where there is no evidence. */
  private async bounded(asked: Asked): Promise<Asked> {
    const { first, last } = await this.sources.evidence();
    return { ...asked, from: Math.max(asked.from, first), to: Math.min(asked.to, last + 1) };
  }

  private share({ from, to, order }: Asked, end: Cursor | null): number {
    if (end === null) return 1;
    const reached = order === 'oldest' ? end.at - from : to - end.at;
    return Math.min(1, Math.max(0, reached / Math.max(1, to - from)));
  }

  private async context(search: Search, further: readonly string[] = []): Promise<Known> {
    const names = [...fieldNames(search), ...further];
    const kinds = new Set((await this.declarations.kinds()).map((kind) => kind.name));
    return { kinds, identifiers: names.some((name) => kinds.has(name)), strand: names.includes('flow') || names.includes('outcome') };
  }

  /**
   * Calls `take` for each record that is found, in order, until it answers false or the time is over.
   *
   * @returns where to go on, null at the end of the window
   */
  private async scan(
    asked: Asked,
    budget: number,
    take: (row: RecordRow, record: Searchable | null) => boolean,
    known?: Known,
  ): Promise<Cursor | null> {
    const about = known ?? (await this.context(asked.search));
    const test: Test = compileSearch(asked.search);
    const narrowing = this.narrowing(asked, about);
    const plain = asked.search.words.length === 0 && asked.search.condition === null && known === undefined;
    const until = Date.now() + budget;
    const latest = asked.order === 'latest';
    if (asked.from >= asked.to) return null;
    let cursor = asked.after ?? (latest ? { at: asked.to, id: 0 } : { at: asked.from - 1, id: LARGEST_ID });
    let slice = FIRST;
    for (;;) {
      const edge = latest ? Math.max(asked.from, cursor.at - slice) : Math.min(asked.to, cursor.at + slice);
      const begin = Date.now();
      const rows = await this.records.narrowed(latest ? edge : asked.from, latest ? asked.to : edge, latest, cursor, narrowing, ROWS);
      const records = plain ? null : await this.searchable(rows, about);
      for (const [i, row] of rows.entries()) {
        const record = records === null ? null : records[i]!;
        if ((record === null || test(record)) && !take(row, record)) return row;
      }
      const took = Date.now() - begin;
      if (rows.length === ROWS) cursor = rows[ROWS - 1]!;
      else {
        if (latest ? edge <= asked.from : edge >= asked.to) return null;
        cursor = latest ? { at: edge, id: 0 } : { at: edge - 1, id: LARGEST_ID };
        if (took < 50) slice = Math.min(LONGEST, slice * 3);
        else if (took > 150) slice = Math.max(SHORTEST, slice / 3);
      }
      if (Date.now() >= until) return cursor;
    }
  }

  private narrowing(asked: Asked, known: Known): Narrowing {
    const found = narrow(asked.search, { component: this.names.knownComponent, host: this.names.knownHost, isKind: (name) => known.kinds.has(name) });
    if (!asked.environment) return found;
    return {
      sql: `(${found.sql} and r.source_id in (select id from source where environment = any(?)))`,
      bindings: [...found.bindings, asked.environment],
      exact: found.exact,
    };
  }

  private async searchable(rows: readonly RecordRow[], known: Known): Promise<Searchable[]> {
    const [sources, named, strands] = await Promise.all([
      this.sources.byIds(rows.map((row) => row.source_id)),
      known.identifiers ? this.identifiers.named(rows.flatMap((row) => row.keys ?? [])) : null,
      known.strand ? this.strandsOf(rows) : null,
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
        took: row.took ?? NaN,
        fields: row.attributes ?? {},
        identifiers: named === null ? [] : (row.keys ?? []).flatMap((key) => named.get(key) ?? []),
        flow: strands?.[i]?.flow ?? '',
        outcome: strands?.[i]?.outcome ?? '',
      };
    });
  }

  private async strandsOf(rows: readonly RecordRow[]): Promise<({ flow: string | null; outcome: string } | undefined)[]> {
    const tying = rows.flatMap((row, i) => (row.home === null ? [] : [{ i, key: row.home, at: row.at }]));
    const founders = await this.identifiers.foundersAt(tying);
    const found = new Map((await this.strands.byFounders(founders.filter((founder) => founder !== null))).map((row) => [row.founder, row]));
    const result: ({ flow: string | null; outcome: string } | undefined)[] = rows.map(() => undefined);
    tying.forEach(({ i }, place) => (result[i] = found.get(founders[place] ?? NaN)));
    return result;
  }
}

interface Known {
  kinds: ReadonlySet<string>;
  /** The search asks for identifiers, for the strand. */
  identifiers: boolean;
  strand: boolean;
}

function fieldNames(search: Search): string[] {
  const names: string[] = [];
  const walk = (condition: Condition): void => {
    if ('parts' in condition) condition.parts.forEach(walk);
    else if ('part' in condition) walk(condition.part);
    else names.push(condition.field.name);
  };
  if (search.condition) walk(search.condition);
  return names;
}
