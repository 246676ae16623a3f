import type { Sample } from '../types.ts';
import { isWeekday, monthOf } from '../calendar.ts';
import { learnDate, type DateTemplate } from '../date-template.ts';
import { isDigit, isLetter, letterEnd } from '../digits.ts';
import { BySample } from './by-sample.ts';
import type { TimeLayout, TimeReader } from '../times.ts';

/** How far into a line a time may begin (behind a level, a host, a thread). */
const LATEST_TIME = 80;
const MOST_LINES = 250;
/** A layout that so many lines have needs no other. */
const ENOUGH = 0.9;
/** So few lines, and so few of all, are no layout. */
const FEWEST = 3;
const LEAST = 0.1;
/** Other layouts of one text, and how many of its lines each has at least. */
const MOST_OTHERS = 3;
const LEAST_OF_OTHERS = 0.04;

/** Where the time stands in the lines of a text. */
export interface TimePlace {
  layout: TimeLayout;
  /** Position in the line, -1 where it differs from line to line. */
  column: number;
  /** Words before it. */
  words: number;
  /** It begins inside of a word, behind a bracket, a quote or what parts columns. */
  glued: boolean;
  /** Of the layout `learned`. */
  template?: DateTemplate;
}
export interface Learned extends TimePlace {
  /** It tells day and year. */
  whole: boolean;
  /** Share of the sample's unindented lines that begin with the time. */
  share: number;
  /** What stands before and behind the time on its line. */
  before: string[];
  behind: string[];
  /** The lines that follow such a line and hold no time. */
  next: string[];
  /** Other places at which lines of this text begin with a whole time: another program writes into it too. */
  others: Learned[];
}

const learned = new BySample<Learned | null>((place) => place?.template !== undefined);

/** The layout and place of the time, by majority over the sample. */
export const learnPlace = (sample: Sample, times: TimeReader): Learned | null =>
  learned.of(sample, `${times.order} ${times.pattern}`, times.modified, () => search(sample, times));

function search(sample: Sample, times: TimeReader): Learned | null {
  times.template = null;
  const usual = searched(sample, times);
  if (times.typed) return usual;
  if (usual?.whole && usual.share >= ENOUGH && usual.column === 0) return usual;
  const lines = sample.lines.filter((line) => line !== '' && line[0] !== ' ' && line[0] !== '\t');
  const template = learnDate(lines, times.given, times.modified);
  if (!template || (usual?.whole && !template.parts.includes('zone'))) return usual;
  times.template = template;
  const dated = searched(sample, times);
  // what tells no more than the usual layout does is none of its own
  const tellsMore = dated !== null && (usual === null || dated.whole || template.parts.includes('zone') || dated.share > usual.share * 1.1);
  return tellsMore && dated.share >= (usual?.share ?? 0) * 0.9 ? { ...dated, template } : usual;
}

function searched(sample: Sample, times: TimeReader): Learned | null {
  const seen = new Map<string, Learned & { count: number }>();
  let lines = 0;
  let above: Learned | null = null;
  for (const line of sample.lines.slice(0, MOST_LINES)) {
    if (line === '') continue;
    const indented = line[0] === ' ' || line[0] === '\t';
    const found = indented ? null : findTime(line, times);
    if (!indented) lines++;
    if (!found) {
      if (above) above.next.push(line);
      above = null;
      continue;
    }
    const { words, glued } = wordsBefore(line, found.column);
    const key = `${found.layout} ${words}${glued ? ' glued' : ''}`;
    let group = seen.get(key);
    if (!group) {
      group = {
        layout: found.layout,
        column: found.column,
        words,
        glued,
        whole: times.isWhole,
        share: 0,
        before: [],
        behind: [],
        next: [],
        others: [],
        count: 0,
      };
      seen.set(key, group);
    }
    if (group.column !== found.column) group.column = -1;
    group.count++;
    group.before.push(line.slice(0, found.column));
    group.behind.push(line.slice(found.end));
    above = group;
  }
  let best: (Learned & { count: number }) | null = null;
  for (const group of seen.values()) if (!best || group.count > best.count) best = group;
  // one of many lines that holds a time tells of something else
  if (!best || (best.count < FEWEST && best.count < lines * LEAST)) return null;
  best.share = best.count / lines;
  const further = [...seen.values()].filter((group) => group !== best && isOfItsOwn(group, lines)).sort((a, b) => b.count - a.count);
  best.others = further.slice(0, MOST_OTHERS).map((group) => ({ ...group, share: group.count / lines }));
  return best;
}

/** Many lines that begin with a whole time of another layout are no continuation of what stands above them. */
const isOfItsOwn = ({ count, whole, words, glued }: Learned & { count: number }, lines: number): boolean =>
  whole && words === 0 && !glued && count >= FEWEST && count >= lines * LEAST_OF_OTHERS;

/** Where a line's time begins, or -1; sets what `times` has read. */
export function timeAt(line: string, place: TimePlace, times: TimeReader): { from: number; to: number } | null {
  times.template = place.template ?? null;
  if (place.column >= 0) {
    const to = times.read(line, place.column, place.layout);
    return to > 0 ? { from: place.column, to } : null;
  }
  let pos = 0;
  for (let words = 0; words < place.words; words++) {
    while (pos < line.length && line.charCodeAt(pos) > 32) pos++;
    while (line.charCodeAt(pos) === 32 || line.charCodeAt(pos) === 9) pos++;
    if (pos >= line.length || pos > LATEST_TIME) return null;
  }
  if (place.glued) return insideWord(line, pos, place, times);
  while (pos < line.length && OPENING.has(line[pos]!)) pos++;
  const to = times.read(line, pos, place.layout);
  return to > 0 ? { from: pos, to } : null;
}
const OPENING = new Set('[(<{"\'|');
/** What a time inside of a word does not begin behind: its own parts, and those of names and numbers. */
const PART = /[\p{L}\d_.:-]/u;

function insideWord(line: string, from: number, place: TimePlace, times: TimeReader): { from: number; to: number } | null {
  for (let pos = from; pos < Math.min(line.length, from + LATEST_TIME) && line.charCodeAt(pos) > 32; pos++) {
    if (PART.test(line[pos]!)) continue;
    const to = times.read(line, pos + 1, place.layout);
    if (to > 0) return { from: pos + 1, to };
  }
  return null;
}

/** Whole words before a column, and whether it stands inside of one more. */
function wordsBefore(line: string, column: number): { words: number; glued: boolean } {
  const before = line.slice(0, column);
  const bare = before.replace(/[[(<{"'|]+$/, '');
  const words = bare.trim() === '' ? 0 : bare.trim().split(/\s+/).length;
  const glued = words > 0 && !/\s$/.test(bare) && (bare.length < before.length || !PART.test(bare.at(-1)!));
  return { words: glued ? words - 1 : words, glued };
}

function findTime(line: string, times: TimeReader): { layout: TimeLayout; column: number; end: number } | null {
  for (let column = 0; column < Math.min(LATEST_TIME, line.length); column++) {
    if (times.typed) {
      const end = column > 0 && /[\p{L}\d]/u.test(line[column - 1]!) ? -1 : times.read(line, column, 'typed');
      if (end > 0) return { layout: 'typed', column, end };
      continue;
    }
    if (times.template) {
      const end = column > 0 && /[\p{L}\d]/u.test(line[column - 1]!) ? -1 : times.read(line, column, 'learned');
      if (end > 0) return { layout: 'learned', column, end };
      continue;
    }
    if (column > 0 && PART.test(line[column - 1]!) && !(column === 1 && /^[DIWEF]\d{4} /.test(line))) continue;
    const code = line.charCodeAt(column);
    if (isLetter(code)) {
      const word = line.slice(column, letterEnd(line, column));
      if (word.length > 12 || (monthOf(word) === 0 && !isWeekday(word))) continue;
    } else if (!isDigit(code) && code !== 64) continue;
    const found = times.readAny(line, column);
    if (found) return { ...found, column };
  }
  return null;
}
