import { finish53 } from '../identifiers/hash.ts';

/** Most characters of a message that its shape is made of. */
const LONGEST = 600;

/**
 * Hash of a message's shape: its words without the parts that vary. Words that hold a digit, quoted text and the
 * values behind `=` are variable. Only the first line counts. A whole number from 0 to 2^53 - 1.
 */
export function shapeHash(message: string): number {
  let a = 0x9e3779b9;
  let b = 0x85ebca6b;
  walk(message, (code) => {
    a = Math.imul(a ^ code, 2654435761);
    b = Math.imul(b ^ code, 1597334677);
  });
  return finish53(a, b);
}

/** The shape as text, `‹›` for each variable part. */
export function shapeText(message: string): string {
  let text = '';
  walk(message, (code) => {
    text += code === VARIABLE ? '‹›' : String.fromCharCode(code);
  });
  return text;
}

const VARIABLE = -1;

function walk(message: string, emit: (code: number) => void): void {
  const length = Math.min(message.length, LONGEST);
  let pos = 0;
  while (pos < length) {
    const code = message.charCodeAt(pos);
    if (code === 10) return;
    if (code === 34 || code === 0x201c) {
      const close = message.indexOf(code === 34 ? '"' : '\u201d', pos + 1);
      if (close > 0 && close < length) {
        emit(VARIABLE);
        pos = close + 1;
        continue;
      }
    }
    if (!isPart(code)) {
      emit(code);
      pos++;
      continue;
    }
    let end = pos;
    let digit = false;
    while (end < length) {
      const next = message.charCodeAt(end);
      if (!isPart(next)) break;
      if (next >= 48 && next <= 57) digit = true;
      end++;
    }
    const value = pos > 0 && message.charCodeAt(pos - 1) === 61;
    if (digit || value) emit(VARIABLE);
    else for (let i = pos; i < end; i++) emit(message.charCodeAt(i));
    pos = end;
  }
}

/** Letters, digits and what holds parts of one word together: dots, hyphens, underscores, colons, @, +. */
const isPart = (code: number): boolean =>
  (code >= 48 && code <= 58) ||
  (code >= 64 && code <= 90) ||
  (code >= 97 && code <= 122) ||
  code === 95 ||
  code === 45 ||
  code === 46 ||
  code === 43 ||
  code > 127;
