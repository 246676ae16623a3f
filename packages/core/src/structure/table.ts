import type { Line } from './lines.ts';

const FEWEST_ROWS = 3;
const FEWEST_COLUMNS = 2;
const MOST_COLUMNS = 60;
const LONGEST_RULE = 2000;
const MOST_ROWS = 20_000;

/**
 * A table from a line on: lines in a row with the same number of cells, told apart by tabs, by bars, or by columns of blanks under a ruled head.
 *
 * @returns behind its last line, null where there is none; the head is empty where no rule tells it apart
 */
export function tableAt(lines: readonly Line[], first: number): { end: number; head: string[]; rows: string[][] } | null {
  for (const cellsOf of [byTabs, byBars]) {
    const cells: string[][] = [];
    let rule = -1;
    let at = first;
    for (; at < lines.length && cells.length < MOST_ROWS; at++) {
      const { text } = lines[at]!;
      if (cellsOf === byBars && text.length <= LONGEST_RULE && /^[\s|+:=-]*[-=]{3,}[\s|+:=-]*$/.test(text)) {
        if (cells.length === 1) rule = at;
        continue;
      }
      const own = cellsOf(text);
      if (!own || own.length > MOST_COLUMNS || own.length !== (cells[0]?.length ?? own.length)) break;
      cells.push(own);
    }
    const columns = cells[0]?.length ?? 0;
    if (cells.length < FEWEST_ROWS || columns < FEWEST_COLUMNS) continue;
    const headed = rule >= 0 || looksLikeHead(cells);
    return { end: at, head: headed ? cells[0]! : [], rows: headed ? cells.slice(1) : cells };
  }
  return null;
}

function byTabs(text: string): string[] | null {
  return text.includes('\t') && !text.startsWith('\t') ? text.split('\t').map((cell) => cell.trim()) : null;
}
function byBars(text: string): string[] | null {
  if (!text.includes('|')) return null;
  const cells = text.trim().replace(/^\||\|$/g, '').split('|').map((cell) => cell.trim()); // prettier-ignore
  return cells.length >= FEWEST_COLUMNS ? cells : null;
}
/** Words above numbers. */
const looksLikeHead = ([head, ...rest]: string[][]): boolean =>
  head!.every((cell) => cell !== '' && !/^[\d.,:-]+$/.test(cell)) && head!.some((_, i) => rest.every((row) => /^[\d.,:-]*$/.test(row[i]!)));
