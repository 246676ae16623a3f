import type { LogRecord } from '@fadenweg/api';

/** A column of the list; a width of 0 takes what room is left. */
export interface Column {
  field: string;
  width: number;
}
export const USUAL_COLUMNS: readonly Column[] = [
  { field: 'component', width: 112 },
  { field: 'level', width: 24 },
  { field: 'message', width: 0 },
];
const NARROWEST = 24;
const WIDEST = 1200;
const MOST = 40;

/** Columns as an address holds them: `component:112,level:18,message`. */
export const columnsText = (columns: readonly Column[]): string =>
  columns.map(({ field, width }) => (width > 0 ? `${encodeURIComponent(field)}:${Math.round(width)}` : encodeURIComponent(field))).join(',');

/** Reads columns from an address; what cannot be read is left out, and the usual ones stand where nothing is left. */
export function columnsOf(text: string): Column[] {
  const columns: Column[] = [];
  for (const part of text.split(',')) {
    const [name = '', width = '0'] = part.split(':');
    const field = decoded(name);
    if (field === '' || columns.some((one) => one.field === field) || columns.length >= MOST) continue;
    const wanted = Number(width);
    columns.push({ field, width: wanted > 0 ? Math.min(WIDEST, Math.max(NARROWEST, wanted)) : 0 });
  }
  return columns.length > 0 ? columns : [...USUAL_COLUMNS];
}
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return '';
  }
}
/** The grid of a line. */
export const gridOf = (columns: readonly Column[]): string =>
  columns.map(({ width }) => (width > 0 ? `${width}px` : 'minmax(0, 1fr)')).join(' ') + (columns.some((one) => one.width === 0) ? '' : ' 1fr');

/** Titles of columns: of names with dots the last parts, as many as tell them apart; where room is short their telling end is read first. */
export function titlesOf(fields: readonly string[]): Map<string, string> {
  const end = (field: string, parts: number): string => field.split('.').slice(-parts).join('.');
  const titles = new Map<string, string>();
  for (const field of fields) {
    let parts = 1;
    while (end(field, parts) !== field && fields.some((other) => other !== field && end(other, parts) === end(field, parts))) parts++;
    titles.set(field, end(field, parts));
  }
  return titles;
}

/** What a record shows in a column, as the search language sees its fields; '' where it has none. */
export function cellOf(record: LogRecord, field: string): string {
  switch (field) {
    case 'component':
    case 'host':
    case 'environment':
    case 'logger':
    case 'message':
    case 'shape':
    case 'level':
    case 'weight':
      return record[field];
    case 'source':
      return record.source.path;
    case 'flow':
    case 'outcome':
      return record[field] ?? '';
    case 'took':
      return record.tookMs === null ? '' : duration(record.tookMs);
  }
  const own = record.attributes[field];
  if (own !== undefined) return String(own);
  const kind = record.identifiers.filter((one) => one.kind === field);
  if (kind.length > 0) return kind.map((one) => one.value).join(' ');
  const name = Object.keys(record.attributes).find((one) => one.endsWith(`.${field}`));
  return name === undefined ? '' : String(record.attributes[name]);
}
/** The same as a search compares it: of several identifiers of a kind the first, durations exactly. */
export function valueOf(record: LogRecord, field: string): string {
  if (field === 'took') return record.tookMs === null ? '' : `${record.tookMs}ms`;
  return record.identifiers.find((one) => one.kind === field)?.value ?? cellOf(record, field);
}
const duration = (ms: number): string =>
  ms >= 1000 ? `${(ms / 1000).toFixed(ms < 10_000 ? 2 : 1)} s` : `${ms < 10 ? ms.toFixed(1) : Math.round(ms)} ms`;

/** The column moved to another place. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
}
