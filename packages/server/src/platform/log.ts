import { destination, pino, type Logger } from 'pino';
import pretty from 'pino-pretty';

export const LOG_LEVELS = ['silent', 'fatal', 'error', 'warn', 'info', 'debug', 'trace'] as const;
export type LogLevel = (typeof LOG_LEVELS)[number];

/** The server's own log, on standard error: a JSON object a line, or in words where that is a terminal. */
export function serverLog(level: LogLevel): Logger {
  const stream = process.stderr.isTTY
    ? pretty({ destination: 2, sync: true, ignore: 'pid,hostname', translateTime: 'SYS:HH:MM:ss.l' })
    : destination({ fd: 2, sync: true });
  return pino({ level, timestamp: pino.stdTimeFunctions.isoTime }, stream);
}
