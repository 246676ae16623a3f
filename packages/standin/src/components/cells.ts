import { localText, type Micros } from '../writing/times.ts';

export const SURFACING_CELL = 'surfacing-cell/cell.log';
export const COATING_CELL = 'coating-cell/cell.log';
/** How far the clock of cell-2 is ahead. */
export const COATING_CLOCK: Micros = 2_900_000;

/** Machine controllers: plain text, local time without a zone, no levels. */
export const cellLine = (at: Micros, host: 'cell-1' | 'cell-2', lane: number, order: string, message: string): string =>
  `${localText(at + (host === 'cell-2' ? COATING_CLOCK : 0))} ${host} lane ${lane} ${order} ${message}`;
