import type { Fields, FieldValue } from './types.ts';

const MOST_FIELDS = 200;

/** A text that is one object in JSON, null for any other. */
export function parseObject(text: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(LONG.test(text) ? withLongNumbers(text) : text);
    return value !== null && typeof value === 'object' && !Array.isArray(value) ? (value as Record<string, unknown>) : null;
  } catch {
    return null; // not an object: the line is kept whole as a record that is not understood
  }
}

/** A number that may have more digits than a number of the language holds: an identifier more often than a quantity. */
const LONG = /[:,[]\s*-?\d{16}/;
const TEXT_OR_LONG = /"(?:[^"\\]|\\.)*"|-?\d{16,}(?![\d.eE])/g;
/** Such numbers as texts, digit by digit. */
const withLongNumbers = (text: string): string =>
  text.replace(TEXT_OR_LONG, (hit) => (hit.startsWith('"') || Number.isSafeInteger(Number(hit)) ? hit : `"${hit}"`));

function jsonText(value: object): string {
  try {
    return JSON.stringify(value);
  } catch {
    return '(nested too deeply)'; // deeper than the platform's stack; the text of the record is kept
  }
}

/** Nested members as fields with paths; lists stay JSON. */
export function flatten(value: object, prefix: string, into: Fields, depth = 0, count = { left: MOST_FIELDS }): void {
  for (const [name, inner] of Object.entries(value)) {
    if (count.left <= 0) return;
    const path = prefix + name;
    if (inner === null || inner === undefined) continue;
    if (typeof inner === 'object') {
      if (Array.isArray(inner) || depth >= 8) {
        into[path] = jsonText(inner);
        count.left--;
      } else flatten(inner as object, path + '.', into, depth + 1, count);
    } else {
      into[path] = inner as FieldValue;
      count.left--;
    }
  }
}
