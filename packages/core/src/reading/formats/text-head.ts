import type { Draft } from '../types.ts';
import type { Level } from '../../units.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf, levelOfLetter } from '../levels.ts';

type Role = 'level' | 'letter' | 'thread' | 'logger' | 'pid' | 'context' | 'skip';
interface Element {
  /** Source of a pattern with one group at most, tried where the element before ended. */
  source: string;
  role: Role;
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
const LEVELS = [`\\[ *${WORD} *\\]:?`, `\\( *${WORD} *\\):?`, `< *${WORD} *>:?`, `\\| *${WORD}(?= *\\|)`, `${WORD}(?=[:/\\s|,;\\]-]|$):?`];
const LETTERS = ['\\[([TDIWEFV])\\]', '([TDIWEFV])(?=[ /|]|\\d|$)'];
const SEPARATOR = '(?:(?:-{1,3}|–|—|::?|;|>|=>|,)(?=\\s)|\\|)';
const LOGGER = '([\\p{L}\\d_$][\\p{L}\\d_$./<>#@-]{0,119}(?:\\[\\d+\\])?)(?=[ \\t]*(?:(?:-{1,2}|–|\\||=>)[ \\t]|:[ \\t]|:$))';
/** A logger between colons without blanks: `INFO:lens.calc:message`. */
const GLUED = '([\\p{L}_$][\\p{L}\\d_$.-]{0,119}):(?=\\S)';
/** A file and its line before a closing bracket. */
const PLACE = '([\\w$./-]{1,100}:\\d{1,6})\\]';
const CELL = '([^|\\n]{1,80}?)(?= *\\|)';
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
  const last = elements.findLastIndex((element) => element.role !== 'skip');
  const used = elements.slice(0, last + 1);
  if (used.length === 0) return null;
  const nested = used.reduceRight((inner, element) => `${GAP}${element.source}${inner === '' ? '' : `(?:${inner})?`}`, '');
  return {
    pattern: new RegExp(`^${nested}`, 'u'),
    roles: used.filter((element) => element.role !== 'skip').map((element) => element.role),
    hasLevel: used.some((element) => element.role === 'level' || element.role === 'letter'),
  };
}

const patternOf = (element: { source: string }): RegExp => new RegExp(`^${GAP}${element.source}`, 'u');

function nextElement(rests: readonly string[], before: readonly Element[]): Element | null {
  const has = (role: Role): boolean => before.some((element) => element.role === role);
  const levelFound = has('level') || has('letter');
  if (!levelFound) {
    const level = levelElement(rests);
    if (level) return level;
  }
  for (const source of ['\\[([^\\]\\n]{0,200})\\]:?', '\\(([^)\\n]{0,120})\\):?', '\\{([^}\\n]{0,200})\\}:?']) {
    const { share, values } = matches(rests, source);
    if (share >= 0.8) return { source, role: roleOf(values, has) };
  }
  if (matches(rests, SEPARATOR).share >= 0.8) return { source: SEPARATOR, role: 'skip' };
  const number = '(\\d{1,10})(?=[ \\t])';
  if (matches(rests, number).share >= 0.8) {
    const behind = rests.map((rest) => rest.replace(patternOf({ source: number }), ''));
    const marked =
      matches(behind, '(?:-{3}|\\[|\\()').share >= 0.8 ||
      (!levelFound && levelElement(behind) !== null) ||
      matches(behind, LOGGER).share >= 0.8 ||
      matches(behind, PLACE).share >= 0.8;
    if (marked) return { source: number, role: has('pid') ? 'thread' : 'pid' };
  }
  if (!levelFound) {
    const word = '(\\S{1,120})(?=[ \\t])';
    const { values } = matches(rests, word);
    const behind = rests.map((rest) => rest.replace(patternOf({ source: word }), ''));
    if (levelElement(behind)) return { source: word, role: roleOf(values, has) };
  }
  if (before.length > 0 && before.some((element) => element.source === SEPARATOR)) {
    const { share, values } = matches(rests, CELL);
    if (share >= 0.85) return { source: CELL, role: roleOf(values, has) };
  }
  if (!has('logger') && matches(rests, PLACE).share >= 0.8) return { source: PLACE, role: 'logger' };
  if (!has('logger')) {
    const glued = matches(rests, GLUED);
    if (before.length > 0 && glued.share >= 0.9 && new Set(glued.values).size <= Math.max(5, rests.length * 0.3))
      return { source: GLUED, role: 'logger' };
    const { share } = matches(rests, LOGGER);
    if (share >= 0.6) return { source: LOGGER, role: 'logger' };
  }
  return null;
}

function levelElement(rests: readonly string[]): Element | null {
  for (const source of LEVELS) {
    const { values } = matches(rests, source);
    if (values.filter((value) => levelOf(value) > 0).length >= rests.length * 0.6) return { source, role: 'level' };
  }
  for (const source of LETTERS) if (matches(rests, source).share >= 0.9) return { source, role: 'letter' };
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
    if (hit[1] !== undefined) values.push(hit[1]);
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
    if (role === 'level') {
      level = levelOf(value);
      if (level === 0) return 0;
    } else if (role === 'letter') level = levelOfLetter(value);
    else if (role === 'logger') draft.logger = value;
    else if (role === 'pid') draft.fields.pid = Number(value);
    else if (role === 'thread') draft.fields.thread = value;
    else if (value.includes('=')) keyValues(value.replaceAll(',', ' '), draft.fields);
    else if (value !== '-') draft.fields.context = draft.fields.context === undefined ? value : `${String(draft.fields.context)} ${value}`;
  }
  if (level > 0) draft.level = level;
  return hit[0].length;
}
