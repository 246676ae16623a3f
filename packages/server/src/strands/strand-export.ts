import type { StrandSummary } from '@fadenweg/api';
import { csvLine, otlpTrace, XES_HEAD, XES_TAIL, xesTrace } from '@fadenweg/core';
import type { StrandCursor, StrandFilter, StrandRow } from '../weaving/strand-rows.ts';
import type { StrandService } from './strand-service.ts';

export const STRAND_FORMATS = { jsonl: 'application/x-ndjson', csv: 'text/csv', otlp: 'application/x-ndjson', xes: 'application/xml' } as const;
export type StrandFormat = keyof typeof STRAND_FORMATS;

/** Strands that are worked out at one time while an export runs. */
const AT_ONCE = 6;
const PAGE = 300;

/** Strands that fit, of any number, as text in an open format, piece by piece in order of their begin. */
export async function* exportedStrands(
  strands: StrandService,
  filter: StrandFilter,
  format: StrandFormat,
  withRecords: boolean,
): AsyncGenerator<string> {
  if (format === 'csv') yield `${csvLine(COLUMNS.map(([name]) => name))}\r\n`;
  if (format === 'xes') yield XES_HEAD;
  let after: StrandCursor | null = null;
  for (;;) {
    const rows: StrandRow[] = await strands.rows(filter, after, PAGE);
    if (format === 'csv') {
      for (const summary of await strands.summaries(rows)) yield `${csvLine(COLUMNS.map(([, value]) => value(summary)))}\r\n`;
    } else {
      for (let i = 0; i < rows.length; i += AT_ONCE) {
        const told = await Promise.all(rows.slice(i, i + AT_ONCE).map((row) => strands.exported(row, withRecords && format === 'jsonl')));
        for (const strand of told) yield format === 'xes' ? xesTrace(strand) : `${JSON.stringify(format === 'otlp' ? otlpTrace(strand) : strand)}\n`;
      }
    }
    const last = rows[rows.length - 1];
    if (rows.length < PAGE || !last) break;
    after = { value: last.started_at, founder: last.founder };
  }
  if (format === 'xes') yield XES_TAIL;
}

const COLUMNS: [string, (strand: StrandSummary) => string | number | null][] = [
  ['id', (one) => one.id],
  ['flow', (one) => one.flow],
  ['businessId', (one) => one.businessId],
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
