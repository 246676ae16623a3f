import type { LogRecord } from '@fadenweg/api';
import { csvLine, otlpLogs } from '@fadenweg/core';
import { parseRecordKey } from './present.ts';
import type { FindService } from './find/find-service.ts';
import type { Asked } from './find/scan.ts';

export const RECORD_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson' } as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;
const PAGE = 2500;

/** Records that a search finds, of any number, as text in an open format, piece by piece in the order of the search. */
export async function* exportedRecords(find: FindService, asked: Asked, format: RecordFormat): AsyncGenerator<string> {
  if (format === 'csv') yield `${csvLine(COLUMNS.map(([name]) => name))}\r\n`;
  const asking = (after: Asked['after']): Promise<Awaited<ReturnType<FindService['page']>>> => {
    const page = find.page({ ...asked, after }, PAGE);
    page.catch(() => {}); // told where it is waited for
    return page;
  };
  let coming = asking(asked.after);
  for (let more = true; more;) {
    const page = await coming;
    more = page.next !== null;
    // the database works on the next one while this one is written
    if (more) coming = asking(parseRecordKey(page.next!));
    if (page.items.length === 0) continue;
    if (format === 'otlp') yield `${JSON.stringify(otlpLogs(page.items))}\n`;
    else if (format === 'csv') yield page.items.map((one) => `${csvLine(COLUMNS.map(([, value]) => value(one)))}\r\n`).join('');
    else yield page.items.map((one) => `${JSON.stringify(one)}\n`).join('');
  }
}

const COLUMNS: [string, (record: LogRecord) => string | number][] = [
  ['id', (one) => one.id],
  ['at', (one) => one.at],
  ['originalAt', (one) => one.originalAt],
  ['component', (one) => one.component],
  ['host', (one) => one.host],
  ['environment', (one) => one.environment],
  ['level', (one) => one.level],
  ['logger', (one) => one.logger],
  ['strand', (one) => one.strand ?? ''],
  ['source', (one) => one.source.path],
  ['line', (one) => one.source.line],
  ['message', (one) => one.message],
  ['attributes', (one) => JSON.stringify(one.attributes)],
];
