import type { LogRecord } from '@fadenweg/api';
import { otlpLogs } from '@fadenweg/core';
import type { Cursor } from '../../repositories/records.ts';
import { RecordTexts, type RecordText } from '../../repositories/record-texts.ts';
import type { Asked, Scanner } from '../find/scan.ts';
import { AS_CSV, AS_JSON, type RecordForm } from './forms.ts';
import { LookUp, type Repositories } from './look-up.ts';

export const RECORD_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson' } as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;

/** How long one stretch is searched, in milliseconds, and for how many records. */
const BUDGET = 450;
const PAGE = 4000;
/** Lines are given out in pieces of about this many bytes. */
const PIECE = 1 << 18;

/** Takes records along in open formats, of any number, piece by piece in the order of the search. */
export class RecordExport {
  constructor(
    private readonly databaseUrl: string,
    private readonly scanner: Scanner,
    private readonly repositories: Repositories,
  ) {}

  async *pieces(question: Asked, format: RecordFormat): AsyncGenerator<Buffer | string> {
    if (format !== 'otlp') return yield* this.lines(question, format === 'csv' ? AS_CSV : AS_JSON);
    for await (const piece of this.lines(question, AS_JSON)) {
      const records = piece.toString().trimEnd().split('\n').map((line) => JSON.parse(line) as LogRecord); // prettier-ignore
      yield `${JSON.stringify(otlpLogs(records))}\n`;
    }
  }

  /** Pieces of whole lines, as UTF-8. */
  private async *lines(question: Asked, form: RecordForm): AsyncGenerator<Buffer> {
    if (form.head !== '') yield Buffer.from(form.head);
    const asked = await this.scanner.bounded(question);
    if (asked.from >= asked.to) return;
    const texts = await RecordTexts.open(this.databaseUrl, form.texts);
    const lookUp = new LookUp(this.repositories, form);
    try {
      const batches = this.scanner.isAll(asked) ? texts.all(asked.from, asked.to, asked.order === 'latest') : this.found(asked, texts);
      for await (const rows of batches) {
        await lookUp.learn(rows);
        yield* piecesOf(rows, lookUp, form);
      }
    } finally {
      texts.close();
    }
  }

  private async *found(asked: Asked, texts: RecordTexts): AsyncGenerator<RecordText[]> {
    for (let after: Cursor | null = asked.after, first = true; first || after !== null; first = false) {
      const places: Cursor[] = [];
      after = await this.scanner.scan({ ...asked, after }, BUDGET, { enough: PAGE, take: ({ at, id }) => places.push({ at, id }) < PAGE });
      yield* texts.at(places);
    }
  }
}

function* piecesOf(rows: readonly RecordText[], lookUp: LookUp, form: RecordForm): Generator<Buffer> {
  let parts: Buffer[] = [];
  let bytes = 0;
  const add = (part: Buffer): void => {
    parts.push(part);
    bytes += part.length;
  };
  for (const row of rows) {
    form.write(row, lookUp.of(row), add);
    if (bytes < PIECE) continue;
    yield Buffer.concat(parts, bytes);
    [parts, bytes] = [[], 0];
  }
  if (bytes > 0) yield Buffer.concat(parts, bytes);
}
