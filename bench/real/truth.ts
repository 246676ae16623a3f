import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import type { Place } from '@fadenweg/standin';
import type { Machine } from './machine.ts';
import type { Role } from './settings.ts';

/** Where the lines of each request stand. */
export type Lines = Map<string, { place: Place; text: string }[]>;
export const DATABASE_LOG = 'database/postgresql.log';
const SYSLOG = 'syslog/syslog';
const ROLES: readonly Role[] = ['desk', 'shelf', 'post'];
/** Lines of an entry of the database's log that go into detail. */
const MORE = /\b(?:DETAIL|HINT|STATEMENT|CONTEXT|QUERY|LOCATION): {1,2}/;
const ENTRY = /\b(?:LOG|ERROR|FATAL|PANIC|WARNING|NOTICE|INFO|DEBUG[1-5]?): {1,2}/;
/** Which field of the database's CSV log names the application, and which holds the message. */
const [MESSAGE, APPLICATION] = [13, 22];

const linesOf = async (file: string): Promise<string[]> => (await readFile(file, 'utf8').catch(() => '')).split('\n').slice(0, -1);

/** Whose each line is, by what was noted of it out of sight. */
export async function linesByRequest(machine: Machine): Promise<Lines> {
  const found: Lines = new Map();
  const note = (tx: string, place: Place, text: string): void => {
    const own = found.get(tx) ?? [];
    found.set(tx, own);
    own.push({ place, text });
  };
  const syslog = await linesOf(join(machine.logs, SYSLOG));
  const taken = new Set<number>();
  for (const role of ROLES) {
    const own = await linesOf(join(machine.logs, role, `${role}.log`));
    let from = 0;
    for (const noted of await linesOf(join(machine.truth, `${role}.jsonl`))) {
      const { tx, line, text } = JSON.parse(noted) as { tx: string; line?: number; text?: string };
      if (line !== undefined) {
        note(tx, `${role}/${role}.log:${line}`, own[line - 1]!);
        continue;
      }
      const at = syslog.findIndex((one, i) => i >= from && !taken.has(i) && one.includes(`${role}`) && one.endsWith(text!.trimEnd()));
      if (at < 0) continue; // a datagram that was lost
      taken.add(at);
      while (taken.has(from)) from++;
      note(tx, `${SYSLOG}:${at + 1}`, syslog[at]!);
    }
  }
  const door = await linesOf(join(machine.logs, 'door/access.log'));
  (await linesOf(join(machine.truth, 'door.txt'))).forEach((tx, i) => note(tx, `door/access.log:${i + 1}`, door[i]!));
  const { shown, telling } = await machine.databaseLogs();
  ofDatabase(shown, telling, note);
  return found;
}

/** The database writes each entry into both of its logs, in one order; only one of them tells whose it is. */
function ofDatabase(shown: string, telling: string, note: (tx: string, place: Place, text: string) => void): void {
  const rows = parse(telling, { relax_column_count: true }) as string[][];
  let row = 0;
  let tx: string | null = null;
  shown.split('\n').forEach((text, i) => {
    if (MORE.test(text) && !ENTRY.test(text.split(MORE)[0]!)) {
      if (tx) note(tx, `${DATABASE_LOG}:${i + 1}`, text);
      return;
    }
    const entry = ENTRY.exec(text);
    if (!entry) return;
    const message = text.slice(entry.index + entry[0].length);
    let at = row;
    while (at < rows.length && rows[at]![MESSAGE]!.split('\n')[0] !== message) at++;
    tx = null;
    if (at === rows.length) return;
    row = at + 1;
    const application = rows[at]![APPLICATION]!;
    tx = application.startsWith('tx-') ? application : null;
    if (tx) note(tx, `${DATABASE_LOG}:${i + 1}`, text);
  });
}
