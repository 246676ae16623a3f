import type { Contrasted, FieldValues, FoundPage, GroupsPart, LevelName, RankedPart, TimelinePart } from '@fadenweg/api';
import {
  compareRanks,
  Foremost,
  isOwn,
  OWN_FIELDS,
  rankOf,
  textsOf,
  type Condition,
  type Rank,
  type Search,
  type Searchable,
} from '@fadenweg/core/search';
import { contrast, distribution } from '@fadenweg/core/statistics';
import { isoMicros, LEVELS } from '@fadenweg/core/units';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { Cursor, RecordRepository } from '../evidence/records.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { StrandRepository } from '../weaving/strand-rows.ts';
import { recordKey } from '../evidence/record-key.ts';
import type { Presenter } from '../strands/present.ts';
import type { Asked, Scanner } from './scan.ts';
import { levelText, type Searchables } from './searchables.ts';

/** How long one call searches, in milliseconds; the next goes on where it ended. */
const BUDGET = 130;
/** Strands that hold what is searched for are sought so long, in milliseconds. */
const LONGEST = 5000;
/** A call that goes on with a list may last longer: a part of the answer stands there already. */
const LONGER = 900;
/** Values are taken from so many records at most. */
const SAMPLE = 20_000;
/** In milliseconds: for an answer that is there at once, and for a thorough one. */
const VALUES_BUDGET = { quick: 100, thorough: 900 };
export type Effort = keyof typeof VALUES_BUDGET;
const MOST_VALUES = 5000;
const LONGEST_VALUE = 300;
/** Share of a field's values that must be numbers for their distribution to be told. */
const NUMERIC = 0.9;
/** A number that counts or measures: one with zeros before it is a name. */
const QUANTITY = /^-?(?:0|[1-9]\d{0,17})(?:\.\d{1,18})?(?:[eE][+-]?\d{1,3})?$/;
/** Fields without words of their own worth comparing: they name single records. */
const MOST_CONTRASTED_VALUES = 400;
const MOST_CONTRASTS = 12;
const MOST_FIELDS = 500;

const next = (end: Cursor | null): string | null => (end === null ? null : recordKey(end));

/** Searches records: stretch after stretch, so that the first are there at once and any search can be left. */
export class FindService {
  constructor(
    private readonly scanner: Scanner,
    private readonly searchables: Searchables,
    private readonly strands: StrandRepository,
    private readonly declarations: DeclarationRepository,
    private readonly presenter: Presenter,
    private readonly records: RecordRepository,
  ) {}

  /** A page of what a search finds; fewer than asked where the time was over, `next` then goes on. */
  async page(question: Asked, limit: number): Promise<FoundPage> {
    const asked = await this.scanner.bounded(question);
    const found: RecordRow[] = [];
    const hidden: number[] = [];
    let out = 0;
    const end = await this.scanner.scan(asked, asked.after ? LONGER : BUDGET, {
      whole: true,
      enough: limit,
      hidden: () => out++,
      take(row) {
        found.push(row);
        hidden.push(out);
        out = 0;
        return found.length < limit;
      },
    });
    return { items: await this.presenter.recordsOf(found), hidden, hiddenAfter: out, next: next(end), searched: this.scanner.share(asked, end) };
  }

  /** Counts by slot and level of as much as a call reaches, from the latest back. */
  async tally(question: Asked, slot: number): Promise<TimelinePart> {
    const asked = await this.scanner.bounded({ ...question, order: 'latest' });
    const counts = new Map<number, Partial<Record<LevelName, number>>>();
    const hidden = new Counts();
    let total = 0;
    const add = (place: number, levelIndex: number, count: number): void => {
      const own = counts.get(place) ?? {};
      const level = LEVELS[levelIndex] as LevelName;
      own[level] = (own[level] ?? 0) + count;
      counts.set(place, own);
      total += count;
    };
    const placeOf = (row: RecordRow): number => Math.floor((row.at - question.from) / slot);
    const told = await this.scanner.tally(
      asked,
      BUDGET,
      { from: question.from, length: slot },
      {
        add,
        hidden(rule, row) {
          hidden.add(rule);
          add(placeOf(row), row.level, -1);
        },
      },
    );
    const end = told
      ? told.end
      : await this.scanner.scan(asked, BUDGET, {
          hidden: (rule) => hidden.add(rule),
          take(row) {
            add(placeOf(row), row.level, 1);
            return true;
          },
        });
    return {
      total,
      slots: [...counts].map(([place, own]) => ({ slot: place, counts: own })),
      hidden: hidden.asObject(),
      next: next(end),
      searched: this.scanner.share(asked, end),
    };
  }

  /** The most frequent values of fields among the latest records that a search finds, all from the same records. */
  async values(question: Asked, fields: readonly string[], limit: number, effort: Effort): Promise<FieldValues[]> {
    const counts = fields.map(() => new Counts(MOST_VALUES));
    const numbers = fields.map((): number[] => []);
    const without = fields.map(() => 0);
    let looked = 0;
    const complete = await this.sample(question, fields, effort, (record) => {
      looked++;
      fields.forEach((field, i) => {
        const texts = textsOf(record, field);
        if (texts.length === 0) without[i]!++;
        for (const text of texts) {
          counts[i]!.add(field === 'level' ? levelText(text) : text.slice(0, LONGEST_VALUE));
          if (field !== 'level' && QUANTITY.test(text)) numbers[i]!.push(Number(text));
        }
      });
    });
    return fields.map((field, i) => {
      const sorted = counts[i]!.sorted();
      const numeric = numbers[i]!.length >= NUMERIC * (looked - without[i]!) && sorted.length > limit;
      return {
        field,
        values: sorted.slice(0, limit).map(([value, count]) => ({ value, count })),
        distinct: sorted.length,
        records: looked,
        without: without[i]!,
        complete,
        numbers: numeric ? distribution(numbers[i]!) : null,
      };
    });
  }

  /** Groups by a field, or by `strand`, of as much as a call reaches. */
  async groups(question: Asked, by: string): Promise<GroupsPart> {
    const asked = await this.scanner.bounded({ ...question, order: 'latest' });
    const groups = new Map<string, { count: number; first: RecordRow; last: RecordRow }>();
    const hidden = new Counts();
    const founders = new Map<RecordRow, number>();
    let total = 0;
    let without = 0;
    const end = await this.scanner.scan(asked, BUDGET, {
      fields: [by],
      hidden: (rule) => hidden.add(rule),
      prepare: async (rows, cache) => {
        if (by !== 'strand') return;
        founders.clear();
        (await this.searchables.foundersOf(rows, cache)).forEach((founder, i) => founder !== null && founders.set(rows[i]!, founder));
      },
      take: (row, record) => {
        const texts = by !== 'strand' ? textsOf(record!, by) : founders.has(row) ? [String(founders.get(row))] : [];
        total++;
        if (texts.length === 0) without++;
        for (const text of texts) {
          const value = by === 'level' ? levelText(text) : text.slice(0, LONGEST_VALUE);
          const own = groups.get(value);
          if (own) {
            own.count++;
            own.first = row;
          } else groups.set(value, { count: 1, first: row, last: row });
        }
        return groups.size < MOST_VALUES;
      },
    });
    const strands = by === 'strand' ? await this.strandsBy([...groups.keys()].map(Number)) : new Map<string, never>();
    return {
      groups: [...groups].flatMap(([value, { count, first, last }]) => {
        const name = by === 'strand' ? strands.get(value)?.id : value;
        return name === undefined ? [] : [{ value: name, count, firstAt: isoMicros(first.at), lastAt: isoMicros(last.at), record: recordKey(last) }];
      }),
      strands: [...strands.values()],
      total,
      without,
      hidden: hidden.asObject(),
      next: next(end),
      searched: this.scanner.share(asked, end),
    };
  }

  /**
   * Strands that hold a record which a search finds, the latest first.
   *
   * @returns `cut` where there are more than `most`, or where looking for all of them would take too long
   */
  async foundersWith(question: Asked, most: number): Promise<{ founders: number[]; cut: boolean }> {
    const found = new Set<number>();
    const until = Date.now() + LONGEST;
    for (let { after } = question; ;) {
      const asked = await this.scanner.bounded({ ...question, after, order: 'latest' });
      const founders = new Map<RecordRow, number>();
      const end = await this.scanner.scan(asked, LONGER, {
        fields: ['strand'],
        prepare: async (rows, cache) => {
          founders.clear();
          (await this.searchables.foundersOf(rows, cache)).forEach((founder, i) => founder !== null && founders.set(rows[i]!, founder));
        },
        take: (row) => {
          const founder = founders.get(row);
          if (founder !== undefined) found.add(founder);
          return found.size < most;
        },
      });
      if (end === null || found.size >= most) return { founders: [...found], cut: end !== null };
      if (Date.now() > until) return { founders: [...found], cut: true };
      after = end;
    }
  }

  /** The foremost records by a field, of as much as a call reaches; `beyond`: none that does not come before this one. */
  async ranked(question: Asked, by: { field: string; down: boolean; beyond: Rank | null }, limit: number): Promise<RankedPart> {
    const asked = await this.scanner.bounded({ ...question, search: having(question.search, by.field), order: 'latest' });
    const foremost = new Foremost<RecordRow>(limit, by.down);
    let [total, hidden] = [0, 0];
    const end = await this.scanner.scan(asked, BUDGET, {
      fields: [by.field],
      hidden: () => hidden++,
      take(row, record) {
        const rank = rankOf(record!, by.field)!;
        total++;
        if (by.beyond === null || compareRanks(rank, by.beyond) * (by.down ? -1 : 1) < 0) foremost.add(rank, row);
        return true;
      },
    });
    const first = foremost.items();
    const records = await this.presenter.recordsOf(await this.records.byIds(first.map(({ item }) => item)));
    const byId = new Map(records.map((record) => [record.id, record]));
    const items = first.flatMap(({ rank, item }) => {
      const record = byId.get(recordKey(item));
      return record ? [{ rank, record }] : []; // it was taken out meanwhile
    });
    return { items, total, hidden, next: next(end), searched: this.scanner.share(asked, end) };
  }

  private async strandsBy(founders: readonly number[]) {
    const rows = await this.strands.byFounders(founders);
    const summaries = await this.presenter.summaries(rows, await this.declarations.flows());
    return new Map(summaries.map((summary, i) => [String(rows[i]!.founder), summary]));
  }

  /** What tells the records with one value from all others that a search finds, over every field that they have. */
  async against(question: Asked, field: string, value: string): Promise<Contrasted> {
    const total = { inside: 0, outside: 0 };
    const fields = new Map<string, Map<string, { inside: number; outside: number }>>();
    const complete = await this.sample(question, [field, '*'], 'thorough', (record) => {
      const side = textsOf(record, field).some((text) => (field === 'level' ? levelText(text) : text) === value) ? 'inside' : 'outside';
      total[side]++;
      for (const [name, text] of pairsOf(record)) {
        if (name === field || text.length > LONGEST_VALUE) continue;
        let own = fields.get(name);
        if (!own) fields.set(name, (own = new Map()));
        let cell = own.get(text);
        if (!cell && own.size < MOST_CONTRASTED_VALUES) own.set(text, (cell = { inside: 0, outside: 0 }));
        if (cell) cell[side]++;
      }
    });
    const counted = [...fields].flatMap(([name, values]) =>
      values.size < MOST_CONTRASTED_VALUES ? [...values].map(([text, cell]) => ({ field: name, value: text, ...cell })) : [],
    );
    return { ...total, complete, items: contrast(counted, total.inside, total.outside, MOST_CONTRASTS) };
  }

  /** The names that a search may ask for in these records: fields of the latest of them, the most frequent first. */
  async fields(question: Asked): Promise<string[]> {
    const counts = new Counts(MOST_VALUES);
    await this.sample(question, ['*'], 'quick', (record) => {
      for (const name in record.fields) counts.add(name);
    });
    const kinds = (await this.declarations.kinds()).map((kind) => kind.name);
    return [...new Set([...OWN_FIELDS, ...kinds, ...counts.sorted().map(([name]) => name)])].slice(0, MOST_FIELDS);
  }

  /** Goes through the latest records of a search, as many as a sample holds; tells whether these were all. */
  private async sample(question: Asked, fields: readonly string[], effort: Effort, see: (record: Searchable) => void): Promise<boolean> {
    const asked = await this.scanner.bounded({ ...question, order: 'latest' });
    let looked = 0;
    const end = await this.scanner.scan(asked, VALUES_BUDGET[effort], {
      fields,
      enough: effort === 'quick' ? 500 : undefined,
      take(_row, record) {
        see(record!);
        return ++looked < SAMPLE;
      },
    });
    return end === null;
  }
}

/** The search, of records that have a field. */
function having({ words, condition }: Search, name: string): Search {
  const there: Condition = { type: 'not', part: { type: 'null', field: { name, from: 0, to: 0 } } };
  return { words, condition: condition ? { type: 'and', parts: [condition, there] } : there };
}

/** How often each text occurs, of at most so many different ones. */
class Counts {
  private readonly counts = new Map<string, number>();
  constructor(private readonly most = Infinity) {}
  add(text: string): void {
    const known = this.counts.get(text);
    if (known !== undefined || this.counts.size < this.most) this.counts.set(text, (known ?? 0) + 1);
  }
  asObject(): Record<string, number> {
    return Object.fromEntries(this.counts);
  }
  sorted(): [string, number][] {
    return [...this.counts].sort(([one, x], [two, y]) => y - x || one.localeCompare(two));
  }
}

/** The fields of a record that may tell a group apart. */
function* pairsOf(record: Searchable): Generator<[string, string]> {
  for (const name of ['component', 'host', 'logger', 'shape', 'flow', 'outcome', 'source'] as const)
    if (record[name] !== '') yield [name, record[name]];
  if (record.level > 0) yield ['level', LEVELS[record.level]!];
  for (const name in record.fields) if (!isOwn(name)) yield [name, String(record.fields[name])];
}
