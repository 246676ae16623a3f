import type { Level, Microseconds } from '../../units.ts';
import { frame } from '../framing.ts';
import { guessFormats, openReader, sampleOf } from '../registry.ts';
import { emptyDraft, type Draft, type ReadingContext } from '../types.ts';

/**
 * Heads of lines by chance: which columns there are, in what order, brackets and separators, how time and
 * level are written. Nobody wrote them, so that no rule can fit them by name.
 */
export interface DrawnLine {
  text: string;
  at: Microseconds;
  level: Level;
  thread: string | null;
  logger: string | null;
  message: string;
}
export interface DrawnHead {
  lines: DrawnLine[];
  /** Its threads are numbers, and no process stands beside them. */
  numbered: boolean;
  /** What it was drawn of, for telling which ones are misread. */
  described: string;
}

type Column = 'level' | 'thread' | 'logger' | 'pid' | 'code' | 'request';

const two = (value: number): string => String(value).padStart(2, '0');
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const LEVEL_SETS: readonly (readonly [string, Level][])[] = [
  [['INFO', 3], ['WARN', 4], ['ERROR', 5], ['DEBUG', 2]],
  [['info', 3], ['warning', 4], ['error', 5], ['debug', 2]],
  [['Information', 3], ['Warning', 4], ['Error', 5], ['Critical', 6]],
  [['I', 3], ['W', 4], ['E', 5], ['D', 2]],
  [['INF', 3], ['WRN', 4], ['ERR', 5], ['DBG', 2]],
  [['NOTICE', 3], ['WARNING', 4], ['ERROR', 5], ['FATAL', 6]],
  [['INFORMATION', 3], ['WARNUNG', 4], ['FEHLER', 5], ['FEIN', 1]],
  [['notice', 3], ['warn', 4], ['err', 5], ['crit', 6]],
]; // prettier-ignore
/** Where a letter alone stands it is as a column of its own. */
const BRACKETS: readonly (readonly [string, string])[] = [['[', ']'], ['(', ')'], ['<', '>'], ['{', '}'], ['', '']]; // prettier-ignore
const JOINTS = [' ', ' ', ' - ', ' | ', '|', '\t', '; ', ', ', ' : '];
const ENDS = [': ', ' - ', ' ', ' | ', '\t', ' > ', ' -- ', ' => '];
const TIMES: readonly ((at: Date) => { text: string; unit: number })[] = [
  (at) => ({ text: `${at.toISOString().slice(0, 23)}Z`, unit: 1 }),
  (at) => ({ text: at.toISOString().slice(0, 23).replace('T', ' '), unit: 1 }),
  (at) => ({ text: at.toISOString().slice(0, 23).replace('T', ' ').replace('.', ','), unit: 1 }),
  (at) => ({ text: at.toISOString().slice(0, 19).replace('T', ' '), unit: 1000 }),
  (at) => ({ text: at.toISOString().slice(0, 19).replaceAll('-', '/').replace('T', ' '), unit: 1000 }),
  (at) => ({ text: `${two(at.getUTCDate())}.${two(at.getUTCMonth() + 1)}.${at.getUTCFullYear()} ${at.toISOString().slice(11, 23)}`, unit: 1 }),
  (at) => ({
    text: `${two(at.getUTCDate())}/${MONTHS[at.getUTCMonth()]}/${at.getUTCFullYear()}:${at.toISOString().slice(11, 19)} +0000`,
    unit: 1000,
  }),
  (at) => ({ text: `${two(at.getUTCDate())}-${MONTHS[at.getUTCMonth()]}-${at.getUTCFullYear()} ${at.toISOString().slice(11, 23)}`, unit: 1 }),
  (at) => ({ text: `${MONTHS[at.getUTCMonth()]} ${two(at.getUTCDate())} ${at.getUTCFullYear()} ${at.toISOString().slice(11, 19)}`, unit: 1000 }),
  (at) => ({ text: at.toISOString().slice(0, 23).replace(/[-:]/g, '') + 'Z', unit: 1 }),
  (at) => ({ text: `${Math.floor(at.getTime() / 1000)}.${String(at.getUTCMilliseconds()).padStart(3, '0')}`, unit: 1 }),
  (at) => ({ text: String(at.getTime()), unit: 1 }),
  (at) => ({ text: at.toISOString().slice(0, 23).replace('T', ' ') + ' +00:00', unit: 1 }),
];
const SYLLABLES = ['ka', 'lo', 'mer', 'tin', 'sa', 'rupe', 'dol', 'vi', 'gan', 'ost', 'pel', 'ur', 'zi', 'bra', 'fen'];

/** Numbers from 0 to below 1, the same for the same seed (the linear congruence of Knuth and Lewis). */
function chance(seed: number): () => number {
  let state = (seed * 2_654_435_761) >>> 0;
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 4_294_967_296;
}

/** A file of `count` lines with one head. */
export function drawHead(seed: number, count: number): DrawnHead {
  const random = chance(seed);
  for (let i = 0; i < 5; i++) random();
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const upTo = (most: number): number => Math.floor(random() * most);
  const word = (): string => Array.from({ length: 2 + upTo(2) }, () => one(SYLLABLES)).join('');
  const some = <T>(length: number, make: () => T): T[] => Array.from({ length }, make);

  const columns: Column[] = [];
  const optional: [Column, number][] = [['level', 0.85], ['thread', 0.45], ['logger', 0.6], ['pid', 0.25], ['request', 0.2], ['code', 0.1]]; // prettier-ignore
  for (const [column, share] of optional) if (random() < share) columns.splice(upTo(columns.length + 1), 0, column);
  const levels = one(LEVEL_SETS);
  const padded = random() < 0.4;
  const joint = one(JOINTS);
  const end = joint === '|' ? '|' : one(ENDS);
  // between separators, brackets are rare
  const bare = joint.trim() !== '' ? 0.8 : 0.15;
  const brackets = new Map(columns.map((column) => [column, random() < bare ? (['', ''] as const) : one(BRACKETS)]));
  // a code, or a name of one plain word, that only a blank parts from prose could be a part of it
  const last = columns.at(-1);
  const open = (column: Column): boolean => brackets.get(column)![0] === '' && (joint === ' ' || (column === last && end === ' '));
  for (const column of columns) if ((column === 'code' || column === 'logger') && open(column)) brackets.set(column, BRACKETS[0]!);
  const writeTime = one(TIMES);
  const aroundTime = random() < 0.25 ? one([['[', ']'], ['(', ')']] as const) : (['', ''] as const); // prettier-ignore
  const timeAt = random() < 0.75 || columns[0] !== 'level' ? 0 : 1;
  const threadStyle = upTo(4);
  const threads = [
    some(4, () => `${word()}-${1 + upTo(12)}`),
    some(4, () => String(10_000 + upTo(90_000))),
    some(3, () => `${word()}-pool-${upTo(3)}-thread-${1 + upTo(9)}`),
    some(4, () => `0x${(0x7f0000 + upTo(60_000)).toString(16)}`),
  ][threadStyle]!;
  const loggerStyle = upTo(4);
  const loggers = some(5, () => [
    () => `${word()}.${word()}.${word()[0]!.toUpperCase()}${word()}`,
    () => `${word()[0]!.toUpperCase()}${word()}${word()[0]!.toUpperCase()}${word()}`,
    () => word(),
    () => `${word()}_${word()}.c:${10 + upTo(900)}`,
  ][loggerStyle]!()); // prettier-ignore
  const pids = [String(300 + upTo(30_000))];

  let at = Date.UTC(2026, 8, 14, 6) + upTo(80 * 86_400_000);
  const lines = some(count, (): DrawnLine => {
    at += 1 + upTo(4000);
    const time = writeTime(new Date(at));
    const [levelWord, level] = one(levels);
    const said: Record<Column, string> = {
      level: padded ? levelWord.padEnd(Math.max(...levels.map(([w]) => w.length))) : levelWord,
      thread: one(threads),
      logger: one(loggers),
      pid: pids[0]!,
      code: `E${100 + upTo(800)}`,
      request: Array.from({ length: 12 }, () => '0123456789abcdef'[upTo(16)]).join(''),
    };
    const message = `${word()} ${word()} ${one(['for', 'of', 'at', 'from'])} ${one(['LX', 'HB'])}-${100_000 + upTo(900_000)} ${one(['taken', 'in 12 ms', 'was not found', 'is ready: see below', '(2 of 3)'])}`;
    const cells = columns.map((column) => {
      const [open, close] = brackets.get(column)!;
      return `${open}${said[column]}${close}`;
    });
    cells.splice(timeAt, 0, `${aroundTime[0]}${time.text}${aroundTime[1]}`);
    return {
      text: `${cells.join(joint)}${end}${message}`,
      at: Math.floor(at / time.unit) * time.unit * 1000,
      level: columns.includes('level') ? level : 0,
      thread: columns.includes('thread') ? said.thread : null,
      logger: columns.includes('logger') ? said.logger : null,
      message,
    };
  });
  return {
    lines,
    numbered: threadStyle === 1 && !columns.includes('pid'),
    described: `${columns.map((column) => brackets.get(column)!.join(column)).join(joint)}${end}`,
  };
}

export interface HeadScore {
  time: boolean;
  level: boolean;
  message: boolean;
  /** Null where it does not stand there. */
  thread: 'right' | 'wrong' | 'none' | null;
  logger: 'right' | 'wrong' | 'none' | null;
}

/** Whether all lines of a drawn head are read rightly. */
export function scoreHead({ lines, numbered }: DrawnHead, path = 'logs/some.log'): HeadScore {
  const text = lines.map((line) => line.text).join('\n');
  const drafts = readWhole(text, path);
  const aligned = drafts.length === lines.length;
  const every = (right: (draft: Draft, line: DrawnLine) => boolean): boolean => aligned && lines.every((line, i) => right(drafts[i]!, line));
  // a number that changes and stands alone is a process as well as a thread
  const alone = (draft: Draft): string => String(draft.fields.thread ?? (numbered ? draft.fields.pid : undefined) ?? '');
  const told = (read: (draft: Draft) => string, stands: (line: DrawnLine) => string | null): HeadScore['thread'] => {
    if (stands(lines[0]!) === null) return null;
    if (every((draft, line) => read(draft) === stands(line))) return 'right';
    return every((draft) => read(draft) === '') ? 'none' : 'wrong';
  };
  return {
    time: every((draft, line) => draft.understood && draft.at === line.at),
    level: every((draft, line) => draft.level === line.level),
    message: every((draft, line) => draft.message === line.message),
    thread: told(alone, (line) => line.thread), // prettier-ignore
    logger: told(
      (draft) => draft.logger,
      (line) => line.logger,
    ),
  };
}

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
/** Reads a file's text as it would be guessed. */
export function readWhole(text: string, path: string, hints: Partial<ReadingContext> = {}): Draft[] {
  const sample = sampleOf(path, text, true);
  const { format } = guessFormats(sample)[0]!;
  const reader = openReader(format, sample, { zone: 'UTC', modified: Date.UTC(2026, 11, 31) * 1000, ...hints });
  const drafts: Draft[] = [];
  frame(new TextEncoder().encode(text), { byte: 0, line: 1 }, 'utf-8', reader, true, (record) => {
    const draft = emptyDraft();
    reader.read(record.text, draft);
    if (!draft.framing) drafts.push(draft);
  });
  return drafts;
}

/** How many of the drawn heads were read rightly: shares of all, of thread and logger of where they stand. */
export interface HeadsScore {
  heads: number;
  time: number;
  level: number;
  message: number;
  /** Thread and logger: told of where they stand, and right of those told. */
  told: number;
  toldRight: number;
  /** All of it. */
  right: number;
}

/** Scores the heads of these seeds, each in a file of so many lines. */
export function scoreHeads(from: number, to: number, lines: number): HeadsScore {
  const scores = Array.from({ length: to - from }, (_, i) => scoreHead(drawHead(from + i, lines)));
  const share = (fits: (one: HeadScore) => boolean): number => scores.filter(fits).length / scores.length;
  const names = scores.flatMap(({ thread, logger }) => [thread, logger]).filter((one) => one !== null);
  const told = names.filter((one) => one !== 'none');
  return {
    heads: scores.length,
    time: share(({ time }) => time),
    level: share(({ level }) => level),
    message: share(({ message }) => message),
    told: told.length / names.length,
    toldRight: told.filter((one) => one === 'right').length / told.length,
    right: share(
      ({ time, level, message, thread, logger }) => time && level && message && [thread, logger].every((one) => one === null || one === 'right'),
    ),
  };
}
