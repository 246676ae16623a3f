import type { Listed } from './types.ts';

const START =
  /(?:^|[\n:(>]\s{0,20}|\bstatement:\s*|\bexecute [^:\n]*:\s*|\bparse [^:\n]*:\s*|\bQuery Text:\s*)((?:SELECT\s[\s\S]{0,4000}?\bFROM\b|SELECT\s+\S+\s*\(|INSERT\s+INTO\s|UPDATE\s+\S+\s+(?:AS\s+\w+\s+)?SET\s|DELETE\s+FROM\s|WITH\s+(?:RECURSIVE\s+)?\w+(?:\s*\([^)]*\))?\s+AS\s|MERGE\s+INTO\s|CREATE\s+(?:TABLE|INDEX|UNIQUE|VIEW|TEMP)\b|ALTER\s+TABLE\s))/i;
/** What stands behind a statement: other parts of a log entry, parameters, a plan. */
const END = /;\s*(?:\n|$)|\n(?=\S[\w ]*:\s)|\n(?=[A-Z][\w ]*\s+\(cost=)|\s{1,20}(?=(?:with )?parameters?\s*[:=]\s)/i;
const PARAMETERS = /parameters?\s{0,20}[:=]\s{0,20}([\s\S]*)/i;
const PARAMETER = /\$(\d+)\s*=\s*('(?:[^']|'')*'|[^,\n]+)/g;
/** Words of prose begin like statements: these hold what only SQL does. */
const SURE = /[=*();]|\b(?:FROM|INTO|SET|VALUES|WHERE|JOIN)\b/;

/** A statement that stands in a stretch of a text, with its parameters where they are told behind it; null where there is none. */
export function sqlIn(text: string, from: number, to: number): { from: number; to: number; statement: string; parameters: Listed[] } | null {
  const stretch = text.slice(from, to);
  const start = START.exec(stretch);
  if (!start) return null;
  const begin = start.index + start[0].length - start[1]!.length;
  const rest = stretch.slice(begin);
  const end = END.exec(rest);
  const length = end ? end.index + (end[0].startsWith(';') ? 1 : 0) : rest.trimEnd().length;
  const statement = rest.slice(0, length).trim();
  if (statement.split(/\s+/).length < 3 || !SURE.test(statement)) return null;
  return { from: from + begin, to: from + begin + length, statement, parameters: parametersOf(rest.slice(length)) };
}

/** Values of numbered parameters: `parameters: $1 = '7', $2 = NULL`. */
export function parametersOf(text: string): Listed[] {
  const told = PARAMETERS.exec(text)?.[1] ?? '';
  return [...told.matchAll(PARAMETER)].map((hit) => ({ name: `$${hit[1]}`, value: hit[2]!.trim().replace(/^'([\s\S]*)'$/, '$1').replaceAll("''", "'") })); // prettier-ignore
}
