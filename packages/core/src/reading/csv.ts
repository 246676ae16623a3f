/** Whether the quotes of a CSV text are balanced (RFC 4180): only then may a record end at its line's end. */
export function quotesBalanced(text: string, before = true): boolean {
  let balanced = before;
  for (let at = text.indexOf('"'); at >= 0; at = text.indexOf('"', at + 1)) balanced = !balanced;
  return balanced;
}

/** The cells of one CSV record (RFC 4180), quotes taken away. */
export function csvCells(text: string, delimiter = ','): string[] {
  const cells: string[] = [];
  let pos = 0;
  for (;;) {
    if (text.charCodeAt(pos) === 34) {
      let value = '';
      let from = pos + 1;
      for (;;) {
        const quote = text.indexOf('"', from);
        if (quote < 0) {
          value += text.slice(from);
          pos = text.length;
          break;
        }
        value += text.slice(from, quote);
        if (text.charCodeAt(quote + 1) === 34) {
          value += '"';
          from = quote + 2;
        } else {
          pos = quote + 1;
          break;
        }
      }
      cells.push(value);
      const next = text.indexOf(delimiter, pos);
      if (next < 0) return cells;
      pos = next + 1;
    } else {
      const next = text.indexOf(delimiter, pos);
      if (next < 0) {
        cells.push(text.slice(pos));
        return cells;
      }
      cells.push(text.slice(pos, next));
      pos = next + 1;
    }
  }
}
