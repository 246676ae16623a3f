import { localText, offsetText, type Micros } from '../writing/times.ts';

export const SYSLOG = 'hosts/syslog.log';
export const MESSAGES = 'hosts/messages';
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** The newer hosts' own log: syslog of RFC 5424. */
export const syslogLine = (at: Micros, host: string, program: string, pid: number, severity: number, message: string): string =>
  `<${24 + severity}>1 ${localText(at, 'T', '.', 6)}${offsetText(at)} ${host} ${program} ${pid} - - ${message}`;

/** The older hosts' log: syslog of RFC 3164, local time without a year. */
export function messagesLine(at: Micros, host: string, program: string, pid: number | null, message: string): string {
  const text = localText(at);
  return `${MONTHS[Number(text.slice(5, 7)) - 1]!} ${String(Number(text.slice(8, 10))).padStart(2, ' ')} ${text.slice(11, 19)} ${host} ${program}${pid === null ? '' : `[${pid}]`}: ${message}`;
}
