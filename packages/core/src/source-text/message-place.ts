import { shapeText } from '../shapes/shape.ts';

/** Of the words of a message's shape, so many have to stand in a literal. */
const ENOUGH = 0.6;
const FEWEST_WORDS = 2;
/** A literal may go on over lines. */
const LINES = 3;
const ANOTHER_LINE = 0.1;
const WORD = /\p{L}[\p{L}\p{N}_-]*/gu;
/** What stands for values: `%5d`, `{}`, `${name}`. */
const BLANK = /%[-+#\d.]*[A-Za-z]|\$?\{[^{}]*\}/g;
const LITERAL = /"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|`(?:[^`\\]|\\.)*`/g;

/**
 * The line of a source text that writes a message: where literals hold the words of its shape, in their order.
 *
 * @returns from 1; null where no line holds enough of them, or several do equally well
 */
export function lineOfMessage(text: string, message: string): number | null {
  const wanted: readonly string[] = shapeText(message.split('\n', 1)[0]!).match(WORD) ?? [];
  if (wanted.length < FEWEST_WORDS) return null;
  const literals = text.split('\n').map((line) => (line.match(LITERAL) ?? []).join(' ').replace(BLANK, ' ')); // prettier-ignore
  let [line, most, twice] = [0, 0, false];
  for (const [i, own] of literals.entries()) {
    if (own === '') continue;
    const first = own.match(WORD)?.[0];
    // begins in this very line
    if (first === undefined || !wanted.includes(first)) continue;
    const score = Math.max(...Array.from({ length: LINES }, (_, more) => scoreOf(literals.slice(i, i + 1 + more), wanted)));
    if (score < wanted.length * ENOUGH) continue;
    if (score > most) [line, most, twice] = [i + 1, score, false];
    else if (score === most) twice = true;
  }
  return line === 0 || twice ? null : line;
}

/** Words that fit, less where they go on over lines. */
const scoreOf = (literals: readonly string[], wanted: readonly string[]): number =>
  inOrder(literals.join(' ').match(WORD) ?? [], wanted) - (literals.length - 1) * ANOTHER_LINE;

/** How many words of the one stand in the other in the same order, each the next one that fits. */
function inOrder(words: readonly string[], wanted: readonly string[]): number {
  let at = 0;
  let count = 0;
  for (const word of wanted) {
    const hit = words.indexOf(word, at);
    if (hit < 0) continue;
    count++;
    at = hit + 1;
  }
  return count;
}
