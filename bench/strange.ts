import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { shareOf, Sheet } from '@fadenweg/standin';
import { ROOT } from '../packages/launch/src/places.ts';
import { drawn } from './judge/drawn.ts';
import { FIGURES, type Figure } from './judge/figures.ts';
import { parcels } from './judge/parcels.ts';
import { permits } from './judge/permits.ts';
import { trial, type Trial } from './judge/trial.ts';
import type { JudgedWorld } from './judge/world.ts';
import type { Result } from './measure.ts';

/** Seeds for choosing between rules, and those of the final table, by which nothing is ever chosen. */
const SEEDS = { choosing: { drawn: 1001, parcels: 101 }, final: { drawn: 9001, parcels: 901 } } as const;
const SET = process.env.FADENWEG_BENCH_SEEDS === 'final' ? 'final' : 'choosing';
const DRAWN = Number(process.env.FADENWEG_BENCH_DRAWN ?? 40);
const PARCELS = Number(process.env.FADENWEG_BENCH_PARCELS ?? 5);
const TRANSACTIONS = Number(process.env.FADENWEG_BENCH_TRANSACTIONS ?? 500);
/** Nothing is declared, and the set of kinds that the product offers is accepted. */
const NEWCOMER = process.env.FADENWEG_BENCH_NEWCOMER === 'yes';
/** Folder of worlds by other hands, where there are any: `permits` and `parcels`. */
const WORLDS = process.env.FADENWEG_WORLDS;

/** Systems that nobody prepared: drawn worlds and worlds by other hands, understood from their files alone. */
export async function benchStrange(): Promise<Result[]> {
  const trials: Pick<Trial, 'name' | 'judge' | 'firstError' | 'ms'>[] = [];
  for (const make of worlds()) {
    const { name, judge, firstError, ms } = await trial(await make(), NEWCOMER);
    trials.push({ name, judge, firstError, ms });
    console.error(`${name}: ${FIGURES.map(([figure]) => figured(shareOf(judge.sheet[figure]))).join(' ')}, ${Math.round(ms / 1000)} s`);
  }
  await mkdir(join(ROOT, 'bench/results'), { recursive: true });
  await writeFile(join(ROOT, 'bench/results/strange.md'), `${[...table(trials), '', ...byFault(trials)].join('\n')}\n`);
  const errors = trials.map((one) => shareOf(one.firstError)).filter((one) => !Number.isNaN(one));
  return [
    ...FIGURES.map(([figure, what]): Result => {
      const own = figuresOf(trials, figure);
      return { what: `${what}: mean; tenth percentile; worst, over ${own.length} worlds${NEWCOMER ? ', newcomer' : ''} (seeds for the ${SET === 'final' ? 'final table' : 'choice of rules'})`, figure: `${figured(mean(own))}; ${figured(tenth(own, figure))}; ${figured(figure === 'blamed' ? Math.max(...own) : Math.min(...own))}`, raw: '', ratio: '', budget: '' }; // prettier-ignore
    }),
    { what: 'first record of level error is of a right component: mean', figure: figured(mean(errors)), raw: '', ratio: '', budget: '' },
  ];
}

function worlds(): (() => JudgedWorld | Promise<JudgedWorld>)[] {
  const { drawn: from, parcels: first } = SEEDS[SET];
  const some = Array.from({ length: DRAWN }, (_, i) => () => drawn(from + i, TRANSACTIONS));
  if (!WORLDS) return some;
  const others = Array.from(
    { length: PARCELS },
    (_, i) => () => parcels(join(WORLDS, 'parcels'), first + i, TRANSACTIONS, '/var/tmp/fadenweg-bench/parcels'),
  );
  return [...some, ...others, () => permits(join(WORLDS, 'permits'))];
}

const figured = (value: number): string => (Number.isNaN(value) ? '–' : value.toFixed(3));
const figuresOf = (trials: readonly Pick<Trial, 'judge'>[], figure: Figure): number[] =>
  trials.map((one) => shareOf(one.judge.sheet[figure])).filter((one) => !Number.isNaN(one));
const mean = (list: readonly number[]): number => (list.length === 0 ? NaN : list.reduce((sum, one) => sum + one, 0) / list.length);
function tenth(list: readonly number[], figure: Figure): number {
  const sorted = [...list].sort((a, b) => (figure === 'blamed' ? b - a : a - b));
  return sorted[Math.floor(0.1 * (sorted.length - 1))] ?? NaN;
}

function table(trials: readonly Pick<Trial, 'name' | 'judge' | 'firstError'>[]): string[] {
  return [
    `| world | ${FIGURES.map(([, what]) => what).join(' | ')} | first error |`,
    `|---|${FIGURES.map(() => '---|').join('')}---|`,
    ...trials.map(
      ({ name, judge, firstError }) =>
        `| ${name} | ${FIGURES.map(([figure]) => figured(shareOf(judge.sheet[figure]))).join(' | ')} | ${figured(shareOf(firstError))} |`,
    ),
    `| mean | ${FIGURES.map(([figure]) => figured(mean(figuresOf(trials, figure)))).join(' | ')} | |`,
    `| tenth percentile | ${FIGURES.map(([figure]) => figured(tenth(figuresOf(trials, figure), figure))).join(' | ')} | |`,
  ];
}
/** All transactions of a kind of fault alike, whatever their world. */
function byFault(trials: readonly Pick<Trial, 'judge'>[]): string[] {
  const sums = new Map<string, Sheet>();
  for (const { judge } of trials) {
    for (const [fault, sheet] of judge.byFault) {
      const sum = sums.get(fault) ?? new Sheet();
      sums.set(fault, sum);
      for (const what of ['records', 'outcomes', 'component', 'record'] as const) sum.count(what, sheet[what].right, sheet[what].all);
    }
  }
  return [
    '| fault | transactions | records, F1 | outcome | component | record |',
    '|---|---|---|---|---|---|',
    ...[...sums].sort(([a], [b]) => (a < b ? -1 : 1)).map(([fault, sheet]) => `| ${fault} | ${sheet.outcomes.all} | ${(['records', 'outcomes', 'component', 'record'] as const).map((what) => figured(shareOf(sheet[what]))).join(' | ')} |`), // prettier-ignore
  ];
}
