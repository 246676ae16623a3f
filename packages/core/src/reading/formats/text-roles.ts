/** What a cell of a head is, told by the values that it has in all lines of a sample. */

/** A level in brackets stands at a level's place also where its word is not known. */
export type Role = 'level' | 'marked-level' | 'letter' | 'thread' | 'logger' | 'pid' | 'tag' | 'context' | 'message' | 'skip';

/** Whether a text is a sentence: three words and more. */
const isProse = (value: string): boolean => value.trim().split(/\s+/).length >= 3;
/** What cells in the middle say where it is the message: sentences, each another one, while what ends the lines is names that come again. */
export function spokenAmong(cells: readonly Cell[], ends: readonly string[]): { cell: number; end: 'thread' | 'logger' } | null {
  if (ends.length < 3 || !comeAgain(ends)) return null;
  const cell = cells.findIndex(({ values }) => shareOf(values, isProse) >= 0.6 && (values.length < 6 || new Set(values).size > 2));
  if (cell < 0) return null;
  if (shareOf(ends, isName) >= NEARLY_ALL && shareOf(ends, isThreadName) < 0.5) return { cell, end: 'logger' };
  return shareOf(ends, (end) => isThreadName(end) || COUNTED.test(end)) >= NEARLY_ALL ? { cell, end: 'thread' } : null;
}

/** A cell whose role the other cells decide too. */
export interface Cell {
  values: readonly string[];
  /** It stands before a colon or dash as only a logger does. */
  named: boolean;
}

/** A name of several parts, perhaps with a line behind, or of several words in one. */
const NAME = /^[\p{L}_$][\p{L}\d_$]*(?:(?:[./$-]|::?)[\p{L}_$<][\p{L}\d_$<>-]*)+(?::\d+)?$|^[A-Z][a-z]+(?:[A-Z][a-z]+)+$/u;
/** A file or module and the line in it. */
const LINE = /^[\w$./<>-]*[\p{L}_][\w$./<>-]*(?::\d{1,6}|\([\w$.]{1,80}:\d{1,6}\))$/u;
/** A program with its process, and perhaps a thread of it, as syslog's tags are. */
const TAG = /^([\p{L}_][\p{L}\d_./-]{0,60})\[(\d{1,10})(?:[:.](\w{1,16}))?\]$/u;
/** A process by its word, and perhaps a thread by its own. */
const PROCESS = /^(?:pid|process)[ :=#]{1,2}(\d{1,10})(?:[:;, ]{1,2}(?:tid|thread)[ :=#]{1,2}(\w{1,20}))?$/i;
/** What a cell says of program, process and thread at once; null where it says none of it so. */
export function tagOf(value: string): { logger: string; pid: number; thread: string } | null {
  const process = PROCESS.exec(value);
  if (process) return { logger: '', pid: Number(process[1]), thread: process[2] ?? '' };
  const tag = TAG.exec(value);
  return tag && { logger: tag[1]!, pid: Number(tag[2]), thread: tag[3] ?? '' };
}
const CAPITALS = /^[A-Z][A-Z_-]{2,19}$/;
const PLAIN = /^[\p{L}_][\p{L}\d_.-]*$/u;
/** What only threads are called. */
const THREAD = /^(?:main|.*(?:thread|exec|pool|worker|nio|task|timer|fiber|goroutine)\b.*)$/i;
/** A name with a small number, an address: threads where the same few come again. */
const COUNTED = /^(?:[\p{L}][\p{L}\d_. -]*?[-#]\d{1,4}|0x[\da-f]{4,16}|#?\d{1,6}|<\d+\.\d+\.\d+>)$/iu;
/** A number of no decimal digits alone. */
const HEX = /^(?:0x)?[\da-f]{4,64}$/i;
const ADDRESS = /^(?:0x[\da-f]{4,16}|[\da-f]{6,8})$/i;
const DIGITS = /^\d{1,20}$/;
const NEARLY_ALL = 0.9;

export const isName = (value: string): boolean => NAME.test(value) || LINE.test(value);
export const isThreadName = (value: string): boolean => THREAD.test(value);
export const isCapitals = (value: string): boolean => CAPITALS.test(value);

export const shareOf = (values: readonly string[], fits: (value: string) => boolean): number =>
  values.reduce((count, value) => count + (fits(value.trim()) ? 1 : 0), 0) / Math.max(1, values.length);
/** Whether the same few values come again: what is new in each line names no place in the program. */
export function comeAgain(values: readonly string[], most = 0.5): boolean {
  const distinct = new Set(values).size;
  return values.length < 6 || distinct <= Math.max(5, values.length * most);
}

/**
 * The roles of cells, in their order: each of thread, process and logger at most once, the rest is context.
 *
 * @param taken roles that other parts of the head have already
 */
export function rolesOf(cells: readonly Cell[], taken: readonly Role[]): Role[] {
  const roles: Role[] = cells.map(() => 'context');
  const give = (role: Role, points: (cell: Cell) => number): void => {
    if (taken.includes(role)) return;
    let best = -1;
    let most = 0;
    cells.forEach((cell, i) => {
      const got = roles[i] === 'context' ? points(cell) : 0;
      if (got > most) [best, most] = [i, got];
    });
    if (best >= 0) roles[best] = role;
  };
  const threads = ({ values }: Cell): number => {
    const sure = shareOf(values, (value) => THREAD.test(value));
    if (sure >= 0.3) return 2 + sure;
    if (!comeAgain(values)) return 0;
    if (shareOf(values, (value) => COUNTED.test(value) && !DIGITS.test(value)) >= 0.7) return 1;
    // “listener”, “conn7”: words, some of them numbered
    const numbered = shareOf(values, (value) => /^\p{L}{2,20}\d{1,6}$/u.test(value));
    return numbered >= 0.3 && shareOf(values, (value) => PLAIN.test(value)) === 1 ? 0.5 : 0;
  };
  give('tag', (cell) => (shareOf(cell.values, (value) => tagOf(value) !== null) >= 0.9 ? 1 : 0));
  const tagged = roles.includes('tag');
  const tagNames = tagged && cells[roles.indexOf('tag')]!.values.some((value) => tagOf(value)?.logger !== '');
  if (!tagNames) give('logger', (cell) => (threads(cell) >= 2 ? 0 : loggerPoints(cell)));
  give('thread', threads);
  const numbers = cells.filter((cell, i) => roles[i] === 'context' && isNumber(cell));
  // of two numbers the one that changes less is the process
  const distinct = ({ values }: Cell): number => new Set(values).size;
  const fewest = numbers.toSorted((a, b) => distinct(a) - distinct(b))[0];
  if (!tagged) give('pid', (cell) => (cell === fewest ? 1 : 0));
  if (!roles.includes('thread') && !tagged) give('thread', (cell) => (isNumber(cell) || isAddress(cell) ? 1 : 0));
  return roles;
}

const isNumber = ({ values }: Cell): boolean =>
  shareOf(values, (value) => DIGITS.test(value)) >= 0.9 &&
  comeAgain(values, 0.7) &&
  (shareOf(values, (value) => value.length <= 7) === 1 || new Set(values).size < values.length);
const isAddress = ({ values }: Cell): boolean =>
  (shareOf(values, (value) => ADDRESS.test(value)) >= 0.9 && comeAgain(values)) ||
  (values.length >= 6 && shareOf(values, (value) => HEX.test(value)) === 1 && comeAgain(values, 0.3));

/** Without the line in a file. */
const fileOf = (value: string): string => value.replace(/:\d{1,6}$/, '');

function loggerPoints({ values, named }: Cell): number {
  if (shareOf(values, isName) >= 0.7 && comeAgain(values.map(fileOf), 0.8)) return 4;
  if (named && shareOf(values, (value) => DIGITS.test(value) || (HEX.test(value) && /\d/.test(value))) < 0.5) return 3;
  const plain = (value: string): boolean =>
    PLAIN.test(value) && !/\d{3}/.test(value) && !(HEX.test(value) && /\d/.test(value)) && !COUNTED.test(value);
  // “startup”, “stats”, “c2s564f1c0”: names, some of them numbered
  const most = shareOf(values, plain);
  return most >= 0.7 && comeAgain(values) && (most >= 0.9 || shareOf(values, (value) => PLAIN.test(value) && !DIGITS.test(value)) >= 0.95) ? 2 : 0;
}
