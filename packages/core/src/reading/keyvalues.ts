import type { Fields, FieldValue } from './types.ts';

const NUMBER = /^-?(?:0|[1-9]\d{0,14})(?:\.\d{1,9})?$/;

/** A field's text as a number where it is one and stays the same when written again; leading zeros keep it a text. */
export function fieldValue(text: string): FieldValue {
  const first = text.charCodeAt(0);
  if ((first >= 48 && first <= 57) || first === 45) return NUMBER.test(text) ? Number(text) : text;
  if (text === 'true') return true;
  return text === 'false' ? false : text;
}

/**
 * Collects `key=value` and `key="value with \" quotes"` pairs of a text into `fields`.
 *
 * @param apart names that are collected elsewhere (time, level …); an object from which nothing is deleted stays fast
 * @returns how many characters of the text the pairs and the blanks between them cover
 */
export function keyValues(text: string, fields: Fields, apart: { names: ReadonlySet<string>; into: Fields } | null = null): number {
  let covered = 0;
  let pos = 0;
  for (;;) {
    const equals = text.indexOf('=', pos);
    if (equals < 0) return Math.min(covered, text.length);
    let start = equals;
    while (start > pos && isNameCode(text.charCodeAt(start - 1))) start--;
    if (start === equals) {
      pos = equals + 1;
      continue;
    }
    const name = text.slice(start, equals);
    const target = apart !== null && apart.names.has(name) ? apart.into : fields;
    let end = equals + 1;
    if (text.charCodeAt(end) === 34) {
      end = closingQuote(text, end + 1);
      const inner = text.slice(equals + 2, end);
      target[name] = inner.includes('\\') ? inner.replace(/\\(.)/g, '$1') : inner;
      end++;
    } else {
      while (end < text.length && !isStop(text.charCodeAt(end))) end++;
      let stop = end;
      while (stop > equals + 1 && isTrailing(text.charCodeAt(stop - 1))) stop--;
      if (stop > equals + 1) target[name] = fieldValue(text.slice(equals + 1, stop));
    }
    covered += end - start + 1;
    pos = end;
  }
}

function closingQuote(text: string, from: number): number {
  let end = from;
  while (end < text.length && text.charCodeAt(end) !== 34) end += text.charCodeAt(end) === 92 ? 2 : 1;
  return Math.min(end, text.length);
}
const isStop = (code: number): boolean => code <= 32;
/** A comma, semicolon or closing bracket behind a value belongs to the sentence around it. */
const isTrailing = (code: number): boolean => code === 44 || code === 59 || code === 41 || code === 93;
const isNameCode = (code: number): boolean =>
  (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57) || code === 95 || code === 46 || code === 45;
