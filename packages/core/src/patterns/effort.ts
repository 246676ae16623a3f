/** How many ways a backtracking engine may have to try, at each place of a text where a match could begin. */
export interface Effort {
  /** Repetitions without an end: each multiplies the ways by the length of the text. */
  unbounded: number;
  /** Of what may be there or not, or so many times or so many: the ways, as a power of two. */
  bits: number;
}
/** Of steps of the engine for one text; about a third of a second. */
const MOST_STEPS = 1e8;
/** A repetition that may differ by more than this counts as one without an end. */
const WIDE = 64;

interface Group extends Effort {
  /** Alternatives, one where there is no bar. */
  branches: number;
}

/**
 * An upper bound of the ways to try; null where they may grow with the power of the text's length: a group that is repeated and holds alternatives or
 * repetitions of its own (`(?:a|b|ab)*`, `(a+)+`).
 *
 * @param pattern one that is well formed, without look-around and back-references
 */
export function effortOf(pattern: string): Effort | null {
  const open: Group[] = [{ unbounded: 0, bits: 0, branches: 1 }];
  for (let i = 0; i < pattern.length; i++) {
    const char = pattern[i]!;
    const own = open[open.length - 1]!;
    let closed: Group | null = null;
    if (char === '|') {
      own.branches++;
      continue;
    }
    if (char === '(') {
      open.push({ unbounded: 0, bits: 0, branches: 1 });
      if (pattern.startsWith('(?:', i)) i += 2;
      continue;
    }
    if (char === ')') closed = open.length > 1 ? open.pop()! : null;
    else if (char === '\\') i++;
    else if (char === '[') i = endOfClass(pattern, i);
    const into = open[open.length - 1]!;
    const [least, most, length] = repetitionAt(pattern, i + 1);
    i += length;
    if (closed) {
      const choices = closed.bits + Math.log2(closed.branches);
      const simple = choices === 0 && closed.unbounded === 0;
      if (most > 1 && !simple) return null;
      into.unbounded += closed.unbounded;
      into.bits += choices;
    }
    if (most - least > WIDE) into.unbounded++;
    else into.bits += Math.log2(most - least + 1);
  }
  const { unbounded, bits, branches } = open[0]!;
  return { unbounded, bits: bits + Math.log2(branches) };
}

/** The longest text with which the ready-made engine is through in short time, whatever stands in it. */
export const longestSwift = (effort: Effort | null): number =>
  effort === null ? -1 : Math.floor((MOST_STEPS / 2 ** effort.bits) ** (1 / (effort.unbounded + 1)));

/** The place of the bracket that closes a class of characters. */
function endOfClass(pattern: string, from: number): number {
  for (let i = from + 1; i < pattern.length; i++) {
    if (pattern[i] === '\\') i++;
    else if (pattern[i] === ']' && i > from + 1) return i;
  }
  return pattern.length;
}

/** How often what stands before is repeated, and the length of what says so. */
function repetitionAt(pattern: string, at: number): [least: number, most: number, length: number] {
  const sign = pattern[at];
  let found: [number, number, number] = [1, 1, 0];
  if (sign === '*') found = [0, Infinity, 1];
  else if (sign === '+') found = [1, Infinity, 1];
  else if (sign === '?') found = [0, 1, 1];
  else if (sign === '{') {
    const hit = /^\{(\d+)(,(\d*))?\}/.exec(pattern.slice(at, at + 24));
    if (hit) found = [Number(hit[1]), hit[2] === undefined ? Number(hit[1]) : hit[3] === '' ? Infinity : Number(hit[3]), hit[0].length];
  }
  // a repetition that takes as little as it can tries the same ways in another order
  return found[2] > 0 && pattern[at + found[2]] === '?' ? [found[0], found[1], found[2] + 1] : found;
}
