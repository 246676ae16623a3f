import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { ROOT } from '../packages/launch/src/places.ts';
import { benchAgain } from './again.ts';
import { benchBeside } from './beside.ts';
import { benchCalls } from './calls.ts';
import { benchFind } from './find.ts';
import { benchFormats } from './formats.ts';
import { benchFuzz } from './fuzz.ts';
import { benchGrowth } from './growth.ts';
import { benchGuess } from './guess.ts';
import { benchImport } from './import.ts';
import { benchLookup } from './lookup.ts';
import type { Result } from './measure.ts';
import { benchPage } from './page.ts';
import { benchRounds } from './rounds.ts';
import { benchSame } from './same.ts';
import { benchSmall } from './small.ts';
import { benchPhones } from './phones.ts';
import { benchReal } from './real.ts';
import { benchReading } from './reading.ts';
import { benchStrange } from './strange.ts';
import { benchTruth } from './truth.ts';

const BENCHES: Record<string, () => Promise<Result[]>> = {
  page: benchPage,
  fuzz: benchFuzz,
  formats: benchFormats,
  reading: benchReading,
  import: benchImport,
  again: benchAgain,
  beside: benchBeside,
  guess: benchGuess,
  small: benchSmall,
  growth: benchGrowth,
  find: benchFind,
  truth: benchTruth,
  strange: benchStrange,
  real: benchReal,
  rounds: benchRounds,
  calls: benchCalls,
  phones: benchPhones,
  same: benchSame,
  lookup: () => benchLookup(),
};

const asked = process.argv.slice(2);
const unknown = asked.find((name) => !(name in BENCHES));
if (unknown) {
  console.error(`There is no bench “${unknown}”; there are ${Object.keys(BENCHES).join(', ')}.`);
  process.exit(2);
}
const FILE = join(ROOT, 'bench/results/latest.md');
const HEAD = ['| bench | what | figure | raw limit in the same run | ratio | budget |', '|---|---|---|---|---|---|'];
const cells = (name: string, one: Result): string => `| ${name} | ${one.what} | ${one.figure} | ${one.raw} | ${one.ratio} | ${one.budget} |`;
/** Benches that are not measured now keep the rows of their last run. */
const before = existsSync(FILE) ? (await readFile(FILE, 'utf8')).split('\n').slice(HEAD.length) : [];
const rows: string[] = [];
const measured: string[] = [];
for (const [name, bench] of Object.entries(BENCHES)) {
  if (asked.length > 0 && !asked.includes(name)) {
    rows.push(...before.filter((row) => row.startsWith(`| ${name} |`)));
    continue;
  }
  console.error(`measuring ${name} …`);
  const own = (await bench()).map((one) => cells(name, one));
  rows.push(...own);
  measured.push(...own);
}
await mkdir(join(ROOT, 'bench/results'), { recursive: true });
await writeFile(FILE, `${[...HEAD, ...rows].join('\n')}\n`);
const table = [...HEAD, ...measured].join('\n');
console.log(table);
process.exit(0);
