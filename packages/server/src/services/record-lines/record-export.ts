import type { Cursor } from '../../repositories/records.ts';
import { RecordTexts, type RecordText } from '../../repositories/record-texts.ts';
import type { Narrowing } from '../find/narrowing.ts';
import type { Asked, Scanner } from '../find/scan.ts';
import { AS_CSV, AS_JSON, type RecordForm } from './forms.ts';
import { LookUp, type Repositories } from './look-up.ts';
import { AS_OTLP } from './otlp-form.ts';

export const RECORD_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson' } as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;

/** How long one stretch is searched, in milliseconds, and for how many records. */
const BUDGET = 450;
const PAGE = 4000;
const FORMS: Readonly<Record<RecordFormat, RecordForm>> = { jsonl: AS_JSON, csv: AS_CSV, otlp: AS_OTLP };

/** Takes records along in open formats, of any number, piece by piece in the order of the search. */
export class RecordExport {
  constructor(
    private readonly databaseUrl: string,
    private readonly scanner: Scanner,
    private readonly repositories: Repositories,
  ) {}

  /** In UTF-8, each piece of whole lines. */
  async *pieces(question: Asked, format: RecordFormat): AsyncGenerator<Buffer | string> {
    const form = FORMS[format];
    if (form.head !== '') yield form.head;
    const asked = await this.scanner.bounded(question);
    if (asked.from >= asked.to) return;
    const texts = await RecordTexts.open(this.databaseUrl, form.texts);
    const lookUp = new LookUp(this.repositories, form);
    try {
      const exact = await this.scanner.exactly(asked);
      const batches = !exact
        ? this.found(asked, texts)
        : asked.quiet
          ? this.heard(asked, exact, texts)
          : texts.all(asked, asked.order === 'latest', exact);
      for await (const rows of batches) {
        await lookUp.learn(rows);
        yield* form.pieces(rows, (row) => lookUp.of(row));
      }
    } finally {
      texts.close();
    }
  }

  /** All but what quiet rules hide: only what they may hide is looked at. */
  private async *heard(asked: Asked, exact: Narrowing, texts: RecordTexts): AsyncGenerator<RecordText[]> {
    const latest = asked.order === 'latest';
    let behind: Cursor = latest ? { at: asked.to, id: 0 } : { at: asked.from - 1, id: Number.MAX_SAFE_INTEGER };
    let next: Promise<Stretch> | null = this.hidden(asked);
    while (next) {
      const { places, end }: Stretch = await next;
      next = end === null ? null : this.hidden({ ...asked, after: end });
      next?.catch(() => {}); // told when it is waited for, if it ever is
      yield* texts.allBut(places, behind, end ?? (latest ? { at: asked.from, id: 0 } : { at: asked.to, id: 0 }), latest, exact);
      behind = end ?? behind;
    }
  }
  private async hidden(asked: Asked): Promise<Stretch> {
    const places: Cursor[] = [];
    const end = await this.scanner.scan(asked, BUDGET, { take: () => true, hidden: (_rule, { at, id }) => places.push({ at, id }) }, 'only-hidden');
    return { places, end };
  }
  /** What is found of the next stretch is looked for while the records of the last one are on their way. */
  private async *found(asked: Asked, texts: RecordTexts): AsyncGenerator<RecordText[]> {
    let next: Promise<Stretch> | null = this.stretch(asked);
    while (next) {
      const { places, end }: Stretch = await next;
      next = end === null ? null : this.stretch({ ...asked, after: end });
      next?.catch(() => {}); // told when it is waited for, if it ever is
      yield* texts.at(places);
    }
  }
  private async stretch(asked: Asked): Promise<Stretch> {
    const places: Cursor[] = [];
    const end = await this.scanner.scan(asked, BUDGET, { enough: PAGE, take: ({ at, id }) => places.push({ at, id }) < PAGE });
    return { places, end };
  }
}
interface Stretch {
  places: Cursor[];
  /** Where to go on, null at the end of the window. */
  end: Cursor | null;
}
