import { compileSearch, type Search, type Searchable, type Test } from '@fadenweg/core';
import type { Names } from '../../repositories/names.ts';
import type { Cursor, RecordRepository, RecordRow } from '../../repositories/records.ts';
import type { SourceRepository } from '../../repositories/sources.ts';
import type { QuietRules } from '../quiet/quiet-rules.ts';
import { narrow, type Narrowing } from './narrowing.ts';
import { parsedRule, type Needed, type Searchables } from './searchables.ts';

export interface Asked {
  search: Search;
  from: number;
  to: number;
  environment?: string[];
  /** Numbers of sources: only these, or all but these. */
  sources?: { ids: number[]; out: boolean };
  /** Quiet rules take out of sight what they find. */
  quiet: boolean;
  order: 'oldest' | 'latest';
  after: Cursor | null;
}
export interface Visitor {
  /** Fields that `take` reads, '*' for whatever there is; none where it reads only the row. */
  fields?: readonly string[];
  /** Called for each record that is found, in order, until it answers false. */
  take(row: RecordRow, record: Searchable | null): boolean;
  /** A rule hid a record that was found. */
  hidden?(rule: string): void;
  /** Called for the rows that `take` is about to see, for what is looked up many at once. */
  prepare?(rows: readonly RecordRow[]): Promise<void>;
}

const ROWS = 1000;
const SHORTEST = 60_000_000;
const LONGEST = 30 * 86_400_000_000;
const FIRST = 3_600_000_000;
const LARGEST_ID = Number.MAX_SAFE_INTEGER;

/** Goes through records stretch after stretch of time, as long as a call may last: the database narrows, core decides, quiet rules hide. */
export class Scanner {
  constructor(
    private readonly records: RecordRepository,
    private readonly sources: SourceRepository,
    private readonly searchables: Searchables,
    private readonly names: Names,
    private readonly quiet: QuietRules,
  ) {}

  /** Nothing is looked for where there is no evidence. */
  async bounded(asked: Asked): Promise<Asked> {
    const { first, last } = await this.sources.evidence();
    return { ...asked, from: Math.max(asked.from, first), to: Math.min(asked.to, last + 1) };
  }

  /** Which share of the window lies behind a place, 0 to 1. */
  share({ from, to, order }: Asked, end: Cursor | null): number {
    if (end === null) return 1;
    const reached = order === 'oldest' ? end.at - from : to - end.at;
    return Math.min(1, Math.max(0, reached / Math.max(1, to - from)));
  }

  /**
   * @param budget milliseconds
   * @returns where to go on, null at the end of the window
   */
  async scan(asked: Asked, budget: number, visitor: Visitor): Promise<Cursor | null> {
    const rules = asked.quiet ? await this.quiet.on() : null;
    const needed = await this.searchables.needed([asked.search, ...(rules?.searches ?? []).map(parsedRule)], visitor.fields);
    const test: Test = compileSearch(asked.search);
    const narrowing = this.narrowing(asked, needed);
    const plain = asked.search.words.length === 0 && asked.search.condition === null && visitor.fields === undefined && !rules?.names.length;
    const until = Date.now() + budget;
    const latest = asked.order === 'latest';
    if (asked.from >= asked.to) return null;
    let cursor = asked.after ?? (latest ? { at: asked.to, id: 0 } : { at: asked.from - 1, id: LARGEST_ID });
    let slice = FIRST;
    for (;;) {
      const edge = latest ? Math.max(asked.from, cursor.at - slice) : Math.min(asked.to, cursor.at + slice);
      const begin = Date.now();
      const rows = await this.records.narrowed(latest ? edge : asked.from, latest ? asked.to : edge, latest, cursor, narrowing, ROWS);
      const records = plain ? null : await this.searchables.of(rows, needed);
      await visitor.prepare?.(rows);
      for (const [i, row] of rows.entries()) {
        const record = records === null ? null : records[i]!;
        if (record !== null && !test(record)) continue;
        const rule = rules && record ? rules.hides(record) : -1;
        if (rule >= 0) visitor.hidden?.(rules!.names[rule]!);
        else if (!visitor.take(row, record)) return row;
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

  private narrowing(asked: Asked, needed: Needed): Narrowing {
    const parts = [
      narrow(asked.search, { component: this.names.knownComponent, host: this.names.knownHost, isKind: (name) => needed.kinds.has(name) }),
    ];
    if (asked.environment)
      parts.push({ sql: 'r.source_id in (select id from source where environment = any(?))', bindings: [asked.environment], exact: true });
    if (asked.sources) parts.push({ sql: `${asked.sources.out ? 'not ' : ''}r.source_id = any(?)`, bindings: [asked.sources.ids], exact: true });
    return {
      sql: parts.map((part) => `(${part.sql})`).join(' and '),
      bindings: parts.flatMap((part) => part.bindings),
      exact: parts.every((part) => part.exact),
    };
  }
}
