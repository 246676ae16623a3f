import type { Micros } from '../writing/times.ts';

export const LENS_CALC = 'lens-calc/calc.log';
/** Computes surfaces: text, milliseconds since 1970 first. */
export const calcLine = (at: Micros, level: string, worker: string, message: string): string =>
  `${Math.floor(at / 1000)} ${level.padEnd(5)} [${worker}] calc.Surface - ${message}`;
