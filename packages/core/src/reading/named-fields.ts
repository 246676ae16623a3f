import type { Level } from '../units.ts';
import type { Draft, Fields, FieldValue, ReadingContext } from './types.ts';
import { levelOf, levelOfLetter, levelOfSeverity, levelOfStatus } from './levels.ts';
import { requestOf } from './request-line.ts';
import { TimeReader } from './times.ts';
import { tookOfFields, tookOfText } from './took.ts';

const TIME = ['time', 'timestamp', '@timestamp', 'ts', 'at', 'date', 'datetime', 'eventtime', 't', 'when', '_time', '__realtime_timestamp',
  'time_unix_nano', 'created', 'created_at', 'logged_at', 'log_time', 'zeit', 'zeitstempel', 'horodatage', 'fecha', 'data', 'tijd', 'instant.epochsecond',
  '@t', 'timeunixnano', 'start_time', 'starttime', 'timestamp.seconds', 'time.seconds', 'timestampseconds',
]; // prettier-ignore
const LEVEL = ['level', 'severity', 'loglevel', 'lvl', 'priority', 'error_severity', 'log.level', 'level_name', 'levelname', 'severitytext', 'severity_text',
  'log_level', '@level', 'levelvalue', 'stufe', 'niveau', 'nivel', 'livello', '@l', 's',
]; // prettier-ignore
const LOGGER = [
  'logger',
  'loggername',
  'logger_name',
  'name',
  'category',
  'source',
  'log.logger',
  'module',
  'class',
  'sourcecontext',
  'syslog_identifier',
  'caller',
];
const MESSAGE = ['message', 'msg', 'text', 'body', 'event', 'log', 'description', '@message', 'short_message', 'rendered', '@m', 'nachricht', 'meldung', 'mensaje', 'messaggio', 'bericht', 'body.stringvalue', 'renderedmessage', '@mt', 'messagetemplate']; // prettier-ignore
const STACK = ['stack', 'stacktrace', 'stack_trace', 'exception', 'error.stack', 'err.stack', 'error.stack_trace', 'exc_info', 'traceback', '@x', 'error.stacktrace', 'exception.stacktrace', 'thrown.extendedstacktrace', 'full_message']; // prettier-ignore
/** A number under this name is no level. */
const SHORT_LEVEL = 's';
const FILE_AND_LINE = /\.[a-z]{1,5}:\d+$/i;
/** Whether a field names who logs. A caller may be a person: only a file with its line is a place in a program. */
export const isLogger = (name: string, value: FieldValue | undefined): value is string =>
  typeof value === 'string' && (name.toLowerCase() !== 'caller' || FILE_AND_LINE.test(value));
/** Messages with the names of fields in place of their values. */
const TEMPLATES = new Set(['@mt', 'messagetemplate']);
/** Other names that sound of a time. */
const SOUNDS_OF_TIME = /(?:^|[^a-z])(?:ts|at)$|(?:time|date|timestamp|time_?stamp|nano|nanos)$/i;
/** Names by role, the most telling first in each; a role is its index here. */
const NAMES = [TIME, LEVEL, LOGGER, MESSAGE, STACK] as const;
type Role = 0 | 1 | 2 | 3 | 4;
const ALL = NAMES.flat();
const OFFSET = NAMES.map((_, role) => NAMES.slice(0, role).flat().length) as unknown as Record<Role, number>;
/** Names of seconds since 1970, and of the nanoseconds that belong to them. */
const NANOS_OF: Record<string, string> = {
  'instant.epochSecond': 'instant.nanoOfSecond',
  'timestamp.seconds': 'timestamp.nanos',
  'time.seconds': 'time.nanos',
  timestampSeconds: 'timestampNanos',
};
/** A date and a clock in columns of their own. */
const DATES = new Set(['date', 'datum', 'data', 'fecha', 'day']);
const CLOCKS = new Set(['time', 'uhrzeit', 'hora', 'ora', 'heure', 'tijd', 'clock']);
/** Names of fields that name the component or the host that wrote a record. */
const COMPONENT = [
  'service.name',
  'service_name',
  'servicename',
  'kubernetes.container_name',
  'container_name',
  'syslog_identifier',
  'SYSLOG_IDENTIFIER',
  'program',
  'app_name',
];
const HOST = ['host.name', 'hostname', 'service.host', 'host', 'kubernetes.node_name', '_hostname', '_HOSTNAME', 'node_name'];

/** Finds time, level, logger, message and stack among named fields, whatever their names and their spelling. */
export class NamedFields {
  readonly times: TimeReader;
  /** Slot among all names of roles by name as written; names repeat from record to record. */
  private readonly roles = new Map<string, number>();
  private readonly candidates: (string | undefined)[] = ALL.map(() => undefined);

  constructor(context: ReadingContext) {
    this.times = new TimeReader(context);
  }

  hasTime(fields: Fields): boolean {
    return (
      Object.keys(fields).some((name) => this.slotOf(name) >= 0 && this.slotOf(name) < TIME.length && this.readTime(fields[name]!)) ||
      this.dateAndClock(fields) !== null ||
      this.otherTime(fields) !== undefined
    );
  }

  /**
   * Fills the draft.
   *
   * @param text the record as it stands, for a record without a message of its own
   * @returns false where no time is found: then only message and fields are set
   */
  read(fields: Fields, text: string, draft: Draft): boolean {
    const rest: Fields = {};
    const { candidates } = this;
    candidates.fill(undefined);
    for (const name in fields) {
      const slot = this.slotOf(name);
      if (slot < 0) rest[name] = fields[name]!;
      else if (candidates[slot] === undefined) candidates[slot] = name;
      else rest[name] = fields[name]!;
    }
    const take = (role: Role, fits: (value: FieldValue, name: string) => boolean): FieldValue | undefined => {
      let taken: FieldValue | undefined;
      for (let slot = OFFSET[role]; slot < OFFSET[role] + NAMES[role].length; slot++) {
        const name = candidates[slot];
        if (name === undefined) continue;
        const value = fields[name]!;
        if (taken === undefined && fits(value, name)) taken = value;
        else rest[name] = value;
      }
      return taken;
    };
    let time = this.dateAndClock(fields) ?? take(0, (value, name) => this.withNanos(value, name, fields));
    if (time === undefined) {
      const name = this.otherTime(rest);
      if (name !== undefined) {
        time = rest[name];
        delete rest[name];
      }
    }
    if (time !== undefined) {
      draft.timeText = String(time);
      draft.at = this.times.at;
      this.times.reached();
    }
    const level = take(1, (value, name) => levelOfValue(value) > 0 && (name !== SHORT_LEVEL || typeof value === 'string'));
    if (level !== undefined) draft.level = levelOfValue(level);
    const logger = take(2, (value, name) => isLogger(name, value));
    if (logger !== undefined) draft.logger = String(logger);
    // a name like “message” may hold a message's number: a sentence counts before a single word
    const sentence = MESSAGE.some((_, slot) => isSentence(fields[candidates[OFFSET[3] + slot] ?? '']));
    const message = take(3, (value) => typeof value === 'string' && value !== '' && (!sentence || isSentence(value)));
    const template =
      typeof message === 'string' &&
      message.includes('{') &&
      TEMPLATES_BY.some((slot) => candidates[slot] !== undefined && fields[candidates[slot]] === message);
    const stack = take(4, (value) => typeof value === 'string' && value.includes('\n'));
    const said = message === undefined ? '' : template ? filled(String(message), fields) : String(message).trimEnd();
    draft.message = stack === undefined ? said : `${said}\n${String(stack)}`;
    if (time === undefined) draft.message = text;
    else if (draft.message === '') {
      const request = requestOf(rest);
      draft.message = request?.words ?? text;
      if (request && draft.level === 0) draft.level = levelOfStatus(request.status);
    }
    draft.took = tookOfFields(rest);
    if (Number.isNaN(draft.took)) draft.took = tookOfText(said);
    draft.fields = rest;
    draft.understood = time !== undefined;
    return draft.understood;
  }

  /** Seconds since 1970 that have their nanoseconds in a field of their own are read with these. */
  private withNanos(value: FieldValue, name: string, fields: Fields): boolean {
    if (!this.readTime(value)) return false;
    const nanos = fields[NANOS_OF[name] ?? ''];
    if (typeof nanos === 'number' && nanos >= 0 && nanos < 1e9) this.times.read(`${value}.${String(nanos).padStart(9, '0')}`, 0, 'epoch');
    return true;
  }

  /** The name of another field that holds a time: by its name, then by what it holds. Sets what `times` has read. */
  private otherTime(fields: Fields): string | undefined {
    const names = Object.keys(fields);
    const isDate = (name: string): boolean => {
      const value = fields[name];
      return typeof value === 'string' && value.length >= 19 && value.length <= 40 && this.times.read(value, 0, 'iso') === value.length;
    };
    return names.find((name) => SOUNDS_OF_TIME.test(name) && this.readTime(fields[name]!)) ?? names.find(isDate);
  }

  /** Slot of a name among the names that have a role, -1 for a plain field. */
  private slotOf(name: string): number {
    let slot = this.roles.get(name);
    if (slot === undefined) {
      slot = ALL.indexOf(name.toLowerCase());
      if (this.roles.size < 5000) this.roles.set(name, slot);
    }
    return slot;
  }

  private readTime(value: FieldValue): boolean {
    if (typeof value === 'number' && !Number.isInteger(value)) return this.times.read(value.toFixed(6), 0, 'epoch') > 0;
    const text = String(value).trim();
    const found = this.times.readAny(text, 0);
    return found !== null && found.layout !== 'clock' && found.end === text.length;
  }

  /** `2026-11-24` and `10:41:58` in two fields; the text of both, null where it is not so. */
  private dateAndClock(fields: Fields): string | null {
    let date: string | null = null;
    let clock: string | null = null;
    for (const name in fields) {
      const value = fields[name];
      if (typeof value !== 'string' || value.length < 6 || value.length > 20) continue;
      const bare = name.toLowerCase();
      if (DATES.has(bare) && !value.includes(':')) date = value;
      else if (CLOCKS.has(bare) && /^\d\d?:\d\d/.test(value)) clock = value;
    }
    if (date === null || clock === null) return null;
    const text = `${date} ${clock}`;
    return this.times.readAny(text, 0)?.end === text.length ? text : null;
  }
}

const TEMPLATES_BY = ALL.flatMap((name, slot) => (TEMPLATES.has(name) ? [slot] : []));
/** A message template with the values of the fields that it names, as far as they are there. */
const filled = (template: string, fields: Fields): string =>
  template.replace(/\{[@$]?([\w.]{1,80})(?:,-?\d+)?(?::[^{}]{0,40})?\}/g, (place, name: string) => {
    const value = fields[name] ?? fields[`Properties.${name}`];
    return value === undefined ? place : String(value);
  });

const isSentence = (value: FieldValue | undefined): boolean => typeof value === 'string' && /\s/.test(value);

export function levelOfValue(value: FieldValue): Level {
  if (typeof value === 'string')
    return /^\d+$/.test(value) ? levelOfValue(Number(value)) : levelOf(value) || levelOfLetter(/^([TDIWEFV])\d?$/.exec(value)?.[1] ?? '-');
  if (typeof value !== 'number') return 0;
  if (value >= 10 && value <= 60) return levelOf(['', 'trace', 'debug', 'info', 'warn', 'error', 'fatal'][Math.floor(value / 10)] ?? '');
  return value >= 0 && value <= 7 ? levelOfSeverity(value) : 0;
}

/** Fields that name what writes, or what is spoken of: only where all records of a source have the same few. */
const MAY_NAME = new Set([
  'service',
  'app',
  'application',
  'appname',
  'applicationname',
  'servicename',
  'program',
  'programname',
  'component',
  'system',
]);
/** So many of the records have it, and so few different values at most. */
const NEARLY_ALL = 0.95;
const FEW = 4;

/**
 * The field by which all records of a sample name what wrote them, null where there is none.
 *
 * @param records their fields
 */
export function programField(records: readonly Fields[]): string | null {
  const counts = new Map<string, { count: number; values: Set<string> }>();
  for (const fields of records) {
    for (const name in fields) {
      if (!MAY_NAME.has(name.toLowerCase().replace(/[-_. ]/g, ''))) continue;
      const value = firstName(fields, [name]);
      if (value === '') continue;
      const own = counts.get(name) ?? { count: 0, values: new Set<string>() };
      counts.set(name, own);
      own.count++;
      own.values.add(value);
    }
  }
  for (const [name, { count, values }] of counts) if (records.length >= 2 && count >= records.length * NEARLY_ALL && values.size <= FEW) return name;
  return null;
}

/**
 * The component and the host that a record's fields name.
 *
 * @param program the field by which all records of the source name what wrote them
 */
export function namesOf(fields: Fields, program: string | null = null): { component: string; host: string } {
  return { component: firstName(fields, COMPONENT) || (program === null ? '' : firstName(fields, [program])), host: firstName(fields, HOST) };
}
function firstName(fields: Fields, names: readonly string[]): string {
  for (const name of names) {
    const value = fields[name];
    if (typeof value === 'string' && /^[\p{L}\d][\p{L}\d_.:-]{0,79}$/u.test(value)) return value;
  }
  return '';
}
