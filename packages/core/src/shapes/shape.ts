import { finish53 } from '../identifiers/hash.ts';

/** Most characters of a message that its shape is made of. */
const LONGEST = 600;
const LONGEST_NAME = 40;

/**
 * Hash of a message's shape: its words without the parts that vary. Words that hold a digit, quoted text that is no field's name and the
 * values behind `=` are variable. Only the first line counts. A whole number from 0 to 2^53 - 1.
 */
export function shapeHash(message: string): number {
  let a = 0x9e3779b9;
  let b = 0x85ebca6b;
  const length = Math.min(message.length, LONGEST);
  for (let pos = 0; pos < length;) {
    const end = partEnd(message, pos, length);
    if (end === END) break;
    if (end < 0) {
      a = Math.imul(a ^ VARIABLE, 2654435761);
      b = Math.imul(b ^ VARIABLE, 1597334677);
      pos = -end;
      continue;
    }
    for (; pos < end; pos++) {
      const code = message.charCodeAt(pos);
      a = Math.imul(a ^ code, 2654435761);
      b = Math.imul(b ^ code, 1597334677);
    }
  }
  return finish53(a, b);
}

/** The shape as text, `‹›` for each variable part. */
export function shapeText(message: string): string {
  let text = '';
  const length = Math.min(message.length, LONGEST);
  for (let pos = 0; pos < length;) {
    const end = partEnd(message, pos, length);
    if (end === END) break;
    text += end < 0 ? '‹›' : message.slice(pos, end);
    pos = Math.abs(end);
  }
  return text;
}

/** The parts of a message that its shape leaves out, in their order; messages of one shape have equally many. */
export function variableParts(message: string): string[] {
  const parts: string[] = [];
  const length = Math.min(message.length, LONGEST);
  for (let pos = 0; pos < length;) {
    const end = partEnd(message, pos, length);
    if (end === END) break;
    if (end < 0) parts.push(message.slice(pos, -end));
    pos = Math.abs(end);
  }
  return parts;
}

const VARIABLE = -1;
const END = 0;

/** Where the part that begins at `pos` ends; negative for a variable part, END at the end of the first line. */
function partEnd(message: string, pos: number, length: number): number {
  const code = message.charCodeAt(pos);
  if (code === 10) return END;
  if (code === 34 || code === 0x201c) {
    const close = message.indexOf(code === 34 ? '"' : '\u201d', pos + 1);
    if (close > 0 && close < length) return code === 34 && isName(message, pos + 1, close) ? close + 1 : -(close + 1);
  }
  if (!isPart(code)) return pos + 1;
  let end = pos;
  let digit = false;
  while (end < length) {
    const next = message.charCodeAt(end);
    if (!isPart(next)) break;
    if (next >= 48 && next <= 57) digit = true;
    end++;
  }
  return digit || (pos > 0 && message.charCodeAt(pos - 1) === 61) ? -end : end;
}

/** Quoted text is the name of a field where a colon stands behind it: `"state": "sent"`. What holds a digit may be an identifier. */
function isName(message: string, from: number, close: number): boolean {
  if (message.charCodeAt(close + 1) !== 58 && !(message.charCodeAt(close + 1) === 32 && message.charCodeAt(close + 2) === 58)) return false;
  for (let i = from; i < close; i++) {
    const code = message.charCodeAt(i);
    if (code >= 48 && code <= 57) return false;
  }
  return close > from && close - from <= LONGEST_NAME;
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
