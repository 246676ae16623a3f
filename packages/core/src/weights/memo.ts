import { firstLine, weightWords, type Weight } from './words.ts';

const MOST = 20_000;

/** The most that any word of a text weighs; 0 where none does. */
export function weightOfWords(text: string): Weight {
  let most: Weight = 0;
  for (const { weight } of weightWords(text)) if (weight > most) most = weight;
  return most;
}

/** The same for very many texts: what has the same words, and other numbers but a bare 0, is looked at once. */
export class WordWeights {
  private readonly known = new Map<number, Weight>();

  of(text: string): Weight {
    const line = firstLine(text);
    const key = wordsHash(line);
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const weight = weightOfWords(line);
    if (this.known.size < MOST) this.known.set(key, weight);
    return weight;
  }
}

/** Of a line without the words that hold a digit, but a bare 0: they are none that weigh. 0 to 2^53. */
function wordsHash(line: string): number {
  const { length } = line;
  // after every word that holds a digit what was hashed of it is dropped
  let [a, b] = [0x1e3779b9, 0x05ebca6b];
  let [wordA, wordB] = [a, b];
  let begin = 0;
  let digit = false;
  for (let at = 0; at <= length; at++) {
    const code = at < length ? line.charCodeAt(at) : 32;
    if (code >= 48 && code <= 57) digit = true;
    else if (!((code >= 97 && code <= 122) || (code >= 65 && code <= 90) || code === 95 || code > 127)) {
      if (digit && !(at - begin === 1 && line.charCodeAt(begin) === 48)) {
        a = wordA ^ 35;
        b = wordB ^ 35;
      }
      digit = false;
      a = Math.imul(a ^ code, 0x01000193);
      b = (Math.imul(b, 31) + code) | 0;
      wordA = a;
      wordB = b;
      begin = at + 1;
      continue;
    }
    a = Math.imul(a ^ code, 0x01000193);
    b = (Math.imul(b, 31) + code) | 0;
  }
  return (a >>> 0) * 2097152 + ((b ^ (b >>> 15)) & 2097151);
}
