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
    const hidden = this.stretches(asked, (one, places) =>
      this.scanner.scan(one, BUDGET, { take: () => true, hidden: (_rule, { at, id }) => places.push({ at, id }) }, 'only-hidden'),
    );
    for await (const { places, end } of hidden) {
      yield* texts.allBut(places, behind, end ?? { at: latest ? asked.from : asked.to, id: 0 }, latest, exact);
      behind = end ?? behind;
    }
  }
  private async *found(asked: Asked, texts: RecordTexts): AsyncGenerator<RecordText[]> {
    const found = this.stretches(asked, (one, places) =>
      this.scanner.scan(one, BUDGET, { enough: PAGE, take: ({ at, id }) => places.push({ at, id }) < PAGE }),
    );
    for await (const { places } of found) yield* texts.at(places);
  }
  /** Stretch after stretch; the next one is looked through while the records of the last one are on their way. */
  private async *stretches(asked: Asked, scan: (asked: Asked, places: Cursor[]) => Promise<Cursor | null>): AsyncGenerator<Stretch> {
    const look = async (after: Cursor | null): Promise<Stretch> => {
      const places: Cursor[] = [];
      return { places, end: await scan({ ...asked, after }, places) };
    };
    for (let next: Promise<Stretch> | null = look(asked.after); next;) {
      const now: Stretch = await next;
      next = now.end === null ? null : look(now.end);
      next?.catch(() => {}); // told when it is waited for, if it ever is
      yield now;
    }
  }
}
interface Stretch {
  places: Cursor[];
  /** Where to go on, null at the end of the window. */
  end: Cursor | null;
}
