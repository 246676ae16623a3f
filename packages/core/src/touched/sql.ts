/** What a statement does with a table. */
export interface TableUse {
  way: 'reads' | 'writes';
  table: string;
}

const NAME = String.raw`((?:"[^"]{1,100}"|[\p{L}_][\p{L}\p{N}_$]{0,99})(?:\.(?:"[^"]{1,100}"|[\p{L}_][\p{L}\p{N}_$]{0,99})){0,2})`;
/** A statement begins where a log says it does, or with the line. */
const BEGINS =
  /(?:^|statement:\s*|execute\s[^:\n]{0,80}:\s*|query:\s*|sql[:=]\s*["']?)(select|insert\s+into|update|delete\s+from|merge\s+into|copy|truncate(?:\s+table)?|with)\b/iu;
const WRITES = new RegExp(
  String.raw`\b(?:insert\s+into|update(?:\s+only)?|delete\s+from(?:\s+only)?|merge\s+into|truncate(?:\s+table)?)\s+${NAME}`,
  'giu',
);
const READS = new RegExp(String.raw`\b(?:from|join|using)\s+(?:only\s+)?${NAME}(?![\p{L}\p{N}_$."])(?!\s*\()`, 'giu');
const COPY = new RegExp(String.raw`\bcopy\s+${NAME}(?:\s*\([^)]{0,400}\))?\s+(from|to)\b`, 'giu');
const COMMON = new RegExp(
  String.raw`(?:\bwith(?:\s+recursive)?|,)\s+${NAME}\s*(?:\([^)]{0,200}\)\s*)?as\s+(?:materialized\s+|not\s+materialized\s+)?\(`,
  'giu',
);
/** Names behind those words that are none of tables. */
const NO_TABLES = new Set(['select', 'lateral', 'unnest', 'values', 'dual', 'set', 'only', 'generate_series', 'where', 'stdin', 'stdout', 'skip', 'no', 'nothing']); // prettier-ignore
const LONGEST = 8000;

/** The tables that a message's statement of SQL reads and writes, in lower case without quotes; none where the message holds no statement. */
export function tablesIn(message: string): TableUse[] {
  const begin = BEGINS.exec(message.slice(0, 600));
  if (!begin) return [];
  // texts in quotes and remarks name no tables
  const sql = message.slice(begin.index, begin.index + LONGEST).replace(/'(?:[^']|'')*'/g, "''").replace(/\/\*.*?\*\/|--[^\n]*/gs, ' '); // prettier-ignore
  const plain = (name: string): string => name.replaceAll('"', '').toLowerCase();
  const own = new Set([...sql.matchAll(COMMON)].map((hit) => plain(hit[1]!)));
  const found = new Map<string, TableUse>();
  const add = (way: TableUse['way'], name: string): void => {
    const table = plain(name);
    if (!own.has(table) && !NO_TABLES.has(table)) found.set(`${way} ${table}`, { way, table });
  };
  const written = new Set<number>();
  for (const hit of sql.matchAll(WRITES)) {
    // “on conflict do update set”, “for update of”
    if (!NO_TABLES.has(plain(hit[1]!)) && !/\b(?:do|for|no\s+key)\s*$/i.test(sql.slice(Math.max(0, hit.index - 8), hit.index)))
      add('writes', hit[1]!);
    written.add(hit.index + hit[0].length);
  }
  for (const hit of sql.matchAll(COPY)) add(hit[2]!.toLowerCase() === 'from' ? 'writes' : 'reads', hit[1]!);
  for (const hit of sql.matchAll(READS)) if (!written.has(hit.index + hit[0].length) && !/\bextract\s*\([^)]*$/i.test(sql.slice(Math.max(0, hit.index - 60), hit.index))) add('reads', hit[1]!); // prettier-ignore
  return [...found.values()];
}
