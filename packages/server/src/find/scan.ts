import { compileSearch, type Search, type Searchable, type Test } from '@fadenweg/core/search';
import { type Cursor } from '../evidence/records.ts';
import { COLUMNS, type RecordRow } from '../evidence/record-layout.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { ActiveRules, QuietRules } from '../kept/quiet-rules.ts';
import { Pace } from './pace.ts';
import { both, either, narrow, type Narrowing, type NarrowingNames } from './narrowing.ts';
import { Turn } from './turn.ts';
import { parsedRule, searchCache, type Needed, type Searchables, type SearchCache } from './searchables.ts';

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
  /** Raised when nobody waits for the answer any more. */
  signal?: AbortSignal;
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
  prepare?(rows: readonly RecordRow[], cache: SearchCache): Promise<void>;
}
/** Which records a search finds: what the database may leave out, and which of the rest core has to look at. */
export interface Sieve {
  narrowing: Narrowing;
  /** Of what is narrowed to, null for none; the others are found. */
  doubtful: Narrowing | null;
  /** What core looks at. */
  needed: Needed;
  keeps(record: Searchable): boolean;
}
/** Only records that some quiet rule hides, for counting them. */
export type Scope = 'found' | 'only-hidden';

const NO_PARAMETERS: NarrowingNames['parameters'] = new Map();
/** Rows of one query, with all of their columns and with few. */
const WHOLE_ROWS = 1000;
const MANY_ROWS = 4000;
const LARGEST_ID = Number.MAX_SAFE_INTEGER;

/** What was fetched is looked through to its end, also beyond the time of a call, unless that takes so long, in milliseconds. */
const GRACE = 300;
/** So much has to be left of a call for another stretch to be asked for beside the one that is waited for, in milliseconds. */
const WORTH = 40;

/** Rows of a stretch, and how long the database took for them, in milliseconds, whatever was done beside it. */
interface Fetched {
  rows: RecordRow[];
  took: number;
}
/** A stretch that is asked for, up to its edge. */
interface Stretch {
  edge: number;
  planned: { slice: number; cost: number };
  fetched: Promise<Fetched>;
}

/** Goes through records stretch after stretch of time, as long as a call may last: the database narrows, core decides, quiet rules hide. */
export class Scanner {
  constructor(
    private readonly evidence: Pick<EvidenceRows, 'records' | 'sources' | 'names'>,
    private readonly searchables: Searchables,
    private readonly quiet: QuietRules,
  ) {}

  /** Nothing is looked for where there is no evidence. */
  async bounded(asked: Asked): Promise<Asked> {
    const { first, last } = await this.evidence.sources.evidence();
    return { ...asked, from: Math.max(asked.from, first), to: Math.min(asked.to, last + 1) };
  }

  /** How to tell what is found in one pass over the records, however many. */
  async sieve(asked: Asked): Promise<Sieve> {
    const rules = asked.quiet ? await this.quiet.on() : null;
    const ofRules = (rules?.searches ?? []).map(parsedRule);
    const all = await this.searchables.needed([asked.search, ...ofRules]);
    const narrowing = this.narrowing(asked, all);
    const heard = (record: Searchable): boolean => rules === null || rules.hides(record) < 0;
    if (narrowing.exact)
      return {
        narrowing,
        doubtful: rules?.searches.length ? this.narrowingOfRules(rules, all) : null,
        needed: await this.searchables.needed(ofRules),
        keeps: heard,
      };
    const test = compileSearch(asked.search);
    return { narrowing, doubtful: both([]), needed: all, keeps: (record) => test(record) && heard(record) };
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
    const cache = searchCache();
    const until = Date.now() + budget;
    const latest = asked.order === 'latest';
    // a call that goes on behind one whose time was over, not its page full
    let sparse = asked.after !== null && (asked.after.id === 0 || asked.after.id === LARGEST_ID);
    let cursor = asked.after ?? (latest ? { at: asked.to, id: 0 } : { at: asked.from - 1, id: LARGEST_ID });
    const pace = new Pace(budget, asked.after ? Math.abs((latest ? asked.to : asked.from) - asked.after.at) : 0);
    const edgeOf = ({ at }: Cursor, slice: number): number => (latest ? Math.max(asked.from, at - slice) : Math.min(asked.to, at + slice));
    const windowTo = (edge: number): [number, number] => (latest ? [edge, asked.to] : [asked.from, edge]);
    const fetch = async (from: Cursor, edge: number): Promise<Fetched> => {
      const begin = Date.now();
      const rows = await this.evidence.records.narrowed(...windowTo(edge), latest, from, narrowing, most, columns);
      return { rows, took: Date.now() - begin };
    };
    const stretch = async (from: Cursor): Promise<Stretch> => {
      const planned = await pace.next(until - Date.now(), (slice) => this.evidence.records.costOfNarrowed(...windowTo(edgeOf(from, slice)), latest, from, narrowing, most, columns)); // prettier-ignore
      const edge = edgeOf(from, planned.slice);
      const fetched = fetch(from, edge);
      fetched.catch(() => {}); // told when it is waited for, if it ever is
      return { edge, planned, fetched };
    };
    /** Where little is found, the stretch behind is asked for at the same time. */
    let ahead: Stretch | null = null;
    for (;;) {
      asked.signal?.throwIfAborted();
      const now: Stretch = ahead ?? (await stretch(cursor));
      const { edge, planned, fetched } = now;
      const done = latest ? edge <= asked.from : edge >= asked.to;
      const behind: Cursor = latest ? { at: edge, id: 0 } : { at: edge - 1, id: LARGEST_ID };
      ahead = sparse && !done && Date.now() + WORTH < until ? await stretch(behind) : null;
      const { rows, took } = await fetched;
      const begin = Date.now();
      const records = plain ? null : await this.searchables.of(rows, needed, cache);
      await visitor.prepare?.(rows, cache);
      const turn = new Turn(asked.signal);
      for (const [i, row] of rows.entries()) {
        // a pattern may take long over each record: others are served meanwhile, and what was fetched is left where it takes longer than it is worth
        if (turn.isOver() && (await turn.yielded()) && i > 0 && Date.now() >= Math.max(until, begin + GRACE)) return rows[i - 1]!;
        const record = records === null ? null : records[i]!;
        if (record !== null && !test(record)) continue;
        const rule = rules && record ? rules.hides(record) : -1;
        if (rule >= 0) visitor.hidden?.(rules!.names[rule]!, row);
        else if (!visitor.take(row, record)) return row;
      }
      pace.went(planned, took + Date.now() - begin);
      sparse = rows.length < most / 4;
      if (rows.length === most) {
        cursor = rows[most - 1]!;
        ahead = null;
        most = Math.min(visitor.whole ? WHOLE_ROWS : MANY_ROWS, most * 2);
      } else {
        if (done) return null;
        cursor = behind;
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
    const pace = new Pace(budget, asked.to - to);
    while (to > asked.from) {
      const end = to;
      const planned = await pace.next(until - Date.now(), (slice) =>
        this.evidence.records.costOfTally(Math.max(asked.from, end - slice), end, narrowing, slot),
      );
      const from = Math.max(asked.from, to - planned.slice);
      const begin = Date.now();
      const [counts] = await Promise.all([
        this.evidence.records.tallied(from, to, narrowing, slot),
        asked.quiet
          ? this.scan({ ...asked, from, to, order: 'latest', after: null }, Infinity, { take: () => true, hidden: visitor.hidden }, 'only-hidden')
          : null,
      ]);
      for (const one of counts) visitor.add(one.slot, one.level, one.count);
      to = from;
      pace.went(planned, Date.now() - begin);
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
    return narrow(search, {
      component: this.evidence.names.knownComponent,
      host: this.evidence.names.knownHost,
      isKind: (name) => needed.kinds.has(name),
      weights: needed.weights?.searches ?? [],
      parameters: needed.parameters?.named ?? NO_PARAMETERS,
    });
  }
  private narrowingOfRules(rules: ActiveRules | null, needed: Needed): Narrowing {
    return either((rules?.searches ?? []).map((q) => this.narrowingOf(parsedRule(q), needed)));
  }
}
