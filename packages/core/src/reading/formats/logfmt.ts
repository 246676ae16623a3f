import type { Draft, Fields, Reader, RecordReader, ReadingContext, Sample } from '../types.ts';
import { fieldValue, keyValues } from '../keyvalues.ts';
import { levelOf } from '../levels.ts';
import { isLogger, namesOf, programField } from '../named-fields.ts';
import { TimeReader } from '../times.ts';
import { tookOfFields } from '../took.ts';

const TIME = ['time', 'ts', 'timestamp', 'at', 't', '@timestamp'];
const LEVEL = ['level', 'lvl', 'severity'];
const MESSAGE = ['msg', 'message'];
const LOGGER = ['logger', 'caller', 'module', 'source'];

const SHOWN_APART = new Set([...TIME, ...LEVEL]);
const APART = new Set([...TIME, ...LEVEL, ...MESSAGE, ...LOGGER]);

/** Lines that are nothing but key=value pairs, a time among them. */
export const logfmt: Reader = {
  format: 'logfmt',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line.trim() !== '').slice(0, 200);
    if (lines.length === 0) return 0;
    const reader = new LogfmtReader({ zone: 'UTC', modified: 0 }, separatorOf(sample));
    const good = lines.filter((line) => /^[\w.@-]+=/.test(line) && reader.covers(line)).length;
    return (good / lines.length) * 0.95;
  },
  open(sample, context) {
    const separator = separatorOf(sample);
    return new LogfmtReader(context, separator, programOf(sample, new LogfmtReader({ zone: 'UTC', modified: 0 }, separator)));
  },
};

/** Signs other than blanks that may stand between pairs; then values hold blanks without quotes. */
const SEPARATORS = [';', '|', '\t', ',', '&'];
const PAIR = /^\s*[\w.@-]+=/;
/** What stands between the pairs of nearly all lines, null for blanks. */
function separatorOf(sample: Sample): string | null {
  const lines = sample.lines.filter((line) => line.trim() !== '').slice(0, 100);
  const splits = (line: string, separator: string): boolean => {
    const parts = cut(line, separator);
    return parts.length > 1 && parts.every((part) => PAIR.test(part));
  };
  return SEPARATORS.find((one) => lines.length > 0 && lines.filter((line) => splits(line, one)).length >= lines.length * 0.9) ?? null;
}
/** The parts between separators, those within quotes aside; a last one that is empty is none. */
function cut(line: string, separator: string): string[] {
  const parts: string[] = [];
  let from = 0;
  let quoted = false;
  for (let i = 0; i <= line.length; i++) {
    if (line[i] === '"' && line[i - 1] !== '\\') quoted = !quoted;
    if (i < line.length && (quoted || line[i] !== separator)) continue;
    parts.push(line.slice(from, i));
    from = i + 1;
  }
  if (parts.at(-1)!.trim() === '') parts.pop();
  return parts;
}

const named = new WeakMap<Sample, string | null>();
function programOf(sample: Sample, reader: LogfmtReader): string | null {
  let program = named.get(sample);
  if (program === undefined) {
    const lines = sample.lines.slice(0, 40).filter((line) => PAIR.test(line));
    named.set(sample, (program = programField(lines.map((line) => reader.pairs(line)))));
  }
  return program;
}

class LogfmtReader implements RecordReader {
  private readonly times: TimeReader;
  constructor(
    context: ReadingContext,
    private readonly separator: string | null,
    /** The field by which all lines name what wrote them. */
    private readonly program: string | null = null,
  ) {
    this.times = new TimeReader(context);
  }
  start(): void {}
  begins(line: string): boolean {
    const first = line.charCodeAt(0);
    return first !== 32 && first !== 9;
  }

  covers(line: string): boolean {
    const fields = {};
    return this.collect(line, fields, { names: APART, into: fields }) >= line.length * 0.8 && this.timeOf(fields) !== null;
  }

  /** All pairs of a line. */
  pairs(line: string): Fields {
    const fields: Fields = {};
    this.collect(line, fields, { names: APART, into: fields });
    return fields;
  }

  /** @returns how many characters the pairs cover */
  private collect(line: string, fields: Fields, apart: { names: ReadonlySet<string>; into: Fields }): number {
    if (this.separator === null) return keyValues(line, fields, apart);
    for (const part of cut(line, this.separator)) {
      const equals = part.indexOf('=');
      if (equals < 0) return 0;
      const name = part.slice(0, equals).trim();
      const value = part.slice(equals + 1).trim();
      const bare = value.startsWith('"') && value.endsWith('"') && value.length > 1 ? value.slice(1, -1).replace(/\\(.)/g, '$1') : value;
      (apart.names.has(name) ? apart.into : fields)[name] = bare === value ? fieldValue(value) : bare;
    }
    return line.length;
  }

  read(text: string, draft: Draft): void {
    const { fields } = draft;
    const apart: Fields = {};
    const breakAt = text.indexOf('\n');
    this.collect(breakAt < 0 ? text : text.slice(0, breakAt), fields, { names: APART, into: apart });
    const time = this.timeOf(apart);
    draft.message = text;
    if (time !== null) {
      draft.at = this.times.at;
      this.times.reached();
      draft.timeText = String(apart[time]);
      const level = LEVEL.find((name) => apart[name] !== undefined && levelOf(String(apart[name])) > 0);
      if (level !== undefined) draft.level = levelOf(String(apart[level]));
      const logger = LOGGER.find((name) => isLogger(name, apart[name]));
      if (logger !== undefined) draft.logger = String(apart[logger]);
      // a single word is a value (a message's number), no sentence
      const said = MESSAGE.find((name) => typeof apart[name] === 'string' && /\s/.test(apart[name]));
      draft.message = said === undefined ? withoutHead(text) : String(apart[said]);
      draft.understood = true;
      for (const name in apart) if (name !== time && name !== level && name !== logger && name !== said) fields[name] = apart[name]!;
    } else Object.assign(fields, apart);
    if (this.program !== null) draft.component = namesOf(fields, this.program).component;
    draft.took = tookOfFields(fields);
  }

  private timeOf(fields: Draft['fields']): string | null {
    for (const name of TIME) {
      const value = fields[name];
      if (value === undefined) continue;
      const found = this.times.readAny(String(value), 0);
      if (found) return name;
    }
    return null;
  }
}

/** The text behind the pairs at its beginning that are shown beside it: time and level. */
function withoutHead(text: string): string {
  let pos = 0;
  for (;;) {
    const equals = text.indexOf('=', pos);
    if (equals < 0 || !SHOWN_APART.has(text.slice(pos, equals))) return text.slice(pos);
    const end = text.charCodeAt(equals + 1) === 34 ? text.indexOf('" ', equals + 2) + 1 : text.indexOf(' ', equals);
    if (end <= 0) return text.slice(pos);
    pos = end + 1;
  }
}
