import { compileSearch, type Search, type Searchable, type Test } from '@fadenweg/core';
import type { Names } from '../../repositories/names.ts';
import { COLUMNS, type Cursor, type RecordRepository, type RecordRow } from '../../repositories/records.ts';
import type { SourceRepository } from '../../repositories/sources.ts';
import type { ActiveRules, QuietRules } from '../quiet/quiet-rules.ts';
import { both, either, narrow, type Narrowing } from './narrowing.ts';
import { parsedRule, strandCache, type Needed, type Searchables, type StrandCache } from './searchables.ts';

export interface Asked {
  search: Search;
  from: number;
  to: number;
  environment?: string[];
  /** Numbers of sources: only these, or all but these. */
  sources?: { ids: number[]; out: boolean };
  /** Only records with these ids, each from the first up to but without the second. */
  ids?: (readonly [number, number])[];
  /** Quiet rules take out of sight what they find. */
  quiet: boolean;
  order: 'oldest' | 'latest';
  after: Cursor | null;
}
export interface Visitor {
  /** Fields that `take` reads of the record, '*' for whatever there is; none where it reads only the row. */
  fields?: readonly string[];
  /** How many records are likely to be enough: so many are fetched first. */
  enough?: number;
  /** `take` reads all columns of the row, not only time, id, source, names and level. */
  whole?: boolean;
  /** Called for each record that is found, in order, until it answers false. */
  take(row: RecordRow, record: Searchable | null): boolean;
  /** A rule hid a record that was found. */
  hidden?(rule: string, row: RecordRow): void;
  /** Called for the rows that `take` is about to see, for what is looked up many at once. */
  prepare?(rows: readonly RecordRow[], cache: StrandCache): Promise<void>;
}
/** Only records that some quiet rule hides, for counting them. */
export type Scope = 'found' | 'only-hidden';

/** Rows of one query, with all of their columns and with few. */
const WHOLE_ROWS = 1000;
const MANY_ROWS = 4000;
const SHORTEST = 60_000_000;
const LONGEST = 30 * 86_400_000_000;
const FIRST = 3_600_000_000;
const LARGEST_ID = Number.MAX_SAFE_INTEGER;

/** The next slice: as long as keeps a query near `wanted`, whatever it looks for, and within what is `left` of the call. */
const next = (slice: number, took: number, left: number, wanted: number): number =>
  Math.round(Math.min(LONGEST, Math.max(SHORTEST, slice * Math.min(3, Math.max(0.2, Math.min(wanted, Math.max(left, SHORT)) / Math.max(1, took))))));
/** In milliseconds: a query that is asked at all is worth this much. */
const SHORT = 15;
/** A query takes about this share of a call: few long ones go through more than many short ones, but a call of one query is late by as much. */
const SHARE = 0.4;

/** Rows of a stretch, and how long the database took for them, in milliseconds, whatever was done beside it. */
interface Fetched {
  rows: RecordRow[];
  took: number;
}

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

  /** Whether each record of the window is found. */
  isAll({ search, environment, sources, ids, quiet }: Asked): boolean {
    return search.words.length === 0 && search.condition === null && !environment && !sources && !ids && !quiet;
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
  async scan(asked: Asked, budget: number, visitor: Visitor, scope: Scope = 'found'): Promise<Cursor | null> {
    if (asked.from >= asked.to) return null;
    const rules = asked.quiet ? await this.quiet.on() : null;
    const needed = await this.searchables.needed([asked.search, ...(rules?.searches ?? []).map(parsedRule)], visitor.fields);
    const test: Test = compileSearch(asked.search);
    let narrowing = this.narrowing(asked, needed);
    if (scope === 'only-hidden') narrowing = both([narrowing, this.narrowingOfRules(rules, needed)]);
    const plain = asked.search.words.length === 0 && asked.search.condition === null && visitor.fields === undefined && !rules?.names.length;
    const columns = visitor.whole ? COLUMNS : needed.columns;
    let most = Math.min(visitor.enough ?? MANY_ROWS, MANY_ROWS);
    const cache = strandCache();
    const until = Date.now() + budget;
    const latest = asked.order === 'latest';
    let sparse = false;
    let cursor = asked.after ?? (latest ? { at: asked.to, id: 0 } : { at: asked.from - 1, id: LARGEST_ID });
    const wanted = budget * SHARE;
    // a call that goes on begins with as much as was gone through before it
    let slice = asked.after ? Math.min(LONGEST, Math.max(FIRST, latest ? asked.to - asked.after.at : asked.after.at - asked.from)) : FIRST;
    const edgeOf = ({ at }: Cursor): number => (latest ? Math.max(asked.from, at - slice) : Math.min(asked.to, at + slice));
    const fetch = async (from: Cursor, edge: number): Promise<Fetched> => {
      const begin = Date.now();
      const rows = await this.records.narrowed(latest ? edge : asked.from, latest ? asked.to : edge, latest, from, narrowing, most, columns);
      return { rows, took: Date.now() - begin };
    };
    /** Where little is found, the stretch behind is asked for at the same time. */
    let ahead: { edge: number; fetched: Promise<Fetched> } | null = null;
    for (;;) {
      const edge: number = ahead?.edge ?? edgeOf(cursor);
      const fetching: Promise<Fetched> = ahead?.fetched ?? fetch(cursor, edge);
      const done = latest ? edge <= asked.from : edge >= asked.to;
      const behind: Cursor = latest ? { at: edge, id: 0 } : { at: edge - 1, id: LARGEST_ID };
      ahead = sparse && !done && Date.now() + wanted < until ? { edge: edgeOf(behind), fetched: fetch(behind, edgeOf(behind)) } : null;
      ahead?.fetched.catch(() => {}); // told when it is waited for, if it ever is
      const { rows, took: fetchTook } = await fetching;
      const begin = Date.now();
      const records = plain ? null : await this.searchables.of(rows, needed, cache);
      await visitor.prepare?.(rows, cache);
      for (const [i, row] of rows.entries()) {
        const record = records === null ? null : records[i]!;
        if (record !== null && !test(record)) continue;
        const rule = rules && record ? rules.hides(record) : -1;
        if (rule >= 0) visitor.hidden?.(rules!.names[rule]!, row);
        else if (!visitor.take(row, record)) return row;
      }
      const took = fetchTook + Date.now() - begin;
      sparse = rows.length < most / 4;
      if (rows.length === most) {
        cursor = rows[most - 1]!;
        ahead = null;
        most = Math.min(visitor.whole ? WHOLE_ROWS : MANY_ROWS, most * 2);
      } else {
        if (done) return null;
        cursor = behind;
        slice = next(slice, took, until - Date.now(), wanted);
      }
      if (Date.now() >= until) return cursor;
    }
  }

  /**
   * Counts by slot and level where the database can decide alone, from the latest back; the records that quiet rules may hide are looked at one by
   * one and taken off again. Null where it cannot: then they have to be gone through.
   */
  async tally(
    asked: Asked,
    budget: number,
    slot: { from: number; length: number },
    visitor: Required<Pick<Visitor, 'hidden'>> & { add(slot: number, level: number, count: number): void },
  ): Promise<{ end: Cursor | null } | null> {
    if (asked.from >= asked.to) return { end: null };
    const needed = await this.searchables.needed([asked.search]);
    const narrowing = this.narrowing(asked, needed);
    if (!narrowing.exact || (asked.after && asked.after.id !== 0)) return null;
    const until = Date.now() + budget;
    let to = asked.after?.at ?? asked.to;
    let slice = FIRST;
    while (to > asked.from) {
      const from = Math.max(asked.from, to - slice);
      const begin = Date.now();
      const [counts] = await Promise.all([
        this.records.tallied(from, to, narrowing, slot),
        asked.quiet
          ? this.scan({ ...asked, from, to, order: 'latest', after: null }, Infinity, { take: () => true, hidden: visitor.hidden }, 'only-hidden')
          : null,
      ]);
      for (const one of counts) visitor.add(one.slot, one.level, one.count);
      to = from;
      const took = Date.now() - begin;
      slice = next(slice, took, until - Date.now(), budget * SHARE);
      if (Date.now() >= until) break;
    }
    return { end: to > asked.from ? { at: to, id: 0 } : null };
  }

  private narrowing(asked: Asked, needed: Needed): Narrowing {
    const parts = [this.narrowingOf(asked.search, needed)];
    if (asked.environment)
      parts.push({ sql: 'r.source_id in (select id from source where environment = any(?))', bindings: [asked.environment], exact: true });
    if (asked.sources) parts.push({ sql: `${asked.sources.out ? 'not ' : ''}r.source_id = any(?)`, bindings: [asked.sources.ids], exact: true });
    if (asked.ids) parts.push({ sql: `(${asked.ids.map(() => '(r.id >= ? and r.id < ?)').join(' or ')})`, bindings: asked.ids.flat(), exact: true });
    return both(parts);
  }
  private narrowingOf(search: Search, needed: Needed): Narrowing {
    return narrow(search, { component: this.names.knownComponent, host: this.names.knownHost, isKind: (name) => needed.kinds.has(name) });
  }
  private narrowingOfRules(rules: ActiveRules | null, needed: Needed): Narrowing {
    return either((rules?.searches ?? []).map((q) => this.narrowingOf(parsedRule(q), needed)));
  }
}
