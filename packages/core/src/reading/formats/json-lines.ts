import type { Fields, FieldValue, Reader, RecordReader, ReadingContext, Sample, Draft } from '../types.ts';
import { levelOf, levelOfSeverity } from '../levels.ts';
import { TimeReader } from '../times.ts';
import { tookOfFields, tookOfText } from '../took.ts';

const TIME = ['time', 'timestamp', '@timestamp', 'ts', 'at', 'date', 'datetime', 'eventtime', 't', 'when'];
const MESSAGE = ['message', 'msg', 'text', 'body', 'event', 'log', 'description'];
const LEVEL = ['level', 'severity', 'loglevel', 'lvl', 'priority', 'error_severity', 'log.level'];
const LOGGER = ['logger', 'loggername', 'logger_name', 'name', 'category', 'source', 'log.logger'];
const STACK = ['stack', 'stacktrace', 'stack_trace', 'exception', 'error.stack', 'err.stack', 'error.stack_trace'];
/** Names by role, the most telling first in each; a role is its index here. */
const NAMES = [TIME, LEVEL, LOGGER, MESSAGE, STACK] as const;
type Role = 0 | 1 | 2 | 3 | 4;
const OFFSET = NAMES.map((_, role) => NAMES.slice(0, role).flat().length) as unknown as Record<Role, number>;
const MOST_FIELDS = 200;

/** One JSON object a line (RFC 8259), of any nesting; nested names become paths with dots. */
export const jsonLines: Reader = {
  format: 'json-lines',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line.trim() !== '').slice(0, 200);
    if (lines.length === 0) return 0;
    const objects = lines.filter((line) => line.trimStart().startsWith('{') && parseObject(line) !== null).length;
    return (objects / lines.length) * 0.98;
  },
  open: (_sample: Sample, context: ReadingContext): RecordReader => new JsonLinesReader(context),
};

class JsonLinesReader implements RecordReader {
  private readonly times: TimeReader;
  private readonly roles = new Map<string, number>();
  private readonly candidates: (string | undefined)[] = NAMES.flat().map(() => undefined);
  constructor(context: ReadingContext) {
    this.times = new TimeReader(context);
  }
  start(): void {}
  begins(): boolean {
    return true;
  }

  read(text: string, draft: Draft): void {
    const object = parseObject(text);
    if (!object) {
      draft.message = text;
      return;
    }
    const fields: Fields = {};
    flatten(object, '', fields, 0);
    const rest: Fields = {};
    this.candidates.fill(undefined);
    for (const name in fields) {
      const role = this.roleOf(name);
      if (role < 0) rest[name] = fields[name]!;
      else this.candidates[role] = name;
    }
    const take = (role: Role, fits: (value: FieldValue) => boolean): FieldValue | undefined => {
      let taken: FieldValue | undefined;
      for (let slot = OFFSET[role]; slot < OFFSET[role] + NAMES[role].length; slot++) {
        const name = this.candidates[slot];
        if (name === undefined) continue;
        const value = fields[name]!;
        if (taken === undefined && fits(value)) taken = value;
        else rest[name] = value;
      }
      return taken;
    };
    const time = take(0, (value) => this.readTime(value));
    if (time !== undefined) {
      draft.timeText = String(time);
      draft.at = this.times.at;
    }
    const level = take(1, (value) => levelOfValue(value) > 0);
    if (level !== undefined) draft.level = levelOfValue(level);
    const logger = take(2, (value) => typeof value === 'string');
    if (logger !== undefined) draft.logger = String(logger);
    // a name like “message” may hold a message's number: a sentence counts before a single word
    const sentence = MESSAGE.some((_, slot) => isSentence(fields[this.candidates[OFFSET[3] + slot] ?? '']));
    const message = take(3, (value) => typeof value === 'string' && value !== '' && (!sentence || isSentence(value)));
    const stack = take(4, (value) => typeof value === 'string' && value.includes('\n'));
    const said = message === undefined ? '' : String(message);
    draft.message = stack === undefined ? said : said + '\n' + String(stack);
    if (draft.message === '' || time === undefined) draft.message = text;
    draft.took = tookOfFields(rest);
    if (Number.isNaN(draft.took)) draft.took = tookOfText(said);
    draft.fields = rest;
    draft.understood = time !== undefined;
  }

  /** Slot of a name among the names that have a role, -1 for a plain field; names repeat from record to record. */
  private roleOf(name: string): number {
    let role = this.roles.get(name);
    if (role === undefined) {
      role = NAMES.flat().indexOf(name.toLowerCase());
      if (this.roles.size < 5000) this.roles.set(name, role);
    }
    return role;
  }

  private readTime(value: FieldValue): boolean {
    const text = String(value);
    if (typeof value === 'number' && !Number.isInteger(value)) return this.times.read(value.toFixed(6), 0, 'epoch') > 0;
    const found = this.times.readAny(text, 0);
    return found !== null && found.end === text.length;
  }
}

const isSentence = (value: FieldValue | undefined): boolean => typeof value === 'string' && /\s/.test(value);

function levelOfValue(value: FieldValue): ReturnType<typeof levelOf> {
  if (typeof value === 'string') return levelOf(value);
  if (typeof value !== 'number') return 0;
  if (value >= 10 && value <= 60) return levelOf(['', 'trace', 'debug', 'info', 'warn', 'error', 'fatal'][Math.floor(value / 10)] ?? '');
  return value >= 0 && value <= 7 ? levelOfSeverity(value) : 0;
}

function parseObject(text: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(text);
    return value !== null && typeof value === 'object' && !Array.isArray(value) ? (value as Record<string, unknown>) : null;
  } catch {
    return null; // not an object: the line is kept whole as a record that is not understood
  }
}

function flatten(value: object, prefix: string, into: Fields, depth: number, count = { left: MOST_FIELDS }): void {
  for (const [name, inner] of Object.entries(value)) {
    if (count.left <= 0) return;
    const path = prefix + name;
    if (inner === null || inner === undefined) continue;
    if (typeof inner === 'object') {
      if (Array.isArray(inner) || depth >= 8) {
        into[path] = JSON.stringify(inner);
        count.left--;
      } else flatten(inner as object, path + '.', into, depth + 1, count);
    } else {
      into[path] = inner as FieldValue;
      count.left--;
    }
  }
}
