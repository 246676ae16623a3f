import type { Draft, Reader, RecordReader, ReadingContext, Sample, Level } from './shared.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf } from '../levels.ts';
import { TimeReader, type TimeLayout } from '../times.ts';
import { tookOfText } from '../took.ts';

/** Where level, thread and logger stand between the time and the message; a group each, 0 where there is none. */
interface Head {
  pattern: RegExp;
  level: number;
  thread: number;
  logger: number;
}
const WORD = '([A-Za-z]{3,13}\\d?)';
const LOGGER = '([\\w$.\\/<>-]{1,120})';
/** From the most telling to the barest; the first that fits most lines of the sample with a real level word is taken. */
const HEADS: Head[] = [
  { pattern: new RegExp(`^ ${WORD} +\\[([^\\]]{1,120})\\] +${LOGGER} +[-–:] `), level: 1, thread: 2, logger: 3 },
  { pattern: new RegExp(`^ \\[([^\\]]{1,120})\\] +${WORD} +${LOGGER}(?: +[-–]|:) `), level: 2, thread: 1, logger: 3 },
  { pattern: new RegExp(`^ \\[([^\\]]{1,120})\\] +(?:[^\\s@]+@\\S+ +)?${WORD}: +`), level: 2, thread: 1, logger: 0 },
  { pattern: new RegExp(`^ ?\\| ?${WORD} *\\| ?${LOGGER} *\\| `), level: 1, thread: 0, logger: 2 },
  { pattern: new RegExp(`^ ?\\| ?${WORD} *\\| `), level: 1, thread: 0, logger: 0 },
  { pattern: new RegExp(`^ \\[${WORD}\\] +${LOGGER}: `), level: 1, thread: 0, logger: 2 },
  { pattern: new RegExp(`^ \\[${WORD}\\] (?:\\[?([\\w#*.]+)\\]?: )?`), level: 1, thread: 2, logger: 0 },
  { pattern: new RegExp(`^ ${WORD} +${LOGGER}(?: +[-–]|:) `), level: 1, thread: 0, logger: 2 },
  { pattern: new RegExp(`^ ${WORD}:? +`), level: 1, thread: 0, logger: 0 },
];
const BARE: Head = { pattern: /^[\s|:\]-]*/, level: 0, thread: 0, logger: 0 };
/** How far into a line a time may begin (behind a bracket, a host, a tag). */
const LATEST_TIME = 40;

/** Text lines that begin with a time; lines without one continue the record before (stack traces, bodies, statements). */
export const text: Reader = {
  format: 'text',
  confidence(sample) {
    const layout = learnLayout(sample);
    return layout ? 0.5 + 0.4 * layout.share : 0;
  },
  open: (sample, context) => new TextReader(context, learnLayout(sample)),
};

interface TextLayout {
  time: TimeLayout;
  column: number;
  head: Head;
  /** Share of the sample's unindented lines that begin with the time. */
  share: number;
}

/** The time's layout and column by majority, then the head that fits best. */
export function learnLayout(sample: Sample): TextLayout | null {
  const times = new TimeReader({ zone: 'UTC', year: 2000 });
  const seen = new Map<string, { time: TimeLayout; column: number; rests: string[] }>();
  let lines = 0;
  for (const line of sample.lines.slice(0, 400)) {
    if (line === '' || line[0] === ' ' || line[0] === '\t') continue;
    lines++;
    const found = findTime(line, times);
    if (!found) continue;
    const key = `${found.layout} ${found.column}`;
    let group = seen.get(key);
    if (!group) seen.set(key, (group = { time: found.layout, column: found.column, rests: [] }));
    group.rests.push(line.slice(found.end));
  }
  let best: { time: TimeLayout; column: number; rests: string[] } | null = null;
  for (const group of seen.values()) if (!best || group.rests.length > best.rests.length) best = group;
  if (!best || best.rests.length === 0) return null;
  return { time: best.time, column: best.column, head: bestHead(best.rests), share: best.rests.length / lines };
}

function findTime(line: string, times: TimeReader): { layout: TimeLayout; column: number; end: number } | null {
  for (let column = 0; column < Math.min(LATEST_TIME, line.length); column++) {
    if (column > 0 && /[\w.:-]/.test(line[column - 1]!)) continue;
    const found = times.readAny(line, column);
    if (found) return { ...found, column };
  }
  return null;
}

function bestHead(rests: string[]): Head {
  let best = BARE;
  let bestCount = rests.length * 0.4;
  for (const head of HEADS) {
    let count = 0;
    for (const rest of rests) {
      const hit = head.pattern.exec(rest);
      if (hit && levelOf(hit[head.level]!) > 0) count++;
    }
    if (count > bestCount * 1.02) {
      best = head;
      bestCount = count;
    }
  }
  return best;
}

export class TextReader implements RecordReader {
  protected readonly times: TimeReader;
  private readonly time: TimeLayout;
  private readonly column: number;
  private readonly head: Head;

  constructor(context: ReadingContext, layout: TextLayout | null) {
    this.times = new TimeReader(context);
    this.time = layout?.time ?? 'iso';
    this.column = layout?.column ?? 0;
    this.head = layout?.head ?? BARE;
  }

  start(): void {}

  begins(line: string): boolean {
    const first = line.charCodeAt(this.column);
    if (!(first >= 48 && first <= 57) && this.time !== 'month-name') return false;
    return this.times.read(line, this.column, this.time) > 0;
  }

  read(record: string, draft: Draft): void {
    const end = this.times.read(record, this.column, this.time);
    if (end < 0) {
      draft.message = record;
      return;
    }
    draft.at = this.times.at;
    draft.timeText = record.slice(this.column, end);
    draft.understood = true;
    const before = this.column > 0 ? record.slice(0, this.column).replace(/[[(<\s]+$/, '') : '';
    if (before !== '') draft.fields.prefix = before;
    this.readHead(record, end + (record.charCodeAt(end) === 93 ? 1 : 0), draft);
    const breakAt = draft.message.indexOf('\n');
    const first = breakAt < 0 ? draft.message : draft.message.slice(0, breakAt);
    if (first.includes('=')) keyValues(first, draft.fields);
    draft.took = tookOfText(first);
  }

  private readHead(record: string, end: number, draft: Draft): void {
    const breakAt = record.indexOf('\n', end);
    const line = record.slice(end, breakAt < 0 ? Math.min(record.length, end + 400) : Math.min(breakAt, end + 400));
    const hit = this.head.pattern.exec(line);
    const level: Level = hit && this.head.level > 0 ? levelOf(hit[this.head.level]!) : 0;
    if (!hit || (this.head.level > 0 && level === 0)) {
      draft.message = record.slice(end).replace(/^[\s|:]+/, '');
      return;
    }
    draft.level = level;
    if (this.head.thread > 0 && hit[this.head.thread]) draft.fields.thread = hit[this.head.thread]!.trim();
    if (this.head.logger > 0) draft.logger = hit[this.head.logger]!;
    draft.message = record.slice(end + hit[0].length);
  }
}
