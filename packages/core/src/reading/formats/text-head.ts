import type { Draft } from '../types.ts';
import type { Level } from '../../units.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf, levelOfLetter } from '../levels.ts';
import { nextElement, patternOf, type Element } from './text-columns.ts';
import { GAP } from './text-patterns.ts';
import { rolesOf, spokenAmong, tagOf, type Cell, type Role } from './text-roles.ts';

/** What stands between time and message, learned from many lines: level, thread, logger in whatever order and brackets. */
export interface Head {
  pattern: RegExp;
  /** Of each group. */
  roles: Role[];
  hasLevel: boolean;
  /** What ends the lines, where the message is one of the groups. */
  end: 'thread' | 'logger' | null;
}

/** What stands where there is nothing to say. */
const NOTHING = new Set(['-', '(null)', 'null', 'none', 'undefined']);
const MOST_ELEMENTS = 20;
const MOST_TEXTS = 120;

/** The columns that most of these texts begin with, one after the other, and what each of them is by its values. */
export function learnHead(texts: readonly string[]): Head | null {
  const elements: Element[] = [];
  let rests: string[] = texts.filter((text) => text.trim() !== '').slice(0, MOST_TEXTS);
  while (elements.length < MOST_ELEMENTS && rests.length > 0) {
    const next = nextElement(rests, elements);
    if (!next) break;
    elements.push(next);
    const pattern = patternOf(next.source);
    rests = rests.map((rest) => rest.slice(pattern.exec(rest)?.[0].length ?? rest.length)).filter((rest) => rest.trim() !== '');
  }
  const used = elements.slice(0, elements.findLastIndex(({ roles }) => roles !== 'skip') + 1);
  if (used.length === 0) return null;
  const cells = used.flatMap(({ roles, values, named }): Cell[] =>
    roles === 'open' ? [{ values: values.map((value) => value.replace(/:$/, '')), named: named === true }] : [],
  );
  const spoken = spokenAmong(cells, rests.map((rest) => rest.replace(/^[\s|:;,]+/, '').trim())); // prettier-ignore
  const taken: Role[] = [...used.flatMap(({ roles }) => (typeof roles === 'string' ? [] : roles)), ...(spoken ? [spoken.end] : [])];
  const given = rolesOf(cells, taken);
  if (spoken) given[spoken.cell] = 'message';
  let cell = 0;
  const roles = used.flatMap((element): Role[] => {
    if (element.roles === 'skip') return [];
    return element.roles === 'open' ? [given[cell++]!] : [...element.roles];
  });
  const nested = used.reduceRight((inner, { source }) => `${GAP}${source}${inner === '' ? '' : `(?:${inner})?`}`, '');
  return { pattern: new RegExp(`^${nested}`, 'u'), roles, hasLevel: roles.some((role) => role === 'level' || role === 'marked-level' || role === 'letter'), end: spoken?.end ?? null }; // prettier-ignore
}

/** What a text says where its message is a group of the head; what ends it is put into the draft. Null where it says nothing there. */
export function readSpoken(text: string, head: Head, draft: Draft): string | null {
  const hit = head.pattern.exec(text);
  const said = hit?.[head.roles.indexOf('message') + 1];
  if (!hit || said === undefined) return null;
  const end = text.slice(hit[0].length).replace(/^[\s|:;,]+/, '').trim(); // prettier-ignore
  if (end !== '' && head.end === 'thread') draft.fields.thread = end;
  else if (end !== '') draft.logger = end;
  return said.trim();
}

function readTag(value: string, draft: Draft): void {
  const told = tagOf(value);
  if (told === null) draft.fields.context = value;
  else {
    if (told.logger !== '') draft.logger = told.logger;
    draft.fields.pid = told.pid;
    if (told.thread !== '') draft.fields.thread = told.thread;
  }
}

/** Takes what the head says into the draft; where it ends, 0 where the text has no such head. */
export function readHead(text: string, head: Head | null, draft: Draft): number {
  const hit = head?.pattern.exec(text);
  if (!hit || !head) return 0;
  let level: Level = 0;
  for (let i = 0; i < head.roles.length; i++) {
    const said = hit[i + 1]?.trim();
    const value = said?.endsWith(':') ? said.slice(0, -1) : said;
    if (!value || NOTHING.has(value)) continue;
    const role = head.roles[i]!;
    if (role === 'level' || role === 'marked-level') {
      level = levelOf(value);
      if (level === 0 && role === 'level') return 0;
      if (level === 0) draft.fields.level = value;
    } else if (role === 'letter') level = levelOfLetter(value);
    else if (role === 'logger') {
      draft.logger = value;
      // “Info: …”, “Connect: …”: some of the names are levels
      if (!head.hasLevel) level ||= levelOf(value);
    } else if (role === 'tag') readTag(value, draft);
    else if (role === 'pid') draft.fields.pid = Number(value);
    else if (role === 'thread') draft.fields.thread = value;
    else if (role === 'message') continue;
    else if (value.includes('=')) keyValues(value.replaceAll(',', ' '), draft.fields);
    else draft.fields.context = draft.fields.context === undefined ? value : `${String(draft.fields.context)} ${value}`;
  }
  if (level > 0) draft.level = level;
  return hit[0].length;
}
