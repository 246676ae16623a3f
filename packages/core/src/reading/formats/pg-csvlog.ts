import type { Draft, Reader, RecordReader, ReadingContext } from './shared.ts';
import { csvCells, quotesBalanced } from '../csv.ts';
import { levelOf } from '../levels.ts';
import { TimeReader } from '../times.ts';
import { tookOfText } from '../took.ts';

/** Columns of csvlog in the order of PostgreSQL 15's documentation, section 20.8.4; older ones lack the last. */
const COLUMNS = [
  'log_time',
  'user',
  'database',
  'pid',
  'client',
  'session',
  'session_line',
  'command',
  'session_start',
  'vxid',
  'xid',
  'severity',
  'sqlstate',
  'message',
  'detail',
  'hint',
  'internal_query',
  'internal_query_pos',
  'context',
  'query',
  'query_pos',
  'location',
  'application',
  'backend',
  'leader_pid',
  'query_id',
] as const;
const SEVERITY = COLUMNS.indexOf('severity');
const MESSAGE = COLUMNS.indexOf('message');
const NUMBERS = new Set(['pid', 'session_line', 'leader_pid', 'xid']);
const SHOWN_APART = new Set(['log_time', 'severity', 'message', 'session_start', 'location']);

/** PostgreSQL's csvlog: statements, plans and details may hold line breaks inside quotes. */
export const pgCsvlog: Reader = {
  format: 'postgresql-csvlog',
  confidence(sample) {
    if (!sample.lines.slice(0, 300).some((line) => START.test(line))) return 0;
    let records = 0;
    let good = 0;
    let open = '';
    for (const line of sample.lines.slice(0, 300)) {
      open = open === '' ? line : `${open}\n${line}`;
      if (!quotesBalanced(open)) continue;
      if (open !== '') {
        records++;
        if (looksRight(csvCells(open))) good++;
      }
      open = '';
    }
    return records === 0 ? 0 : (good / records) * 0.99;
  },
  open: (_sample, context) => new PgCsvlogReader(context),
};

const START = /^\d{4}-\d\d-\d\d \d\d:\d\d:\d\d[^,]{0,40},/;
const looksRight = (cells: string[]): boolean =>
  cells.length >= 22 && cells.length <= 30 && START.test(`${cells[0]!},`) && levelOf(cells[SEVERITY]!) > 0;

class PgCsvlogReader implements RecordReader {
  private readonly times: TimeReader;
  private balanced = true;
  constructor(context: ReadingContext) {
    this.times = new TimeReader(context);
  }
  start(first: string): void {
    this.balanced = quotesBalanced(first);
  }
  begins(line: string): boolean {
    if (this.balanced) return true;
    this.balanced = quotesBalanced(line, this.balanced);
    return false;
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const cells = csvCells(text);
    if (cells.length < 22 || this.times.read(cells[0]!, 0, 'iso') < 0) return;
    draft.at = this.times.at;
    this.times.reached();
    draft.timeText = cells[0]!;
    draft.level = levelOf(cells[SEVERITY]!);
    const message = cells[MESSAGE]!;
    draft.message = message;
    for (let i = 0; i < COLUMNS.length && i < cells.length; i++) {
      const name = COLUMNS[i]!;
      const value = cells[i]!;
      if (value === '' || SHOWN_APART.has(name)) continue;
      draft.fields[name] = NUMBERS.has(name) ? Number(value) : value;
    }
    draft.logger = cells[23] ?? '';
    if (draft.fields.detail !== undefined) draft.message += `\n${String(draft.fields.detail)}`;
    draft.took = tookOfText(message);
    draft.understood = true;
  }
}
