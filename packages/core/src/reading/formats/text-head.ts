import type { Draft } from '../types.ts';
import type { Level } from '../../units.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf, levelOfLetter } from '../levels.ts';

/** A level in brackets stands at a level's place also where its word is not known. */
type Role = 'level' | 'marked-level' | 'letter' | 'thread' | 'logger' | 'pid' | 'stream' | 'context' | 'skip';
interface Element {
  /** Source of a pattern, tried where the element before ended; a group for each of its roles but `skip`. */
  source: string;
  roles: readonly Role[];
}
/** What stands between time and message, learned from many lines: level, thread, logger in whatever order and brackets. */
export interface Head {
  pattern: RegExp;
  /** Of each group. */
  roles: Role[];
  hasLevel: boolean;
}

const GAP = '[ \\t]*';
const WORD = '([A-Za-zÀ-ÿ?]{2,14}\\d?)';
const LEVELS: readonly Element[] = [
  ...[`\\[ *${WORD} *\\]:?`, `\\( *${WORD} *\\):?`, `< *${WORD} *>:?`, `"${WORD}"`].map((source): Element => ({ source, roles: ['marked-level'] })),
  { source: `\\| *${WORD}(?= *\\|)`, roles: ['level'] },
  { source: `[,;]"?${WORD}"?(?=[,;])`, roles: ['level'] },
  { source: `\\[([\\w.-]{1,40}):${WORD}\\]`, roles: ['logger', 'level'] },
  { source: `([\\w-]{1,40})\\.${WORD}:(?=\\s)`, roles: ['logger', 'level'] },
  { source: `${WORD}(?=[:/\\s|,;[\\]-]|$)[:\\]]?`, roles: ['level'] },
];
const LETTERS = ['\\[([A-Z])\\]', '([A-Z])(?=[ /|]|\\d|$)'];
const LEVEL_LETTERS = new Set('TDIWEFV');
const SEPARATOR = '(?:(?:-{1,3}|–|—|::?|;|>|=>|,)(?=\\s)|\\|)';
const LOGGER =
  '([\\p{L}\\d_$][\\p{L}\\d_$./<>#@-]{0,119}(?:::[\\p{L}\\d_<>]{1,60}){0,8}(?:\\[\\d+\\]|:\\d{1,6})?)(?=[ \\t]*(?:(?:-{1,2}|–|\\||=>)[ \\t]|:[ \\t]|:$))';
/** A logger between colons without blanks: `INFO:lens.calc:message`. */
const GLUED = '([\\p{L}_$][\\p{L}\\d_$.-]{0,119}):(?=\\S)';
/** A file and its line, or a module, before a closing bracket. */
const PLACE = '([\\w$./-]{1,100}:\\d{1,6}|[\\w$]{1,60}(?:(?:::|\\.)[\\w$]{1,60}){0,8})\\]';
/** A file and its line before a blank. */
const FILE_LINE = '([\\w$./-]{1,100}\\.[a-zA-Z]{1,5}:\\d{1,6})(?=[ \\t])';
/** A process and a thread of it. */
const PROCESS = '(\\d{1,10}#\\d{1,10}):';
const CELL = '([^|\\n]{1,80}?)(?= *\\|)';
/** A name of several parts that nothing but its place tells: before a bracket or a tab, or a class with its method. */
const NAMED = ['([\\p{L}_$][\\p{L}\\d_$./:-]{2,119})(?=[ \\t]+\\[)', '([\\p{L}_$][\\p{L}\\d_$./:-]{2,119})(?=\\t)'];
const METHOD = '([\\p{L}_$][\\p{L}\\d_$]{0,60}(?:\\.[\\p{L}\\d_$<>]{1,80}){2,12})(?=[ \\t])';
/** Where a container's line came from, and whether it is whole (F) or a part. */
const STREAM = '(stdout|stderr) [FP](?=[ \\t]|$)';
/** What the program itself says of the time, behind the time at which its line was taken in. */
const SECOND_TIME = '\\d{4}-\\d\\d-\\d\\d[ T]\\d\\d:\\d\\d:\\d\\d(?:[.,]\\d{1,9})?(?:Z| ?[+-]\\d\\d:?\\d\\d)?';
/** What stands between time and level where that has brackets or pairs: a process, a thread, what is worked on. */
const BEFORE_LEVEL = ['#(\\d{1,10})\\]', '([\\da-f]{8})(?=[ \\t])', '((?:[\\w.]{1,40}=\\S{1,80}[ \\t]+){1,10})', '(\\S{1,120})(?=[ \\t])'];
const MOST_ELEMENTS = 10;

/** The elements that most of these texts begin with, one after the other. */
export function learnHead(texts: readonly string[]): Head | null {
  const elements: Element[] = [];
  let rests: string[] = texts.filter((text) => text.trim() !== '').slice(0, 120);
  if (rests.length === 0) return null;
  while (elements.length < MOST_ELEMENTS) {
    const next = nextElement(rests, elements);
    if (!next) break;
    elements.push(next);
    const pattern = patternOf(next);
    rests = rests.map((rest) => rest.slice(pattern.exec(rest)?.[0].length ?? rest.length)).filter((rest) => rest.trim() !== '');
    if (rests.length < 1) break;
  }
  const last = elements.findLastIndex((element) => !isSkip(element));
  const used = elements.slice(0, last + 1);
  if (used.length === 0) return null;
  const nested = used.reduceRight((inner, element) => `${GAP}${element.source}${inner === '' ? '' : `(?:${inner})?`}`, '');
  return {
    pattern: new RegExp(`^${nested}`, 'u'),
    roles: used.filter((element) => !isSkip(element)).flatMap((element) => element.roles),
    hasLevel: used.some(isLevel),
  };
}
const isSkip = ({ roles }: Element): boolean => roles.includes('skip');
const isLevel = ({ roles }: Element): boolean => roles.some((role) => role === 'level' || role === 'marked-level' || role === 'letter');

const patternOf = (element: { source: string }): RegExp => new RegExp(`^${GAP}${element.source}`, 'u');

function nextElement(rests: readonly string[], before: readonly Element[]): Element | null {
  const has = (role: Role): boolean => before.some((element) => element.roles.includes(role));
  const levelFound = before.some(isLevel);
  if (!levelFound) {
    if (!has('stream') && matches(rests, STREAM).share >= 0.9) return { source: STREAM, roles: ['stream'] };
    if (matches(rests, SECOND_TIME).share >= 0.8) return { source: SECOND_TIME, roles: ['skip'] };
    const level = levelElement(rests);
    if (level) return level;
  }
  for (const source of ['\\[([^\\]\\n]{0,200})\\]:?', '\\(([^)\\n]{0,120})\\):?', '\\{([^}\\n]{0,200})\\}:?']) {
    const { share, values } = matches(rests, source);
    if (share >= 0.8) return { source, roles: [roleOf(values, has)] };
  }
  if (matches(rests, SEPARATOR).share >= 0.8) return { source: SEPARATOR, roles: ['skip'] };
  if (matches(rests, PROCESS).share >= 0.8) return { source: PROCESS, roles: ['thread'] };
  const number = '(\\d{1,10})(?=[ \\t])';
  if (matches(rests, number).share >= 0.8) {
    const behind = behindOf(rests, number);
    const marked =
      matches(behind, '(?:-{3}|\\[|\\()').share >= 0.8 ||
      (!levelFound && levelElement(behind) !== null) ||
      matches(behind, LOGGER).share >= 0.8 ||
      matches(behind, PLACE).share >= 0.8;
    if (marked || (!levelFound && levelSoon(behind))) return { source: number, roles: [has('pid') ? 'thread' : 'pid'] };
  }
  if (!levelFound)
    for (const source of BEFORE_LEVEL) {
      const { share, values } = matches(rests, source);
      if (share < 0.6) continue;
      const behind = behindOf(rests, source);
      if (levelElement(behind) || (source === BEFORE_LEVEL[1] && levelSoon(behind))) return { source, roles: [roleOf(values, has)] };
    }
  const first = before[0];
  if (first && before.some(({ source }) => source === SEPARATOR)) {
    const { share, values } = matches(rests, CELL);
    if (share >= 0.85) return { source: CELL, roles: [roleOf(values, has)] };
  }
  return has('logger') ? null : loggerElement(rests, before);
}

function loggerElement(rests: readonly string[], before: readonly Element[]): Element | null {
  const logger = (source: string): Element => ({ source, roles: ['logger'] });
  for (const source of [PLACE, FILE_LINE]) if (matches(rests, source).share >= 0.8) return logger(source);
  const glued = matches(rests, GLUED);
  if (before.length > 0 && glued.share >= 0.9 && new Set(glued.values).size <= Math.max(5, rests.length * 0.3)) return logger(GLUED);
  if (matches(rests, LOGGER).share >= 0.6) return logger(LOGGER);
  if (!before.some(isLevel)) return null;
  for (const source of NAMED) {
    const { share, values } = matches(rests, source);
    if (share >= 0.8 && values.filter((value) => NAME.test(value)).length >= values.length * 0.7) return logger(source);
  }
  return matches(rests, METHOD).share >= 0.8 ? logger(METHOD) : null;
}

const behindOf = (rests: readonly string[], source: string): string[] => rests.map((rest) => rest.replace(patternOf({ source }), ''));
/** Whether a level stands behind one more word. */
const levelSoon = (rests: readonly string[]): boolean => levelElement(behindOf(rests, '(\\S{1,120})(?=[ \\t])')) !== null;

function levelElement(rests: readonly string[]): Element | null {
  for (const element of LEVELS) {
    const { values } = matches(rests, element.source);
    if (values.filter((value) => levelOf(value) > 0).length >= rests.length * 0.6) return element;
  }
  for (const source of LETTERS) {
    const { share, values } = matches(rests, source);
    if (share >= 0.9 && values.filter((value) => LEVEL_LETTERS.has(value)).length >= values.length * 0.8) return { source, roles: ['letter'] };
  }
  return null;
}

function matches(rests: readonly string[], source: string): { share: number; values: string[] } {
  const pattern = patternOf({ source });
  const values: string[] = [];
  let count = 0;
  for (const rest of rests) {
    const hit = pattern.exec(rest);
    if (!hit) continue;
    count++;
    // of several groups the last one is the level
    const value = hit[hit.length - 1];
    if (hit.length > 1 && value !== undefined) values.push(value);
  }
  return { share: count / rests.length, values };
}

const THREAD = /^(?:\d+|main|.*(?:thread|exec|pool|worker|nio|task|timer)\b.*|.*[-#]\d+)$/i;
const NAME = /^[\p{L}_$][\p{L}\d_$]*(?:[./:$][\p{L}\d_$<>-]+)+$|^[A-Z][a-z]+(?:[A-Z][a-z]+)+$/u;

function roleOf(values: readonly string[], has: (role: Role) => boolean): Role {
  const share = (pattern: RegExp): number => values.filter((value) => pattern.test(value.trim())).length / Math.max(1, values.length);
  if (!has('logger') && share(NAME) >= 0.7) return 'logger';
  if (!has('pid') && !has('thread') && share(/^\d+$/) >= 0.9) return 'pid';
  if (!has('thread') && share(/=/) < 0.5 && (share(THREAD) >= 0.3 || !has('context'))) return 'thread';
  return 'context';
}

/** Takes what the head says into the draft; where it ends, 0 where the text has no such head. */
export function readHead(text: string, head: Head | null, draft: Draft): number {
  const hit = head?.pattern.exec(text);
  if (!hit || !head) return 0;
  let level: Level = 0;
  for (let i = 0; i < head.roles.length; i++) {
    const value = hit[i + 1]?.trim();
    if (!value) continue;
    const role = head.roles[i]!;
    if (role === 'level' || role === 'marked-level') {
      level = levelOf(value);
      if (level === 0 && role === 'level') return 0;
      if (level === 0) draft.fields.level = value;
    } else if (role === 'stream') draft.fields.stream = value;
    else if (role === 'letter') level = levelOfLetter(value);
    else if (role === 'logger') draft.logger = value;
    else if (role === 'pid') draft.fields.pid = Number(value);
    else if (role === 'thread') draft.fields.thread = value;
    else if (value.includes('=')) keyValues(value.replaceAll(',', ' '), draft.fields);
    else if (value !== '-') draft.fields.context = draft.fields.context === undefined ? value : `${String(draft.fields.context)} ${value}`;
  }
  if (level > 0) draft.level = level;
  return hit[0].length;
}
