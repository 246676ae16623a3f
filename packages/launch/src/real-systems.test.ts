import { expect, test } from '@jest/globals';
import { shareOf } from '@fadenweg/standin';
import { real, runReal } from '../../../bench/judge/real.ts';
import { trial } from '../../../bench/judge/trial.ts';
import { programsReady } from '../../../bench/real/machine.ts';

test('what programs that nobody here wrote tell of real faults is understood: what belongs together, how it ended, and that nobody good is blamed', async () => {
  await programsReady();
  const ran = await runReal(11, 70);
  const { judge } = await trial(real(ran));
  // all lines of every request were found in the logs: what is judged by is whole
  expect(ran.happened.length).toBeGreaterThanOrEqual(70);
  expect(ran.happened.every(({ tx }) => (ran.lines.get(tx)?.length ?? 0) > 1)).toBe(true);
  expect(shareOf(judge.sheet.records)).toBeGreaterThan(0.95);
  expect(shareOf(judge.sheet.identifiers)).toBeGreaterThan(0.95);
  expect(shareOf(judge.sheet.faulty)).toBeGreaterThanOrEqual(0.6);
  // from so few it is not learned yet how far good ones spread
  expect(shareOf(judge.sheet.blamed)).toBeLessThan(0.15);
}, 240_000);
