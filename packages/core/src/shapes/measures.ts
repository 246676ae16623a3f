import { isLaneField } from '../stitching/lane.ts';

/** Last parts of names of fields whose numbers are no volumes: times, numbers that name or order something, results. */
const NO_VOLUMES =
  /^(?:.*(?:ms|millis|micros|nanos|secs|seconds?|minutes?|hours?|time|stamp|date|id|no|number|nr|port|line|code|status|result|level|severity|version|year|month|day)|ts|at|epoch|took|elapsed|duration|latency|delay|wait(?:ed)?|age|ttl|timeout|us|ns|s|seq|sequence|offset|position|index|partition|attempts?|retry|retries|try|delivery|redelivered|priority|facility|lvl|rc|session|session_?line|transaction|xid|amount|price|lat|lon|percent|pct|ratio|load|temperature)$/i;
const MOST = 6;
const LONGEST = 120;

const known = new Map<string, boolean>();
/** Whether a field of this name may state a volume: rows, items, bytes. */
export function isVolume(field: string): boolean {
  let is = known.get(field);
  if (is === undefined) {
    const last = field.slice(field.lastIndexOf('.') + 1);
    // `bytesWritten`, `rows_read`: judged by their whole and by their last word
    const word = /(?:[A-Z]?[a-z]+|[A-Z]+|\d+)$/.exec(last)?.[0] ?? last;
    is = !NO_VOLUMES.test(last) && !NO_VOLUMES.test(word) && !isLaneField(field);
    if (known.size < 10_000) known.set(field, is);
  }
  return is;
}
const COUNT = /^\d{1,12}$/;

/** The whole numbers that fields state and that may be volumes (`rows=118`), several with a blank between, '' for none; at most 6. */
export function measuresOf(fields: Readonly<Record<string, unknown>>): string {
  let measures = '';
  let count = 0;
  for (const field in fields) {
    const value = fields[field];
    const counts = typeof value === 'number' ? Number.isSafeInteger(value) && value >= 0 : typeof value === 'string' && COUNT.test(value);
    if (!counts || !isVolume(field) || field.includes(' ')) continue;
    const more = `${measures === '' ? '' : ' '}${field}=${Number(value)}`;
    if (measures.length + more.length > LONGEST || count === MOST) break;
    measures += more;
    count++;
  }
  return measures;
}

/** Traits and measures as one text, as they are kept. */
export const withMeasures = (traits: string, measures: string): string => (measures === '' ? traits : `${traits}\t${measures}`);
/** The other way round. */
export function tellingParts(text: string): { traits: string; measures: string } {
  const tab = text.indexOf('\t');
  return tab < 0 ? { traits: text, measures: '' } : { traits: text.slice(0, tab), measures: text.slice(tab + 1) };
}
