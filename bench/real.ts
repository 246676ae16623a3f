import { shareOf, type Judge } from '@fadenweg/standin';
import { FIGURES } from './judge/figures.ts';
import { real, runReal } from './judge/real.ts';
import { trial } from './judge/trial.ts';
import type { Result } from './measure.ts';
import { programsReady } from './real/machine.ts';

/** Seeds for choosing between rules, and those of the final table, by which nothing is ever chosen. */
const FIRST = process.env.FADENWEG_BENCH_SEEDS === 'final' ? 901 : 1;
const RUNS = Number(process.env.FADENWEG_BENCH_RUNS ?? 6);
const LOANS = Number(process.env.FADENWEG_BENCH_LOANS ?? 200);
/** Systems that really run: a web server, a database, a broker, a syslog daemon and three small services, with faults that are really made. */
export async function benchReal(): Promise<Result[]> {
  await programsReady();
  const sheets: Judge['sheet'][] = [];
  for (let seed = FIRST; seed < FIRST + RUNS; seed++) {
    const { name, judge } = await trial(real(await runReal(seed, LOANS)));
    sheets.push(judge.sheet);
    console.error(`${name}: ${FIGURES.map(([figure]) => shareOf(judge.sheet[figure]).toFixed(3)).join(' ')}`);
  }
  return FIGURES.map(([figure, what]) => {
    const own = sheets.map((sheet) => shareOf(sheet[figure])).filter((one) => !Number.isNaN(one));
    const worst = figure === 'blamed' ? Math.max(...own) : Math.min(...own);
    return {
      what: `${what}: mean; worst of ${own.length} runs`,
      figure: `${(own.reduce((sum, one) => sum + one, 0) / own.length).toFixed(3)}; ${worst.toFixed(3)}`,
      raw: '',
      ratio: '',
      budget: '',
    };
  });
}
