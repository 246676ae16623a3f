import { lineWith } from '../source-texts/lens-calc.ts';
import type { Micros } from '../writing/times.ts';

export const LENS_CALC = 'lens-calc/calc.log';
/** Computes surfaces: text, milliseconds since 1970 first. */
export const calcLine = (at: Micros, level: string, worker: string, message: string): string =>
  `${Math.floor(at / 1000)} ${level.padEnd(5)} [${worker}] calc.Surface - ${message}`;

const lineOf = (path: string, words: string): number => lineWith('4.12.0', path, words);
const CALLS = [
  `\tat calc.grid.Rings.shift(Rings.java:${lineOf('calc/grid/Rings.java', 'throw new')})`,
  `\tat calc.Surface.refine(Surface.java:${lineOf('calc/Surface.java', 'rings.shift(')})`,
  `\tat calc.Surface.compute(Surface.java:${lineOf('calc/Surface.java', 'refine(new')})`,
  `\tat calc.Worker.run(Worker.java:${lineOf('calc/Worker.java', 'surface.compute(')})`,
];

/** What lens-calc throws from version 4.12.0 on. */
export const offTheGrid = (prism: number): string =>
  [`calc.PrismOffGridException: prism ${prism.toFixed(2)} leaves the grid at ring 37`, ...CALLS].join('\n');
