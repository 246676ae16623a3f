import { RecordTexts, type RecordText } from '../../evidence/record-texts.ts';
import type { Asked, Scanner, Sieve } from '../scan.ts';
import { searchCache, type Searchables, type SearchCache } from '../searchables.ts';
import { AS_CSV, AS_JSON, type RecordForm } from './forms.ts';
import { Turn } from '../turn.ts';
import { LookUp, type Repositories } from './look-up.ts';
import { AS_OTLP } from './otlp-form.ts';

export const RECORD_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson' } as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;

/** So much of what is looked up beside records is kept. */
const MOST_KNOWN = 200_000;
const FORMS: Readonly<Record<RecordFormat, RecordForm>> = { jsonl: AS_JSON, csv: AS_CSV, otlp: AS_OTLP };

/** Takes records along in open formats, of any number, piece by piece in the order of the search. */
export class RecordExport {
  constructor(
    private readonly databaseUrl: string,
    private readonly scanner: Scanner,
    private readonly searchables: Searchables,
    private readonly repositories: Repositories,
  ) {}

  /** In UTF-8, each piece of whole lines. The database goes through the records once; core looks only at those of which it cannot tell. */
  async *pieces(question: Asked, format: RecordFormat): AsyncGenerator<Buffer | string> {
    const form = FORMS[format];
    if (form.head !== '') yield form.head;
    const asked = await this.scanner.bounded(question);
    if (asked.from >= asked.to) return;
    const sieve = await this.scanner.sieve(asked);
    const texts = await RecordTexts.open(this.databaseUrl, form.texts);
    const lookUp = new LookUp(this.repositories, form);
    let known = searchCache();
    try {
      const doubt = sieve.doubtful && { condition: sieve.doubtful, columns: sieve.needed.columns };
      for await (const rows of readAhead(texts.all(asked, asked.order === 'latest', sieve.narrowing, doubt))) {
        if (known.named.size + known.strands.size > MOST_KNOWN) known = searchCache();
        const kept = await this.kept(rows, sieve, known);
        await lookUp.learn(kept, known.named);
        yield* form.pieces(kept, (row) => lookUp.of(row));
      }
    } finally {
      texts.close();
    }
  }

  private async kept(rows: readonly RecordText[], sieve: Sieve, known: SearchCache): Promise<readonly RecordText[]> {
    const doubtful = rows.filter((row) => row.looked !== null);
    if (doubtful.length === 0) return rows;
    const records = await this.searchables.of(
      doubtful.map((row) => row.looked!),
      sieve.needed,
      known,
      doubtful.map((row) => row.founder),
    );
    const out = new Set<RecordText>();
    const turn = new Turn();
    for (const [i, row] of doubtful.entries()) {
      if (turn.isOver()) await turn.yielded();
      if (!sieve.keeps(records[i]!)) out.add(row);
    }
    return out.size === 0 ? rows : rows.filter((row) => !out.has(row));
  }
}

/** The next one is on its way while one is worked on. */
async function* readAhead<Item>(items: AsyncGenerator<Item>): AsyncGenerator<Item> {
  for (let next = items.next(); ;) {
    const now = await next;
    if (now.done) return;
    next = items.next();
    next.catch(() => {}); // told when it is waited for, if it ever is
    yield now.value;
  }
}
