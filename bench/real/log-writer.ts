import { createSocket } from 'node:dgram';
import { appendFileSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';

export type Level = 'debug' | 'info' | 'warn' | 'error';
/** How a service writes: drawn by seed. */
export type Layout = 'columns' | 'json' | 'pairs' | 'clock' | 'brackets' | 'syslog';
export const LAYOUTS: readonly Layout[] = ['columns', 'json', 'pairs', 'clock', 'brackets', 'syslog'];

export interface Said {
  logger: string;
  level: Level;
  text: string;
  /** Written beside the words, where the layout has fields; behind them else. */
  fields?: Record<string, string | number>;
  error?: Error;
}
const NUMBERS: Record<Level, number> = { debug: 20, info: 30, warn: 40, error: 50 };
const SEVERITIES: Record<Level, number> = { debug: 7, info: 6, warn: 4, error: 3 };
const two = (value: number): string => String(value).padStart(2, '0');
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** Writes what a service says, and beside it, out of sight of whoever reads the logs, which transaction each line is of. */
export class LogWriter {
  private line = 1;
  private readonly socket = createSocket('udp4');

  /** @param truth file of lines `{tx, line}`, or `{tx, text}` where another program writes the file */
  constructor(
    private readonly service: string,
    private readonly layout: Layout,
    private readonly file: string,
    private readonly truth: string,
    private readonly syslogPort: number,
    line = 1,
  ) {
    this.line = line;
    for (const path of [file, truth]) mkdirSync(dirname(path), { recursive: true });
    this.socket.unref();
  }

  say(tx: string | null, said: Said): void {
    const text = this.written(said);
    if (this.layout === 'syslog') {
      const now = new Date();
      const head = `<${16 * 8 + SEVERITIES[said.level]}>${MONTHS[now.getUTCMonth()]} ${String(now.getUTCDate()).padStart(2)} ${now.toISOString().slice(11, 19)} lending ${this.service}[${process.pid}]: `;
      for (const line of text.split('\n')) {
        this.socket.send(head + line, this.syslogPort, '127.0.0.1');
        if (tx) this.note({ tx, text: line });
      }
      return;
    }
    appendFileSync(this.file, `${text}\n`);
    if (tx) this.note({ tx, line: this.line });
    this.line += text.split('\n').length;
  }

  private note(what: { tx: string; line?: number; text?: string }): void {
    appendFileSync(this.truth, `${JSON.stringify(what)}\n`);
  }
  private written({ logger, level, text, fields = {}, error }: Said): string {
    const now = new Date();
    const iso = now.toISOString();
    const trace = error?.stack ? `\n${error.stack}` : '';
    const behind = Object.entries(fields).map(([name, value]) => ` ${name}=${value}`).join(''); // prettier-ignore
    switch (this.layout) {
      case 'json':
        return JSON.stringify({ level: NUMBERS[level], time: now.getTime(), pid: process.pid, name: this.service, module: logger, ...fields, ...(error ? { err: { type: error.name, message: error.message, stack: error.stack } } : {}), msg: text }); // prettier-ignore
      case 'pairs':
        return `time=${iso} level=${level} logger=${logger} msg=${JSON.stringify(text)}${behind}${error ? ` error=${JSON.stringify(error.stack)}` : ''}`;
      case 'clock':
        return `${iso.slice(11, 23)}|${level[0]!.toUpperCase()}|${logger}|${text}${behind}${trace}`;
      case 'brackets':
        return `[${two(now.getUTCDate())}/${MONTHS[now.getUTCMonth()]}/${now.getUTCFullYear()}:${iso.slice(11, 19)} +0000] (${process.pid}) ${level}: ${logger}: ${text}${behind}${trace}`;
      case 'syslog':
        return `${level === 'info' ? '' : `${level}: `}${text}${behind}${trace}`;
      default:
        return `${iso.slice(0, 10)} ${iso.slice(11, 19)},${iso.slice(20, 23)} ${level.toUpperCase().padEnd(5)} [${this.service}-${process.pid % 7}] ${logger} - ${text}${behind}${trace}`;
    }
  }
}
