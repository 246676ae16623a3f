/** Letters of a piece: browsers lay out one very long text in a time that grows with its square, many pieces in sight only. */
const PIECE = 4000;
const WHOLE = 40_000;

/** A long text in pieces that together are the text, cut behind a line or else behind a word where there is one near; a short text is one piece. */
export function piecesOf(text: string): string[] {
  if (text.length <= WHOLE) return [text];
  const pieces: string[] = [];
  for (let at = 0; at < text.length;) {
    let end = Math.min(text.length, at + PIECE);
    if (end < text.length) {
      const line = text.lastIndexOf('\n', end - 1);
      const word = text.lastIndexOf(' ', end - 1);
      if (line > at + PIECE / 2) end = line + 1;
      else if (word > at + PIECE / 2) end = word + 1;
      // never between the two halves of one character
      else if (/[\ud800-\udbff]/.test(text[end - 1]!)) end--;
    }
    pieces.push(text.slice(at, end));
    at = end;
  }
  return pieces;
}
