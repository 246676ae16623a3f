import type { Draft, Reader, RecordReader, ReadingContext } from './shared.ts';
import { dayNumber } from '../calendar.ts';
import { zoneClock } from '../zones.ts';

/** Begins of the lines that stand before a statement. */
const TIME = '# Time:';
const WHO = '# User@Host:';
const STAMP = /^SET timestamp=(\d{9,11})(?:\.(\d{1,6}))?;\s*$/im;
const WHOLE = /^# Time:\s*(\d{4})-(\d\d)-(\d\d)[T ](\d\d):(\d\d):(\d\d)(?:\.(\d{1,6}))?(Z|[+-]\d\d:?\d\d)?/;
/** Six digits of a date, the hour without a zero. */
const SHORT = /^# Time:\s*(\d\d)(\d\d)(\d\d)\s+(\d{1,2}):(\d\d):(\d\d)/;
const SPOKEN = /^# User@Host:\s*([^\s[]*)\[([^\]]*)\]\s*@\s*(\S*)\s*\[([^\]]*)\](?:\s+Id:\s*(\d+))?/m;
const PAIR = /([A-Za-z][\w.]*):\s*(\S+)/g;
/** Lines between the head and the statement that say nothing of it. */
const ASIDE = /^(?:use [^;]*;|SET timestamp=[^;]*;|# .*)$/i;

/** Slow statements as a family of database servers logs them: time, user and durations stand in lines before each statement; its time only where that has changed. */
export const slowStatements: Reader = {
  format: 'slow-statements',
  confidence(sample) {
    const whos = sample.lines.filter((line) => line.startsWith(WHO)).length;
    const durations = sample.lines.filter((line) => line.startsWith('# Query_time:')).length;
    return whos > 0 && durations >= whos * 0.8 ? 0.98 : 0;
  },
  open: (_sample, context) => new SlowStatementReader(context),
};

class SlowStatementReader implements RecordReader {
  private readonly clock;
  private last: number;
  /** Nothing but a time stands in the record so far. */
  private bare = false;

  constructor({ zone, anchor }: ReadingContext) {
    this.clock = zoneClock(zone);
    this.last = anchor ?? NaN;
  }
  start(firstLine: string): void {
    this.bare = firstLine.startsWith(TIME);
  }
  begins(line: string): boolean {
    if (line.startsWith(TIME)) return true;
    const { bare } = this;
    this.bare = false;
    return line.startsWith(WHO) && !bare;
  }

  read(record: string, draft: Draft): void {
    draft.message = record;
    if (!record.startsWith(TIME) && !record.startsWith(WHO)) return;
    const at = this.timeOf(record);
    if (Number.isNaN(at)) return;
    this.last = at;
    draft.at = at;
    draft.understood = true;
    draft.timeText = (WHOLE.exec(record) ?? SHORT.exec(record) ?? STAMP.exec(record))?.[0].replace(/^# Time:\s*/, '') ?? '';
    const lines = record.split('\n');
    const statement = lines.findIndex((line) => !ASIDE.test(line.trim()));
    if (statement >= 0) draft.message = lines.slice(statement).join('\n').trim();
    this.readHead(lines.slice(0, statement < 0 ? lines.length : statement), draft);
  }

  private readHead(lines: readonly string[], draft: Draft): void {
    const { fields } = draft;
    const who = SPOKEN.exec(lines.join('\n'));
    if (who) {
      fields.user = who[1] || who[2]!;
      if (who[3] || who[4]) fields.client = (who[3] || who[4])!;
      if (who[5]) fields.thread = who[5];
    }
    for (const line of lines) {
      if (!line.startsWith('# ') || line.startsWith(TIME) || line.startsWith(WHO)) continue;
      for (const [, name, value] of line.matchAll(PAIR)) fields[name!.toLowerCase()] = /^-?\d+(?:\.\d+)?$/.test(value!) ? Number(value) : value!;
    }
    const took = Number(fields.query_time);
    if (took >= 0) draft.took = Math.round(took * 1e6);
  }

  /** In microseconds, NaN where nothing tells it. */
  private timeOf(record: string): number {
    const whole = WHOLE.exec(record);
    if (whole) {
      const [, year, month, day, hour, minute, second, fraction = '', zone] = whole;
      const local = micros(Number(year), Number(month), Number(day), Number(hour), Number(minute), Number(second)) + Number(fraction.padEnd(6, '0'));
      if (zone === undefined) return this.clock.toUtc(local);
      const sign = zone.startsWith('-') ? -1 : 1;
      return zone === 'Z' ? local : local - sign * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(-2))) * 60_000_000;
    }
    // it was logged in the second of the one before
    if (!record.startsWith(TIME) && !Number.isNaN(this.last)) return this.last;
    // told by the server without a zone to mistake
    const stamp = STAMP.exec(record);
    if (stamp) return Number(stamp[1]) * 1_000_000 + Number((stamp[2] ?? '').padEnd(6, '0'));
    const short = SHORT.exec(record);
    if (!short) return this.last;
    const [year, month, day, hour, minute, second] = short.slice(1).map(Number);
    return this.clock.toUtc(micros(2000 + year!, month!, day!, hour!, minute!, second!));
  }
}
const micros = (year: number, month: number, day: number, hour: number, minute: number, second: number): number =>
  (dayNumber(year, month, day) * 86_400 + hour * 3600 + minute * 60 + second) * 1_000_000;
