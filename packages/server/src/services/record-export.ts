import type { LogRecord } from '@fadenweg/api';
import { csvLine, otlpLogs } from '@fadenweg/core';
import { parseRecordKey } from './present.ts';
import type { FindService } from './find/find-service.ts';
import type { Asked } from './find/scan.ts';

export const RECORD_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson' } as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;
const PAGE = 1000;

/** Records that a search finds, of any number, as text in an open format, piece by piece in the order of the search. */
export async function* exportedRecords(find: FindService, asked: Asked, format: RecordFormat): AsyncGenerator<string> {
  if (format === 'csv') yield `${csvLine(COLUMNS.map(([name]) => name))}\r\n`;
  for (let after = asked.after, more = true; more;) {
    const page = await find.page({ ...asked, after }, PAGE);
    if (format === 'otlp' && page.items.length > 0) yield `${JSON.stringify(otlpLogs(page.items))}\n`;
    const lines =
      format === 'otlp'
        ? []
        : page.items.map((one) => (format === 'csv' ? `${csvLine(COLUMNS.map(([, value]) => value(one)))}\r\n` : `${JSON.stringify(one)}\n`));
    if (lines.length > 0) yield lines.join('');
    after = page.next === null ? null : parseRecordKey(page.next);
    more = after !== null;
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
