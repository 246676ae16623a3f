import type { Micros } from '../writing/times.ts';

export const LENS_CALC = 'lens-calc/calc.log';
/** Computes surfaces: text, milliseconds since 1970 first. */
export const calcLine = (at: Micros, level: string, worker: string, message: string): string =>
  `${Math.floor(at / 1000)} ${level.padEnd(5)} [${worker}] calc.Surface - ${message}`;

/** What lens-calc throws from version 4.12.0 on. */
export const offTheGrid = (prism: number): string =>
  [
    `calc.PrismOffGridException: prism ${prism.toFixed(2)} leaves the grid at ring 37`,
    '\tat calc.grid.Rings.shift(Rings.java:212)',
    '\tat calc.Surface.refine(Surface.java:97)',
    '\tat calc.Surface.compute(Surface.java:61)',
    '\tat calc.Worker.run(Worker.java:41)',
  ].join('\n');
