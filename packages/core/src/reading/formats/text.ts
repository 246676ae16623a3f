import type { Draft, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { isWeekday } from '../calendar.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf, levelOfStatus } from '../levels.ts';
import { TimeReader } from '../times.ts';
import { tookOfText } from '../took.ts';
import { BySample } from './by-sample.ts';
import { InnerJson } from './inner-json.ts';
import { learnHead, readHead, readSpoken, type Head } from './text-head.ts';
import { learnPlace, timeAt, type Learned, type TimePlace } from './text-place.ts';

/** Longest head of a line, in characters. */
const LONGEST_HEAD = 600;
/** A second line that begins with the level: `INFO: message`. */
const SECOND = /^[ \t]*(\p{L}{3,14}): ?/u;

/** Text lines that hold a time near their beginning; lines without one continue the record before (stack traces, bodies, statements). */
export const text: Reader = {
  format: 'text',
  confidence(sample) {
    const layout = learnLayout(sample, CONTEXT);
    return layout ? 0.5 + 0.4 * layout.share : 0;
  },
  open: (sample, context) => new TextReader(context, learnLayout(sample, context)),
  lacksDay: (sample) => learnLayout(sample, CONTEXT)?.place.layout === 'clock',
};
const CONTEXT: ReadingContext = { zone: 'UTC', modified: 0 };

export interface TextLayout {
  place: TimePlace;
  before: Head | null;
  behind: Head | null;
  /** Level and message stand on the second line. */
  second: boolean;
  share: number;
  /** Of other programs that write into it too. */
  others: TextLayout[];
}

const learned = new BySample<TextLayout | null>((layout) => layout?.place.template !== undefined);

/** How the lines of a text are built, null where no line holds a time. */
export const learnLayout = (sample: Sample, context: ReadingContext): TextLayout | null =>
  learned.of(sample, `${context.dateOrder ?? ''} ${context.timePattern ?? ''}`, context.modified, () => learn(sample, context));

function learn(sample: Sample, context: ReadingContext): TextLayout | null {
  const found = learnPlace(sample, new TimeReader(context));
  return found && layoutOf(found);
}
function layoutOf(found: Learned): TextLayout {
  const { layout, column, words, glued, template, share, before, behind, next } = found;
  const second = next.length >= behind.length * 0.5 && next.filter((line) => levelOf(SECOND.exec(line)?.[1] ?? '') > 0).length >= next.length * 0.6;
  return {
    place: { layout, column, words, glued, template },
    before: before.some((one) => one !== '') ? learnHead(before) : null,
    behind: learnHead(behind.map((one) => one.replace(CLOSING, ''))),
    second,
    share: share + found.others.reduce((sum, other) => sum + other.share, 0),
    others: found.others.map(layoutOf),
  };
}
/** What closes the brackets around a time, a number of its own behind it. */
const CLOSING = /^(?::\d{1,10}(?=\)))?["'\])>}]+:?/;

export class TextReader implements RecordReader {
  protected readonly times: TimeReader;
  /** By which most lines are built, and those of other programs. */
  private readonly usual: Pick<TextLayout, 'place'> & Partial<TextLayout>;
  private readonly others: readonly TextLayout[];
  private layout: Partial<TextLayout> = {};
  private readonly inner: InnerJson;

  constructor(context: ReadingContext, layout: TextLayout | null) {
    this.times = new TimeReader(context);
    this.inner = new InnerJson(context);
    this.usual = layout ?? { place: { layout: 'iso', column: 0, words: 0, glued: false } };
    this.others = layout?.others ?? [];
  }

  start(): void {}

  begins(line: string): boolean {
    const first = line.charCodeAt(0);
    return first !== 32 && first !== 9 && this.timeOf(line) !== null;
  }

  /** Where a line's time stands, by the first layout that it fits. Nearly all texts have one layout: it is tried without ado. */
  private timeOf(line: string): { from: number; to: number } | null {
    const { usual } = this;
    const time = timeAt(line, usual.place, this.times);
    if (time || this.others.length === 0) {
      this.layout = usual;
      return time;
    }
    for (const layout of this.others) {
      const other = timeAt(line, layout.place, this.times);
      if (!other) continue;
      this.layout = layout;
      return other;
    }
    return null;
  }

  read(record: string, draft: Draft): void {
    const time = this.timeOf(record);
    if (!time) {
      draft.message = record;
      return;
    }
    draft.at = this.times.at;
    this.times.reached();
    draft.timeText = record.slice(time.from, time.to);
    draft.understood = true;
    if (time.from > 0) this.readBefore(record.slice(0, time.from), draft);
    draft.message = this.readBehind(record, time.to, draft);
    const breakAt = draft.message.indexOf('\n');
    const first = breakAt < 0 ? draft.message : draft.message.slice(0, breakAt);
    if (first.charCodeAt(0) === 34) readRequest(first, draft);
    if (first.includes('=')) {
      keyValues(first, draft.fields);
      if (draft.level === 0) readPairs(first, draft);
    }
    draft.took = tookOfText(first);
    this.inner.read(draft);
  }

  private readBefore(before: string, draft: Draft): void {
    if (readHead(before, this.layout.before ?? null, draft) > 0) return;
    const bare = before.replace(/[[({<"'\s|]+$/, '');
    if (!/[\p{L}\d]/u.test(bare) || isWeekday(bare.replace(/[.,]+$/, ''))) return;
    if (bare.includes('=')) keyValues(bare, draft.fields);
    else draft.fields.prefix = bare;
  }

  /** @returns the message */
  private readBehind(record: string, from: number, draft: Draft): string {
    const breakAt = record.indexOf('\n', from);
    const lineEnd = breakAt < 0 ? record.length : breakAt;
    const code = record.charCodeAt(from);
    let pos = from;
    if (code === 58 || isClosing(code)) pos += CLOSING.exec(record.slice(from, Math.min(lineEnd, from + 20)))?.[0].length ?? 0;
    const line = record.slice(pos, Math.min(lineEnd, pos + LONGEST_HEAD));
    if (this.layout.second && breakAt > 0) {
      const hit = SECOND.exec(record.slice(breakAt + 1, breakAt + 30));
      const level = hit ? levelOf(hit[1]!) : 0;
      if (level > 0) {
        draft.level = level;
        readHead(line, this.layout.behind ?? null, draft);
        const where = line.trim();
        if (draft.logger === '') draft.logger = where.split(' ', 1)[0]!;
        if (where.length > draft.logger.length) draft.fields.method = where.slice(draft.logger.length).trim();
        return record.slice(breakAt + 1 + hit![0].length);
      }
    }
    const read = readHead(line, this.layout.behind ?? null, draft);
    if (read > 0 && this.layout.behind?.end) {
      const said = readSpoken(line, this.layout.behind, draft);
      if (said !== null) return said + record.slice(lineEnd);
    }
    const head = withPhrase(line, read);
    const angles = head > 0 && record.charCodeAt(from) === 62 && record.charCodeAt(pos + head) !== 10;
    if (angles) return record.slice(pos + head).replace(/^\s*<([^\n]*?)>? *(?=\n|$)/, '$1');
    return record.slice(pos + head).replace(/^(?:[\s|:,;]|[-–—=>]{1,3}[ \t])+/, '');
  }
}
/** “Fatal error: …”: a level that is the first word of what is said stays in it, and can be searched for. */
function withPhrase(line: string, head: number): number {
  const next = head > 0 ? /^[ \t]*(\p{L}{3,14}):/u.exec(line.slice(head, head + 30)) : null;
  if (!next || levelOf(next[1]!) === 0) return head;
  const word = /(\p{L}+)[ \t]*$/u.exec(line.slice(0, head));
  return word && levelOf(word[1]!) > 0 ? word.index : head;
}
const LEVEL = ['level', 'lvl', 'severity'];
/** A line that is pairs alone behind its time: they tell level and message. */
function readPairs(line: string, draft: Draft): void {
  const { fields } = draft;
  const level = LEVEL.find((name) => typeof fields[name] === 'string' && levelOf(fields[name]) > 0);
  if (level === undefined) return;
  draft.level = levelOf(String(fields[level]));
  const said = ['msg', 'message'].find((name) => typeof fields[name] === 'string' && /\s/.test(fields[name]));
  if (!/^[\w.-]+=/.test(line) || said === undefined) return;
  draft.message = String(fields[said]) + draft.message.slice(line.length);
  // what is shown beside the fields is none of them
  draft.fields = Object.fromEntries(Object.entries(fields).filter(([name]) => name !== level && name !== said));
}

/** The first line of a request in quotes, and the status of its answer. */
const REQUEST = /^"([A-Z]{3,10}) (\S+) (HTTP\/[\d.]+)" (\d{3}) /;
function readRequest(line: string, draft: Draft): void {
  const hit = REQUEST.exec(line);
  if (!hit) return;
  Object.assign(draft.fields, { method: hit[1], path: hit[2], protocol: hit[3], status: Number(hit[4]) });
  if (draft.level === 0) draft.level = levelOfStatus(Number(hit[4]));
}
const isClosing = (code: number): boolean => code === 93 || code === 34 || code === 41 || code === 62 || code === 39;
