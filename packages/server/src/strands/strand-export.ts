import type { ExportedStrand, StrandSummary } from '@fadenweg/api';
import { csvLine, otlpTrace, XES_HEAD, XES_TAIL, xesTrace } from '@fadenweg/core/exchange';
import type { StrandCursor, StrandFilter, StrandRow } from '../weaving/strand-rows.ts';
import { whenThere } from '../database/failures.ts';
import type { StrandService } from './strand-service.ts';

export const STRAND_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson', xes: 'application/xml' } as const;
export type StrandFormat = keyof typeof STRAND_FORMATS;

/** Strands that are worked out side by side: what they look up is asked for together. */
const AT_ONCE = 100;
const PAGE = 300;

/** Strands that fit, of any number, as text in an open format, piece by piece in order of their begin. */
export async function* exportedStrands(
  strands: StrandService,
  filter: StrandFilter,
  format: StrandFormat,
  withRecords: boolean,
): AsyncGenerator<string> {
  if (format === 'csv') {
    yield `${csvLine(COLUMNS.map(([name]) => name))}\r\n`;
    for await (const rows of pages(strands, filter))
      for (const summary of await strands.summaries(rows)) yield `${csvLine(COLUMNS.map(([, value]) => value(summary)))}\r\n`;
    return;
  }
  const worked = strands.exporting(withRecords && format === 'jsonl');
  const written = (strand: ExportedStrand): string =>
    format === 'xes' ? xesTrace(strand) : `${JSON.stringify(format === 'otlp' ? otlpTrace(strand) : strand)}\n`;
  if (format === 'xes') yield XES_HEAD;
  // while some are written, the next are looked up
  let before: Promise<ExportedStrand[]> | null = null;
  for await (const rows of pages(strands, filter)) {
    for (let i = 0; i < rows.length; i += AT_ONCE) {
      const some = whenThere(() => Promise.all(rows.slice(i, i + AT_ONCE).map(worked)));
      some.catch(() => {}); // told when it is waited for
      if (before) yield (await before).map(written).join('');
      before = some;
    }
  }
  if (before) yield (await before).map(written).join('');
  if (format === 'xes') yield XES_TAIL;
}

async function* pages(strands: StrandService, filter: StrandFilter): AsyncGenerator<StrandRow[]> {
  let after: StrandCursor | null = null;
  for (;;) {
    const from: StrandCursor | null = after;
    const rows: StrandRow[] = await whenThere(() => strands.rows(filter, from, PAGE));
    yield rows;
    const last = rows[rows.length - 1];
    if (rows.length < PAGE || !last) return;
    after = { value: last.started_at, founder: last.founder };
  }
}

const COLUMNS: [string, (strand: StrandSummary) => string | number | null][] = [
  ['id', (one) => one.id],
  ['flow', (one) => one.flow],
  ['businessId', (one) => one.businessId],
  ['name', (one) => one.name],
  ['outcome', (one) => one.outcome],
  ['environment', (one) => one.environment],
  ['startedAt', (one) => one.startedAt],
  ['endedAt', (one) => one.endedAt],
  ['durationMs', (one) => one.durationMs],
  ['usualMs', (one) => one.usualMs],
  ['records', (one) => one.records],
  ['failedIn', (one) => one.failedIn],
  ['headline', (one) => one.headline],
  ['parties', (one) => one.parties.map((party) => `${party.kind} ${party.value}`).join('; ')],
];
