import { scoreHeads } from '../packages/core/src/reading/testing/drawn-heads.ts';
import type { Result } from './measure.ts';

/** Seeds that no rule was chosen by. */
const FROM = 50_000;
const HEADS = 1000;

/** A thousand heads of lines drawn by chance, each in files of 3, 10 and 100 lines: whether all lines are read rightly. */
export function benchFormats(): Promise<Result[]> {
  const percent = (share: number): string => (share * 100).toFixed(1);
  return Promise.resolve(
    [3, 10, 100].map((lines): Result => {
      const { time, level, message, told, toldRight, right } = scoreHeads(FROM, FROM + HEADS, lines);
      return {
        what: `${HEADS.toLocaleString('en')} drawn heads, files of ${lines} lines: all right`,
        figure: `${percent(right)} of 100`,
        raw: `time ${percent(time)}, level ${percent(level)}, message ${percent(message)}; thread and logger told ${percent(told)}, of these right ${percent(toldRight)}`,
        ratio: '',
        budget: '≥ 95 of 100',
      };
    }),
  );
}
