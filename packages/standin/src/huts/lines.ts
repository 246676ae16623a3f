import type { Random } from '../writing/random.ts';
import { SECOND, utcText, type Micros } from '../writing/times.ts';

/** The logs of the booking office for mountain huts, each in a format of its own; all hosts write UTC. */
export const WEB = 'booking-web/web.ndjson';
/** Two instances, a log each. */
export const RESERVE = { a: 'reserve/a.log', b: 'reserve/b.log' };
export const PAY = 'pay/pay.log';
export const LOCKS = 'locks/locks.csv';
export const NOTIFIER = 'notifier/notifier.log';
export const WEATHER = 'weather/feed.log';

/** JSON lines, milliseconds since 1970. */
export const webLine = (at: Micros, level: string, request: string, message: string, more: Record<string, unknown> = {}): string =>
  JSON.stringify({ ts: Math.floor(at / 1000), lvl: level, svc: 'booking-web', node: 'hut-web-1', req: request, msg: message, ...more });
/** Text between bars, slashes in the date. */
export const reserveLine = (at: Micros, level: string, thread: string, logger: string, message: string): string =>
  `${utcText(at, ' ').replaceAll('-', '/')} +0000 | ${level} | ${thread} | ${logger} | ${message}`;

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
/** Month by name, then key=value. */
export function payLine(at: Micros, level: string, pid: number, rest: string): string {
  const text = utcText(at, ' ', ',');
  return `${text.slice(8, 10)} ${MONTHS[Number(text.slice(5, 7)) - 1]!} ${text.slice(0, 4)}${text.slice(10)} pay[${pid}] ${level} ${rest}`;
}

/** Semicolons, a header; a short session number that is used again and again. */
export const LOCKS_HEAD = 'time;level;session;booking;text';
export const locksLine = (at: Micros, level: string, session: number, booking: string, text: string): string =>
  `${utcText(at, 'T')}Z;${level};${session};${booking};${text}`;

/** RFC 3164, without a year. */
export function notifierLine(at: Micros, pid: number, message: string): string {
  const text = utcText(at, ' ');
  return `<30>${MONTHS[Number(text.slice(5, 7)) - 1]!} ${String(Number(text.slice(8, 10))).padStart(2)} ${text.slice(11, 19)} hut-mail-1 notifier[${pid}]: ${message}`;
}
/** key=value. */
export const weatherLine = (at: Micros, level: string, run: string, message: string, more = ''): string =>
  `time=${utcText(at, 'T', '.', 6)}Z level=${level} run=${run} msg="${message}"${more}`;

export const LEDGER = 'ledger/ledger.log';
/** The ledger: its time in UTC, milliseconds, the entry in brackets. */
export const ledgerLine = (at: Micros, entry: string, text: string, level = 'INFO'): string =>
  `${new Date(at / 1000).toISOString()} [${entry}] ${level} ledger.Book ${text}`;
export const ARCHIVE = 'archive/archive.log';
/** Written like the ledger, by another program of the same house. */
export const archiveLine = (at: Micros, entry: string, text: string): string =>
  `${new Date(at / 1000).toISOString()} [${entry}] INFO archive.Shelf ${text}`;

/** What an instance that is killed and starts again says, each with how long after. */
export const restarted = (random: Random): [Micros, string][] => [
  [random.around(4 * SECOND), 'reserve starts after an unclean end'],
  [random.around(9 * SECOND), 'ready for requests'],
];
