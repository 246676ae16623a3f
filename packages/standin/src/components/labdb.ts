import { localText, localOffset, type Micros } from '../writing/times.ts';

export const LABDB = 'labdb/postgresql.csv';
export interface Session {
  pid: number;
  /** As the server writes it: start of the session and process id, both hexadecimal. */
  id: string;
  startedAt: Micros;
  line: number;
  user: string;
  application: string;
}
export const newSession = (pid: number, startedAt: Micros, user: string, application: string): Session => ({
  pid,
  startedAt,
  user,
  application,
  line: 0,
  id: `${Math.floor(startedAt / 1e6).toString(16)}.${pid.toString(16)}`,
});

const zone = (at: Micros): string => (localOffset(at) === 2 ? 'CEST' : 'CET');
const quote = (text: string): string => (text === '' ? '' : `"${text.replaceAll('"', '""')}"`);

/** PostgreSQL csvlog of version 15, time in the server's zone. */
export function labdbLine(
  at: Micros,
  session: Session,
  entry: { severity: string; state?: string; message: string; detail?: string; context?: string; query?: string; command?: string; xid?: number },
): string {
  session.line++;
  const start = localText(session.startedAt).slice(0, 19);
  return [
    `${localText(at)} ${zone(at)}`,
    quote(session.user),
    quote('labdb'),
    session.pid,
    quote('10.7.0.13:50122'),
    session.id,
    session.line,
    quote(entry.command ?? 'UPDATE'),
    `${start} ${zone(session.startedAt)}`,
    `${(session.pid % 60) + 3}/${session.line + 1000}`,
    entry.xid ?? 0,
    entry.severity,
    entry.state ?? '00000',
    quote(entry.message),
    quote(entry.detail ?? ''),
    '',
    '',
    '',
    quote(entry.context ?? ''),
    quote(entry.query ?? ''),
    '',
    '',
    quote(session.application),
    quote('client backend'),
    '',
    0,
  ].join(',');
}
