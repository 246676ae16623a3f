import { levelOf } from '../levels.ts';
import {
  ANGLES,
  BARRED,
  BARE_LETTER,
  BARE_LEVEL,
  BEFORE_LEVEL,
  BEHIND_SLASH,
  DIVIDED,
  ENCLOSED,
  FILE_LINE,
  GAP,
  GRADE,
  GLUED,
  LEVEL_CELL,
  LEVEL_LETTERS,
  LEVEL_PAIRS,
  LEVEL_WORD,
  LOGGER,
  METHOD,
  NAMED,
  NUMBER,
  ONE_WORD,
  PLACE,
  PROCESS,
  QUOTED,
  SEPARATOR,
} from './text-patterns.ts';
import { comeAgain, isCapitals, isName, isThreadName, shareOf, type Role } from './text-roles.ts';

/** One part of a head. */
export interface Element {
  /** Source of a pattern, tried where the element before ended; a group for each of its roles. */
  source: string;
  /** `open` until all cells are known: then their values tell which is which. */
  roles: readonly Role[] | 'open' | 'skip';
  values: readonly string[];
  /** It stands before a colon or a dash, as a logger does. */
  named?: boolean;
}

/** So many of the lines have to go on alike. */
const MOST = 0.8;
const NEARLY_ALL = 0.9;

export const patternOf = (source: string): RegExp => new RegExp(`^${GAP}${source}`, 'u');

/** How most of these texts begin, null where that is the message already. */
export function nextElement(rests: readonly string[], before: readonly Element[]): Element | null {
  const levelFound = before.some(hasLevel);
  const found = (levelFound ? null : levelElement(rests)) ?? enclosed(rests, levelFound);
  if (found) return found;
  if (matches(rests, SEPARATOR).share >= MOST) return { source: SEPARATOR, roles: 'skip', values: [] };
  for (const source of levelFound ? [PROCESS, BEHIND_SLASH] : [PROCESS]) {
    const { share, values } = matches(rests, source);
    if (share >= MOST) return { source, roles: ['thread'], values };
  }
  return divided(rests, before) ?? (levelFound ? null : beforeLevel(rests)) ?? byItsLook(rests, before) ?? loggerElement(rests, before);
}
const hasLevel = ({ roles }: Element): boolean =>
  typeof roles !== 'string' && roles.some((role) => role === 'level' || role === 'marked-level' || role === 'letter');

const isLevelWord = (value: string): boolean => LEVEL_WORD.test(value) && levelOf(value) > 0;
const isLetter = (value: string): boolean => LEVEL_LETTERS.has(value);

/** Words that stand for levels in some places, and in others for themselves. */
const ORDINARY = new Set('log note system statement default all success ok audit config fine fein stat failed fail'.split(' '));
const isLevels = (values: readonly string[]): boolean =>
  values.some((value) => isLevelWord(value) && (!ORDINARY.has(value.toLowerCase()) || value === value.toUpperCase()));

/** The level that values are, if they are one. */
function levelRole(values: readonly string[], share: number, word: Role): Role | null {
  if (share * shareOf(values, isLevelWord) >= 0.6) return isLevels(values) ? word : null;
  return share >= NEARLY_ALL && shareOf(values, isLetter) >= MOST ? 'letter' : null;
}

function levelElement(rests: readonly string[]): Element | null {
  for (const source of LEVEL_PAIRS) {
    const { share, values } = matches(rests, source);
    if (share * shareOf(values, isLevelWord) >= 0.6) return { source, roles: ['logger', 'level'], values };
  }
  for (const source of [...ENCLOSED, ...ANGLES, QUOTED]) {
    const { share, values } = matches(rests, source);
    const role = levelRole(values, share, 'marked-level');
    if (role) return { source, roles: [role], values };
  }
  for (const source of [LEVEL_CELL, BARE_LEVEL, BARE_LETTER]) {
    const { share, values } = matches(rests, source);
    const role = levelRole(values, share, 'level');
    if (role) return { source, roles: [role], values };
  }
  return null;
}

function enclosed(rests: readonly string[], levelFound: boolean): Element | null {
  for (const source of ENCLOSED) {
    const { share, values } = matches(rests, source);
    if (share >= MOST) return { source, roles: 'open', values };
  }
  for (const source of ANGLES) {
    const { share, values } = matches(rests, source);
    if (share >= (levelFound ? MOST : NEARLY_ALL)) return { source, roles: 'open', values };
  }
  return null;
}

/** A cell that a separator ends. */
function divided(rests: readonly string[], before: readonly Element[]): Element | null {
  const inRow = before.some(({ roles }) => roles === 'skip');
  for (const [at, source] of DIVIDED.entries()) {
    const { share, values } = matches(rests, source);
    // what differs in each line and is no hexadecimal number is worked on: it belongs to the message
    if (share >= NEARLY_ALL && (at < 2 || inRow || comeAgain(values) || shareOf(values, isHex) >= NEARLY_ALL))
      return { source, roles: 'open', values };
  }
  const barred = inRow ? matches(rests, BARRED) : null;
  return barred && barred.share >= 0.85 ? { source: BARRED, roles: 'open', values: barred.values } : null;
}
const isHex = (value: string): boolean => /^(?:0x)?[\da-f]{8,64}$/i.test(value) && /\d/.test(value);

/** What stands before a level, or before a bracket or dash that has one behind it. */
function beforeLevel(rests: readonly string[]): Element | null {
  for (const source of BEFORE_LEVEL) {
    const { share, values } = matches(rests, source);
    if (share < 0.6) continue;
    const behind = behindOf(rests, source);
    if (levelElement(behind) || (shareOf(values, (value) => isHex(value) || /^\d+$/.test(value)) >= NEARLY_ALL && levelSoon(behind)))
      return { source, roles: 'open', values };
  }
  return null;
}
const behindOf = (rests: readonly string[], source: string): string[] => rests.map((rest) => rest.replace(patternOf(source), ''));
/** Whether a level stands behind one more word. */
const levelSoon = (rests: readonly string[]): boolean => levelElement(behindOf(rests, ONE_WORD)) !== null;

/** Words that nothing ends but a blank, and that no sentence begins with. */
function byItsLook(rests: readonly string[], before: readonly Element[]): Element | null {
  // “debug 1: …”: how fine a level is
  const grade = matches(rests, GRADE);
  if (before.at(-1) !== undefined && hasLevel(before.at(-1)!) && grade.share >= MOST) return { source: GRADE, roles: [], values: [] };
  const number = matches(rests, NUMBER);
  if (number.share >= MOST) {
    const { values } = number;
    const behind = behindOf(rests, NUMBER);
    const marked = matches(behind, '(?:-{3}|\\[|\\()').share >= MOST || [LOGGER, PLACE].some((source) => matches(behind, source).share >= MOST);
    const again = values.length >= 4 && comeAgain(values, 0.3) && shareOf(values, (value) => value.length >= 4) >= NEARLY_ALL;
    if (marked || again) return { source: NUMBER, roles: 'open', values };
  }
  const word = matches(rests, ONE_WORD);
  if (word.share < NEARLY_ALL || word.values.length < 3) return null;
  const { values } = word;
  const lengths = new Set(values.map((value) => value.length));
  const hex = shareOf(values, isHex) === 1 && lengths.size === 1;
  const few = values.length >= 6 && new Set(values).size <= Math.max(2, values.length * 0.3);
  const counted = few && shareOf(values, (value) => isThread(value) && (before.length > 0 || isThreadName(value))) === 1;
  const named = (shareOf(values, isDotted) >= 0.95 && comeAgain(values)) || (few && shareOf(values, isName) === 1);
  return hex || counted || named ? { source: ONE_WORD, roles: 'open', values } : null;
}
const isThread = (value: string): boolean => /^(?:\p{L}[\p{L}\d_.-]*[-#]\d{1,4}|0x[\da-f]{4,16})$/iu.test(value);
const isDotted = (value: string): boolean =>
  /^[\p{L}_$][\p{L}\d_$]*(?:(?:\.|::|_|-)[\p{L}_$<][\p{L}\d_$<>]*){2,}$|\.[a-z]{1,4}:\d{1,6}$/u.test(value);

function loggerElement(rests: readonly string[], before: readonly Element[]): Element | null {
  if (before.some(({ named, roles }) => named === true || roles.includes('logger'))) return null;
  // “DSK0001I: …” is the number of a message
  const isCode = (value: string): boolean => /^[^:([]*\d{3}/.test(value);
  const logger = (source: string, values: readonly string[]): Element => ({ source, roles: 'open', values, named: true });
  for (const source of [PLACE, FILE_LINE]) {
    const { share, values } = matches(rests, source);
    if (share >= MOST) return logger(source, values);
  }
  const apart = matches(rests, LOGGER);
  const code = shareOf(apart.values, isCode) >= 0.5;
  const number =
    shareOf(apart.values, (value) => isHex(value) || /^\d{1,10}$/.test(value)) === 1 &&
    comeAgain(
      apart.values.map(({ length }) => String(length)),
      0.2,
    );
  if (before.length > 0 && apart.share === 1 && number) return { source: LOGGER, roles: 'open', values: apart.values };
  if (apart.share >= NEARLY_ALL && !code) return logger(LOGGER, apart.values);
  const glued = matches(rests, GLUED);
  if (before.length > 0 && glued.share >= NEARLY_ALL && comeAgain(glued.values, 0.3)) return logger(GLUED, glued.values);
  if (apart.share >= 0.6 && !code) return logger(LOGGER, apart.values);
  if (!before.some(hasLevel)) return null;
  for (const source of NAMED) {
    const { share, values } = matches(rests, source);
    if (share >= MOST && shareOf(values, (value) => isName(value) || isCapitals(value)) >= 0.7) return logger(source, values);
  }
  const method = matches(rests, METHOD);
  return method.share >= MOST ? logger(METHOD, method.values) : null;
}

function matches(rests: readonly string[], source: string): { share: number; values: string[] } {
  const pattern = patternOf(source);
  const values: string[] = [];
  let count = 0;
  for (const rest of rests) {
    const hit = pattern.exec(rest);
    if (!hit) continue;
    count++;
    // of several groups the last one is the level
    const value = hit[hit.length - 1];
    if (hit.length > 1 && value !== undefined) values.push(value.trim());
  }
  return { share: count / rests.length, values };
}
