/**
 * Candidates for patterns that begin with so many characters of one class (`[0-9a-f]{32}…`): most of a text is skipped,
 * since a run of n cannot cross a character outside of the class (the idea of Boyer and Moore's last-character rule).
 */
export class RunSearch {
  private constructor(
    private readonly table: Uint8Array,
    private readonly length: number,
  ) {}

  /** For a pattern of that form with at least four characters, else null. */
  static of(pattern: string): RunSearch | null {
    const hit = /^\(?\[((?:[0-9A-Za-z]-[0-9A-Za-z]|[0-9A-Za-z])+)\]\{(\d+)(?:,\d*)?\}/.exec(pattern);
    if (!hit || pattern.includes('|') || Number(hit[2]) < 4) return null;
    const table = new Uint8Array(128);
    const member = new RegExp(`[${hit[1]}]`);
    for (let code = 0; code < 128; code++) if (member.test(String.fromCharCode(code))) table[code] = 1;
    return new RunSearch(table, Number(hit[2]));
  }

  /** Where the next run that stands at the beginning of a word begins, from `from` on; -1 if there is none. */
  next(text: string, from: number): number {
    const { table, length } = this;
    let start = from;
    for (;;) {
      let end = start + length - 1;
      if (end >= text.length) return -1;
      while (end >= start && table[text.charCodeAt(end)] === 1) end--;
      if (end >= start) {
        start = end + 1;
        continue;
      }
      if (start > 0 && isWord(text.charCodeAt(start - 1))) {
        // the run belongs to a longer word: leave it behind
        start += length;
        while (start < text.length && isWord(text.charCodeAt(start))) start++;
        continue;
      }
      return start;
    }
  }
}

/** Letters, digits and the underscore: what an identifier must not be glued to. */
export const isWord = (code: number): boolean =>
  (code >= 48 && code <= 57) || (code >= 65 && code <= 90) || (code >= 97 && code <= 122) || code === 95;
