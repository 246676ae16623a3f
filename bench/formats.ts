import { scoreHeads } from '../packages/core/src/reading/testing/drawn-heads.ts';
import { scoreLayouts } from '../packages/core/src/reading/testing/layouts/score.ts';
import type { Result } from './measure.ts';

/** Seeds that no rule was chosen by. */
const FROM = 50_000;
const HEADS = 1000;

/** Layouts as they are met in practice, each in a file of so many lines. */
function layouts(apart: boolean, lines: number): Result {
  const scores = scoreLayouts(apart, lines);
  const percent = (fits: (one: (typeof scores)[number]) => boolean): string => ((100 * scores.filter(fits).length) / scores.length).toFixed(1);
  const right = percent(
    ({ time, level, message, thread, logger }) => time && level && message && [thread, logger].every((one) => one === null || one === 'right'),
  );
  return {
    what: `${scores.length} layouts met in practice${apart ? ', of writers that were kept apart at first' : ''}, files of ${lines} lines: all right`,
    figure: `${right} of 100`,
    raw: `time ${percent((one) => one.time)}, level ${percent((one) => one.level)}, message ${percent((one) => one.message)}`,
    ratio: '',
    budget: 'time ≥ 97, level ≥ 93',
  };
}

/** A thousand heads of lines drawn by chance, each in files of 3, 10 and 100 lines: whether all lines are read rightly; and what is met in practice. */
export function benchFormats(): Promise<Result[]> {
  const percent = (share: number): string => (share * 100).toFixed(1);
  const met = [3, 10, 100].flatMap((lines) => [layouts(false, lines), layouts(true, lines)]);
  return Promise.resolve([
    ...[3, 10, 100].map((lines): Result => {
      const { time, level, message, told, toldRight, right } = scoreHeads(FROM, FROM + HEADS, lines);
      return {
        what: `${HEADS.toLocaleString('en')} drawn heads, files of ${lines} lines: all right`,
        figure: `${percent(right)} of 100`,
        raw: `time ${percent(time)}, level ${percent(level)}, message ${percent(message)}; thread and logger told ${percent(told)}, of these right ${percent(toldRight)}`,
        ratio: '',
        budget: '≥ 95 of 100',
      };
    }),
    ...met,
  ]);
}
