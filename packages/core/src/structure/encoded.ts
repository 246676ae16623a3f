import { decode } from '../reading/encoding.ts';

/** A stretch that stands for a text: encoded for addresses (RFC 3986), in Base64 (RFC 4648, with either alphabet), or as hexadecimal bytes. */
export interface Encoded {
  how: 'base64' | 'url' | 'hex';
  from: number;
  to: number;
  text: string;
}

/** Longer texts are looked through up to here, in UTF-16 units. */
const LONGEST = 200_000;
const MOST = 20;
/** Decoded texts that are shorter may be chance. */
const SHORTEST = 8;
const WORD = /[^\s"'<>`\\]+/g;
const ESCAPED = /%[0-9A-Fa-f]{2}/;
const BASE64 = /(?<![A-Za-z0-9+/_-])[A-Za-z0-9+/_-]{16,}={0,2}(?![A-Za-z0-9+/_=-])/g;
const HEX = /(?<![0-9A-Za-z])(?:0x)?((?:[0-9A-Fa-f]{2}){10,})(?![0-9A-Za-z])/g;

/** What is encoded in a text and decodes to something readable, in order. */
export function encodedIn(whole: string): Encoded[] {
  const text = whole.slice(0, LONGEST);
  const found: Encoded[] = [];
  const add = (how: Encoded['how'], from: number, length: number, decoded: string | null): void => {
    const to = from + length;
    if (decoded === null || found.some((one) => one.from < to && one.to > from)) return;
    found.push({ how, from, to, text: decoded });
  };
  for (const hit of text.matchAll(HEX)) add('hex', hit.index, hit[0].length, readable(bytesOfHex(hit[1]!)));
  for (const hit of text.matchAll(BASE64)) add('base64', hit.index, hit[0].length, readable(bytesOfBase64(hit[0])));
  for (const hit of text.matchAll(WORD)) if (ESCAPED.test(hit[0])) add('url', hit.index, hit[0].length, ofAddress(hit[0]));
  return found.sort((a, b) => a.from - b.from).slice(0, MOST);
}

function ofAddress(text: string): string | null {
  try {
    const plain = decodeURIComponent(text.replaceAll('+', ' '));
    return /[\u0000-\u0008\u000e-\u001f]/.test(plain) ? null : plain;
  } catch {
    return null; // bytes that are no UTF-8: it stays as it is
  }
}
function bytesOfHex(text: string): Uint8Array {
  return Uint8Array.from({ length: text.length / 2 }, (_, i) => parseInt(text.slice(2 * i, 2 * i + 2), 16));
}
function bytesOfBase64(text: string): Uint8Array | null {
  const bare = text.replace(/=+$/, '');
  if (bare.length % 4 === 1 || (text !== bare && text.length % 4 !== 0)) return null;
  const bytes = new Uint8Array(Math.floor((bare.length * 3) / 4));
  let [bits, count, at] = [0, 0, 0];
  for (const letter of bare) {
    bits = ((bits << 6) | valueOf(letter.charCodeAt(0))) & 0xffffff;
    count += 6;
    if (count < 8) continue;
    count -= 8;
    bytes[at++] = (bits >> count) & 0xff;
  }
  return bytes;
}
function valueOf(code: number): number {
  if (code >= 97) return code - 71;
  if (code >= 65 && code <= 90) return code - 65;
  if (code >= 48 && code <= 57) return code + 4;
  return code === 43 || code === 45 ? 62 : 63;
}

/** The text that bytes are in UTF-8, null where they are none. */
function readable(bytes: Uint8Array | null): string | null {
  if (!bytes || bytes.length < SHORTEST) return null;
  const text = decode(bytes, 'utf-8');
  if (/[\ufffd\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(text)) return null;
  if (/^\s*[{[]/.test(text) && isJson(text)) return text;
  // letters of words, not any signs that happen to be printable
  const plain = text.match(/[\p{L}\p{N}\s]/gu)?.length ?? 0;
  return plain >= text.length * 0.6 ? text : null;
}

function isJson(text: string): boolean {
  try {
    JSON.parse(text);
    return true;
  } catch {
    return false;
  }
}
