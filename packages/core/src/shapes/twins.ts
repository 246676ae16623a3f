import { weightWords } from '../weights/index.ts';

/** A shape with how often it was said. */
export interface SaidShape {
  id: number;
  text: string;
  count: number;
}
/** A person said of a text with ‹› in it: what fits it is one (this word is a parameter), or stands apart (it is not). */
export interface CorrectedShape {
  text: string;
  is: 'one' | 'apart';
}

/** From so many different words at one place they may be values; so many are, whatever their counts. */
const FEWEST = 4;
const MANY = 20;
/** So likely, at least, that the next word there is one that never came: values go on and on, words of a sentence do not. */
const UNSEEN = 0.01;
/** So many words that are put for each other in two sentences are values in both: names of users, places, machines. */
const SHARED = 4;
/** Of what is written as a name of a file, a machine or an address so few are enough. */
const FEWEST_NAMES = 2;
const NAME = /^[^.@]+(?:[.@][^.@]+)+$/u;
/** Words that have to be left. */
const FEWEST_FIXED = 2;
/** So many words of a text are looked at. */
const MOST_WORDS = 40;
/** Places that are made one in one another. */
const ROUNDS = 3;
export const VARIABLE = '‹›';
const PARTS = /‹›|[\p{L}\d_@.+:-]+/gu;

/**
 * Shapes that differ only by words that are values, such as names of users or files: the text of the group, with ‹› for such a word, by shape. They are told from words of the
 * sentence by their counts: of an open class the next one is likely to be new (the share of those that came once; I. J. Good, “The population frequencies of species and the
 * estimation of population parameters”, Biometrika 40, 1953), of a closed one it is not; or by their use: what is put for each other in several sentences is a value in each; or by how
 * names of files and machines are written. Words of trouble are never values. What people said comes before that. In whatever order the shapes come, the groups are the same.
 *
 * @param shapes those of one component; of the same text once
 */
export function groupTwins(shapes: readonly SaidShape[], corrected: readonly CorrectedShape[] = []): Map<number, string> {
  const apart = new Set(corrected.filter((one) => one.is === 'apart').map((one) => one.text));
  const one = corrected.filter((each) => each.is === 'one').map(({ text }) => ({ text, fits: fitting(text) }));
  let groups: Group[] = shapes.map(({ id, text, count }) => ({ text: one.find((each) => each.fits(text))?.text ?? text, members: [id], count }));
  groups = joined(groups);
  for (let round = 0; round < ROUNDS; round++) {
    const next = oneRound(groups, apart);
    if (next.length === groups.length) break;
    groups = next;
  }
  return new Map(groups.flatMap(({ text, members }) => members.map((id): [number, string] => [id, text])));
}

interface Group {
  text: string;
  members: number[];
  /** Of the most frequent of its members: what is made of rare ones is as open as they are. */
  count: number;
}
function oneRound(groups: readonly Group[], apart: ReadonlySet<string>): Group[] {
  const places = new Map<string, { group: Group; word: string }[]>();
  for (const group of groups) {
    // a word of trouble is what is said, not of whom
    const trouble = weightWords(group.text);
    for (const { from, to, word } of wordsOf(group.text)) {
      if (trouble.some((one) => one.from < to && from < one.to)) continue;
      const text = `${group.text.slice(0, from)}${VARIABLE}${group.text.slice(to)}`;
      const there = places.get(text);
      if (there) there.push({ group, word });
      else places.set(text, [{ group, word }]);
    }
  }
  const several = [...places].filter(([text, there]) => there.length >= FEWEST_NAMES && !apart.has(text) && fixedIn(text) >= FEWEST_FIXED);
  const elsewhere = sharing(several);
  const open = several.filter(([, there]) => isOpen(there, elsewhere)).sort(([one, a], [other, b]) => b.length - a.length || (one < other ? -1 : 1));
  const taken = new Set<Group>();
  const made: Group[] = [];
  for (const [text, there] of open) {
    const own = there.filter(({ group }) => !taken.has(group));
    if (own.length < FEWEST_NAMES || !isOpen(own, elsewhere)) continue;
    for (const { group } of own) taken.add(group);
    made.push({
      text,
      members: own.flatMap(({ group }) => group.members),
      count: own.reduce((most, { group }) => Math.max(most, group.count), 0),
    });
  }
  return joined([...groups.filter((group) => !taken.has(group)), ...made]);
}
type There = readonly { group: Group; word: string }[];
/** In how many places each word is put for others. */
function sharing(places: readonly (readonly [string, There])[]): Map<string, number> {
  const many = new Map<string, number>();
  for (const [, there] of places) if (there.length >= SHARED) for (const { word } of there) many.set(word, (many.get(word) ?? 0) + 1);
  return many;
}
/** Of the same text once, in the order of the texts. */
function joined(groups: readonly Group[]): Group[] {
  const byText = new Map<string, Group>();
  for (const { text, members, count } of groups) {
    const known = byText.get(text);
    if (known) {
      known.members.push(...members);
      known.count = Math.max(known.count, count);
    } else byText.set(text, { text, members: [...members], count });
  }
  return [...byText.values()].sort((a, b) => (a.text < b.text ? -1 : 1));
}
function isOpen(there: There, elsewhere: ReadonlyMap<string, number>): boolean {
  if (there.every(({ word }) => NAME.test(word))) return true;
  if (there.length < FEWEST) return false;
  if (there.length >= MANY || there.filter(({ word }) => (elsewhere.get(word) ?? 0) > 1).length >= SHARED) return true;
  const once = there.filter(({ group }) => group.count <= 1).length;
  return once / there.reduce((sum, { group }) => sum + group.count, 0) >= UNSEEN;
}
/** Words that could be values, each by its place. */
function* wordsOf(text: string): Generator<{ from: number; to: number; word: string }> {
  let count = 0;
  for (const hit of text.matchAll(PARTS)) {
    if (++count > MOST_WORDS) return;
    if (hit[0] !== VARIABLE) yield { from: hit.index, to: hit.index + hit[0].length, word: hit[0] };
  }
}
const fixedIn = (text: string): number => [...text.matchAll(PARTS)].filter(([part]) => part !== VARIABLE && /\p{L}{2}/u.test(part)).length;

/** A part that varies, as shapes tell it: quoted text, or a word with what holds its parts together. */
const PART = String.raw`("[^"]*"|“[^”]*”|[0-9:@A-Za-z_.+\-\u0080-\uffff]+)`;
/** What a text with ‹› stands for, each ‹› a group. */
export const patternOf = (text: string): RegExp => new RegExp(`^${text.split(VARIABLE).map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join(PART)}$`); // prettier-ignore
/** Whether a shape's text is one of those that a text with ‹› stands for. */
export function fitting(text: string): (shape: string) => boolean {
  const pattern = patternOf(text);
  return (shape) => shape === text || pattern.test(shape);
}
