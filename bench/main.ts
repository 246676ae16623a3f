import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { ROOT } from '../packages/launch/src/places.ts';
import { benchFind } from './find.ts';
import { benchFuzz } from './fuzz.ts';
import { benchGrowth } from './growth.ts';
import { benchGuess } from './guess.ts';
import { benchImport } from './import.ts';
import { benchLookup } from './lookup.ts';
import type { Result } from './measure.ts';
import { benchPage } from './page.ts';
import { benchReading } from './reading.ts';

const BENCHES: Record<string, () => Promise<Result[]>> = {
  page: benchPage,
  fuzz: benchFuzz,
  reading: benchReading,
  import: benchImport,
  guess: benchGuess,
  growth: benchGrowth,
  find: benchFind,
  lookup: () => benchLookup(),
};

const asked = process.argv.slice(2);
const unknown = asked.find((name) => !(name in BENCHES));
if (unknown) {
  console.error(`There is no bench “${unknown}”; there are ${Object.keys(BENCHES).join(', ')}.`);
  process.exit(2);
}
const results: Result[] = [];
for (const [name, bench] of Object.entries(BENCHES)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  console.error(`measuring ${name} …`);
  results.push(...(await bench()));
}
const table = [
  '| what | figure | raw limit in the same run | ratio | budget |',
  '|---|---|---|---|---|',
  ...results.map((one) => `| ${one.what} | ${one.figure} | ${one.raw} | ${one.ratio} | ${one.budget} |`),
].join('\n');
await mkdir(join(ROOT, 'bench/results'), { recursive: true });
await writeFile(join(ROOT, 'bench/results/latest.md'), `${table}\n`);
console.log(table);
process.exit(0);
