/** Rows of a run by what it says it did with them. */
export const ROW_ROLES = ['read', 'written', 'rejected', 'skipped'] as const;
export type RowRole = (typeof ROW_ROLES)[number];
/** null where nothing is said. */
export type RowsTold = Record<RowRole, number | null>;

/** Words of programs for what was done with rows, English and German. */
const VERBS: Record<RowRole, string> = {
  read: 'read|loaded|fetched|received|gelesen|geladen|empfangen',
  written:
    'wrote|written|inserted|updated|imported|exported|processed|stored|saved|merged|upserted|copied|geschrieben|eingefügt|verarbeitet|importiert|exportiert|gespeichert|kopiert',
  rejected: 'rejected|refused|invalid|discarded|abgelehnt|verworfen|fehlerhaft|zurückgewiesen',
  skipped: 'skipped|ignored|unchanged|übersprungen|ignoriert|unverändert',
};
const ROLE = new Map(ROW_ROLES.flatMap((role) => VERBS[role].split('|').map((verb): [string, RowRole] => [verb, role])));
const VERB = ROW_ROLES.map((role) => VERBS[role]).join('|');
/** A whole number, also with marks between thousands; none that is a part of a longer number, a time or an amount with a unit. */
const NUMBER = String.raw`(?<![\p{L}\d.,:/-])(\d{1,3}(?:[,.]\d{3})+|\d{1,15})(?![\p{L}\d]|[.,:/-]\d|\s?(?:ms|µs|us|s|sec|seconds|Sekunden|min|minutes|Minuten|h|hours|Stunden|bytes?|[kMG]i?B|%)(?![\p{L}\d]))`;
const BEHIND = new RegExp(`(?<![\\p{L}])(${VERB})(?:[_ ](?:rows|records|lines|items|entries|count))?["']?\\s?[:=]?\\s?${NUMBER}`, 'giu');
/** `4,232 rows were read`; also `rows_read=…` stands behind. */
const BEFORE = new RegExp(`${NUMBER}(?:\\s[\\p{L}]+){0,3}?\\s(${VERB})(?![\\p{L}])`, 'giu');
const ANY = new RegExp(VERB, 'iu');

/** What a message says of rows, by its first line; the last that is said of each kind. */
export function rowsIn(message: string): Partial<Record<RowRole, number>> {
  const end = message.indexOf('\n');
  const line = message.slice(0, Math.min(end < 0 ? message.length : end, 600));
  const told: Partial<Record<RowRole, number>> = {};
  if (!ANY.test(line) || !/\d/.test(line)) return told;
  // what stands before its verb is none of the verb before it: “12 rows read, 3 rejected”
  const taken = new Set<number>();
  for (const hit of line.matchAll(BEFORE)) {
    taken.add(hit.index);
    told[ROLE.get(hit[2]!.toLowerCase())!] = valueOf(hit[1]!);
  }
  for (const hit of line.matchAll(BEHIND)) {
    const at = hit.index + hit[0].length - hit[2]!.length;
    if (!taken.has(at)) told[ROLE.get(hit[1]!.toLowerCase())!] ??= valueOf(hit[2]!);
  }
  return told;
}
const valueOf = (text: string): number => Number(text.replace(/[,.]/g, ''));

/** What a run says of rows in its records: the most of each kind, as pieces come before a sum. */
export class RowsOfRun {
  private readonly told: RowsTold = { read: null, written: null, rejected: null, skipped: null };
  note(rows: Partial<Record<RowRole, number>>): void {
    for (const role of ROW_ROLES) {
      const one = rows[role];
      if (one !== undefined && one > (this.told[role] ?? -1)) this.told[role] = one;
    }
  }
  /** In the order of ROW_ROLES, -1 where nothing is said; empty where nothing is said at all. */
  list(): number[] {
    const all = ROW_ROLES.map((role) => this.told[role] ?? -1);
    return all.every((one) => one < 0) ? [] : all;
  }
}
export const rowsOf = (list: readonly number[]): RowsTold =>
  Object.fromEntries(ROW_ROLES.map((role, i) => [role, (list[i] ?? -1) < 0 ? null : list[i]!])) as RowsTold;
