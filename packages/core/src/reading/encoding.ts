/** The part of the platform's WHATWG decoder that is used here; servers, workers and browsers all have it. */
declare class TextDecoder {
  constructor(label: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(bytes: Uint8Array): string;
}

declare class TextEncoder {
  encode(text: string): Uint8Array;
}

export type Encoding = 'utf-8' | 'windows-1252' | 'utf-16le' | 'utf-16be';

const decoders = new Map<Encoding, TextDecoder>();

/** Text of bytes; broken sequences become U+FFFD, the bytes themselves are kept elsewhere. A byte order mark stays. */
export function decode(bytes: Uint8Array, encoding: Encoding): string {
  let decoder = decoders.get(encoding);
  if (!decoder) decoders.set(encoding, (decoder = new TextDecoder(encoding, { ignoreBOM: true })));
  return decoder.decode(bytes);
}

/** The bytes of a text in UTF-8. */
export const encode = (text: string): Uint8Array => new TextEncoder().encode(text);

/** The encoding of a source by its first bytes: a byte order mark, valid UTF-8, zero bytes at every other place, else Latin. */
export function guessEncoding(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const text = decode(bytes, 'utf-8');
  let bad = text.indexOf('\uFFFD');
  if (bad >= 0 && bad >= text.length - 3) bad = -1; // a character cut by the sample's end
  if (bad < 0) return 'utf-8';
  return bytes.includes(0) ? 'utf-8' : 'windows-1252';
}

/** Control bytes that no log writes. */
const isOdd = (byte: number): boolean => byte < 9 || (byte > 13 && byte < 27) || (byte > 27 && byte < 32);

/**
 * Whether these bytes are no text: control bytes that no log writes, in number, and in most of what there is. A log into which a program spilt some
 * bytes is one all the same: what lies between its lines is kept whole.
 */
export function looksBinary(bytes: Uint8Array): boolean {
  if (bytes.length === 0 || (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff)) return false;
  const head = Math.min(bytes.length, 8192);
  let odd = 0;
  for (let i = 0; i < head; i++) if (isOdd(bytes[i]!)) odd++;
  if (odd <= 4 + head / 50) return false;
  let readable = 0;
  for (let from = 0; from < bytes.length;) {
    let to = bytes.indexOf(10, from);
    if (to < 0) to = bytes.length;
    if (to > from && !bytes.subarray(from, to).some(isOdd)) readable += to - from;
    from = to + 1;
  }
  return readable < bytes.length / 2;
}

/** Text of a view that holds one character for each byte of UTF-8. */
export function decodeView(view: string): string {
  for (let i = 0; i < view.length; i++) {
    if (view.charCodeAt(i) > 255) return view;
    if (view.charCodeAt(i) > 127)
      return decode(
        Uint8Array.from(view, (one) => one.charCodeAt(0)),
        'utf-8',
      );
  }
  return view;
}
