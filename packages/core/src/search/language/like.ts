/**
 * A pattern of `like` as a test of texts: `%` stands for any signs, `_` for one, `\` makes the next one a sign like any other.
 *
 * The parts between `%` are looked for one behind the other, each at the first place where it fits, which leaves most room for those behind: in time
 * that grows with the text times the longest part, never with their number.
 */
export function likeTest(pattern: string): (text: string) => boolean {
  const parts = partsOf(pattern);
  const [first] = parts;
  const last = parts[parts.length - 1]!;
  if (parts.length === 1) return (text) => text.length === first!.length && fits(first!, text, 0);
  return (text) => {
    const end = text.length - last.length;
    if (end < first!.length || !fits(first!, text, 0) || !fits(last, text, end)) return false;
    let from = first!.length;
    for (let i = 1; i < parts.length - 1; i++) {
      const part = parts[i]!;
      const at = placeOf(part, text, from, end);
      if (at < 0) return false;
      from = at + part.length;
    }
    return from <= end;
  };
}

/** Code units, null for any one. */
type Part = readonly (number | null)[];

function partsOf(pattern: string): Part[] {
  const parts: (number | null)[][] = [[]];
  for (let i = 0; i < pattern.length; i++) {
    const char = pattern[i]!;
    const own = parts[parts.length - 1]!;
    if (char === '%') parts.push([]);
    else if (char === '_') own.push(null);
    else if (char === '\\' && '%_\\'.includes(pattern[i + 1] ?? ' ')) own.push(pattern.charCodeAt(++i));
    else own.push(pattern.charCodeAt(i));
  }
  return parts;
}
function fits(part: Part, text: string, at: number): boolean {
  for (let i = 0; i < part.length; i++) if (part[i] !== null && part[i] !== text.charCodeAt(at + i)) return false;
  return true;
}
/** The first place from `from` on where a part fits before `end`, -1 for none. */
function placeOf(part: Part, text: string, from: number, end: number): number {
  for (let at = from; at + part.length <= end; at++) if (fits(part, text, at)) return at;
  return -1;
}
