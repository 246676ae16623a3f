import type { Draft } from '../types.ts';
import type { Level } from '../../units.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf, levelOfLetter } from '../levels.ts';
import {
  GAP,
  LEVELS,
  LETTERS,
  LEVEL_LETTERS,
  SEPARATOR,
  LOGGER,
  GLUED,
  PLACE,
  FILE_LINE,
  PROCESS,
  BEHIND_SLASH,
  ANGLES,
  CELL,
  NAMED,
  METHOD,
  BEFORE_LEVEL,
  HEX_THREAD,
  THREAD,
  NAME,
  CAPITALS,
  PAIRS,
  type Element,
  type Role,
} from './text-patterns.ts';

/** What stands between time and message, learned from many lines: level, thread, logger in whatever order and brackets. */
export interface Head {
  pattern: RegExp;
  /** Of each group. */
  roles: Role[];
  hasLevel: boolean;
}

const MOST_ELEMENTS = 14;

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
    const level = levelElement(rests);
    if (level) return level;
  }
  for (const source of ['\\[([^\\]\\n]{0,200})\\]:?', '\\(([^)\\n]{0,120})\\):?', '\\{(?!")([^}\\n]{0,200})\\}:?']) {
    const { share, values } = matches(rests, source);
    if (share >= 0.8) return { source, roles: [roleOf(values, has)] };
  }
  if (matches(rests, SEPARATOR).share >= 0.8) return { source: SEPARATOR, roles: ['skip'] };
  for (const source of levelFound ? [PROCESS, BEHIND_SLASH] : [PROCESS])
    if (!has('thread') && matches(rests, source).share >= 0.8) return { source, roles: ['thread'] };
  const angles = levelFound ? matches(rests, ANGLES) : null;
  if (angles && angles.share >= 0.8) return { source: ANGLES, roles: [roleOf(angles.values, has, true)] };
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
      if (levelElement(behind) || (source === HEX_THREAD && levelSoon(behind))) return { source, roles: [roleOf(values, has)] };
    }
  if (before.some(({ source }) => source === SEPARATOR)) {
    const { share, values } = matches(rests, CELL);
    if (share >= 0.85) return { source: CELL, roles: [roleOf(values, has, true)] };
  }
  return has('logger') ? null : loggerElement(rests, before);
}

function loggerElement(rests: readonly string[], before: readonly Element[]): Element | null {
  const logger = (source: string): Element => ({ source, roles: ['logger'] });
  for (const source of [PLACE, FILE_LINE]) if (matches(rests, source).share >= 0.8) return logger(source);
  const { share: apart } = matches(rests, LOGGER);
  if (apart >= 0.9) return logger(LOGGER);
  const glued = matches(rests, GLUED);
  if (before.length > 0 && glued.share >= 0.9 && new Set(glued.values).size <= Math.max(5, rests.length * 0.3)) return logger(GLUED);
  if (apart >= 0.6) return logger(LOGGER);
  if (!before.some(isLevel)) return null;
  for (const source of NAMED) {
    const { share, values } = matches(rests, source);
    if (share >= 0.8 && values.filter((value) => NAME.test(value) || CAPITALS.test(value)).length >= values.length * 0.7) return logger(source);
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

function roleOf(values: readonly string[], has: (role: Role) => boolean, cell = false): Role {
  const share = (pattern: RegExp): number => values.filter((value) => pattern.test(value.trim())).length / Math.max(1, values.length);
  const threads = share(THREAD);
  if (!has('logger') && share(NAME) >= 0.7) return 'logger';
  if (!has('pid') && !has('thread') && share(/^\d+$/) >= 0.9) return 'pid';
  // between bars one word says who speaks
  if (cell && !has('logger') && threads < 0.3 && share(/^[\p{L}_][\p{L}\d_.-]*$/u) >= 0.9) return 'logger';
  if (!has('thread') && share(/=/) < 0.5 && share(PAIRS) < 0.5 && (threads >= 0.3 || !has('context'))) return 'thread';
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
