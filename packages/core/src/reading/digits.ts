/** Small steps of reading text by its character codes. */
export const isDigit = (code: number): boolean => code >= 48 && code <= 57;
/** Latin letters with their accents. */
export const isLetter = (code: number): boolean =>
  (code >= 65 && code <= 90) || (code >= 97 && code <= 122) || (code >= 0xc0 && code <= 0x17f && code !== 0xd7 && code !== 0xf7);

/** Where the letters that begin at `pos` end. */
export function letterEnd(text: string, pos: number): number {
  let end = pos;
  while (isLetter(text.charCodeAt(end))) end++;
  return end;
}

/** The number in exactly `count` digits at `pos`, or -1. */
export function digits(text: string, pos: number, count: number): number {
  let value = 0;
  for (let i = pos; i < pos + count; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (!(digit >= 0 && digit <= 9)) return -1;
    value = value * 10 + digit;
  }
  return value;
}

/** The number in one or two digits at `pos`, or -1. */
export function oneOrTwo(text: string, pos: number): number {
  const two = digits(text, pos, 2);
  return two >= 0 ? two : digits(text, pos, 1);
}

/** A decimal fraction of a second between two positions, in whole microseconds. */
export function micros(text: string, from: number, to: number): number {
  let value = 0;
  let unit = 100_000;
  for (let i = from; i < to && unit >= 1; i++, unit /= 10) value += (text.charCodeAt(i) - 48) * unit;
  return value;
}
