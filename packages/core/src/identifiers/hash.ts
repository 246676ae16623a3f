/**
 * 53-bit hash of a text: two multiplicative lanes over its UTF-16 units, mixed as in MurmurHash3's finaliser.
 * With ten million keys the chance that any two are alike is about 0.5 %; look-ups therefore compare the value as well.
 */
export function hash53(text: string, seed = 0): number {
  let a = 0xdeadbeef ^ seed;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 2654435761);
    b = Math.imul(b ^ code, 1597334677);
  }
  return finish53(a, b);
}

/** Mixes two 32-bit lanes into a whole number from 0 to 2^53 - 1. */
export function finish53(a: number, b: number): number {
  const x = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  const y = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return 4294967296 * (2097151 & y) + (x >>> 0);
}

/** Key of an identifier; the kind by name, so that it holds across installations. */
export function identifierKey(kindName: string, scope: string, value: string): number {
  return hash53(value, hash53(`${kindName}\u0000${scope}`) | 0);
}
