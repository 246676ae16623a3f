import { performance } from 'node:perf_hooks';

/** One line of the table of results. */
export interface Result {
  what: string;
  figure: string;
  raw: string;
  ratio: string;
  budget: string;
}
/** Times of repeated calls in milliseconds, in order of size. */
export async function times(count: number, call: (index: number) => Promise<unknown>): Promise<number[]> {
  const found: number[] = [];
  for (let i = 0; i < count; i++) {
    const begin = performance.now();
    await call(i);
    found.push(performance.now() - begin);
  }
  return found.sort((a, b) => a - b);
}
export const quantile = (sorted: readonly number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
export const perSecond = (count: number, ms: number): string => `${Math.round((count / ms) * 1000).toLocaleString('en')}/s`;
export const ms = (value: number): string => `${value.toFixed(1)} ms`;
export async function timed<T>(call: () => Promise<T>): Promise<{ value: T; ms: number }> {
  const begin = performance.now();
  const value = await call();
  return { value, ms: performance.now() - begin };
}
