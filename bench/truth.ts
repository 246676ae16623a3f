import { createReadStream, existsSync } from 'node:fs';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import {
  f1,
  FULL_DAY,
  generate,
  generateHuts,
  HUT_FLOWS,
  HUT_KINDS,
  HUT_MEANINGS,
  Scoring,
  type Score,
  aheadAt,
  type Told,
  type TrueClock,
  type Truth,
} from '@fadenweg/standin';
import type { HostClock, Page } from '@fadenweg/api';
import { call } from '../packages/launch/src/client.ts';
import { declare, declareDemo } from '../packages/launch/src/demo-data.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import type { Result } from './measure.ts';
import { bring, system } from './world.ts';

const RECORDS = Number(process.env.FADENWEG_BENCH_TRUTH ?? 400_000);
/** Share of transactions that meet a fault of every day. */
const FAULTS = Number(process.env.FADENWEG_BENCH_FAULTS ?? 0.06);
interface World {
  name: string;
  make(folder: string): Promise<{ records: number; strands: number }>;
  declaring(url: string): Promise<void>;
}
const works = (seed: number): World => ({
  name: `lens works, seed ${seed}`,
  make: (out) => generate({ out, seed, faultRate: FAULTS, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY, hours: 24, records: RECORDS }] }),
  declaring: declareDemo,
});
const huts = (seed: number): World => ({
  name: `mountain huts, seed ${seed}`,
  make: (out) => generateHuts(out, seed, FULL_DAY, 24, Math.round(RECORDS / 24), FAULTS),
  declaring: (url) => declare(url, { kinds: HUT_KINDS, flows: HUT_FLOWS, meanings: HUT_MEANINGS }),
});
/** Worlds that no test has seen: each has everyday faults, the lens works the stories of their day as well. */
const WORLDS = [works(10_003), works(10_004), works(10_005), huts(20_003), huts(20_004), huts(20_005)].filter(({ name }) =>
  name.includes(process.env.FADENWEG_BENCH_WORLD ?? ''),
);
const WORST = Number(process.env.FADENWEG_BENCH_WORST ?? 12);
/** Around a step, what a clock was ahead is not scored, in milliseconds. */
const TURNING = 60_000;
const FOLDER = '/var/tmp/fadenweg-bench/truth-logs';
const share = (part: number, of: number): string => (of === 0 ? '–' : (part / of).toFixed(4));

/** Made worlds brought in through the real server, their strands exported and compared with what really happened. */
export async function benchTruth(): Promise<Result[]> {
  const results: Result[] = [];
  const page: string[] = [];
  for (const { name, make, declaring } of WORLDS) {
    await rm(FOLDER, { recursive: true, force: true });
    await mkdir(FOLDER, { recursive: true });
    const made = await make(FOLDER);
    const truth: Truth[] = [];
    for await (const line of createInterface({ input: createReadStream(join(FOLDER, 'truth/truth.jsonl')) })) if (line !== '') truth.push(JSON.parse(line) as Truth); // prettier-ignore
    const own = await system('truth', true);
    try {
      await bring(own.server.url, FOLDER, declaring);
      const scoring = new Scoring(truth);
      const response = await fetch(`${own.server.url}/api/strands/export?records=true`);
      if (!response.ok || !response.body) throw new Error(`the export answered ${response.status}`);
      for await (const line of createInterface({ input: Readable.fromWeb(response.body as never) })) if (line !== '') scoring.add(JSON.parse(line) as Told); // prettier-ignore
      scoring.end();
      page.push(`## ${name}: ${made.records.toLocaleString('en')} records, ${truth.length.toLocaleString('en')} strands`, '', ...table(scoring), '');
      const { flows, records } = { flows: [...scoring.byFlow], records: sum(scoring) };
      results.push({
        what: `${name}: records that belong to a strand, over ${flows.length} flows`,
        figure: `F1 ${f1(records.records).toFixed(4)}, identifiers ${f1(records.identifiers).toFixed(4)}`,
        raw: `${truth.length.toLocaleString('en')} strands`,
        ratio: '',
        budget: '≥ 0.995',
      });
      const { right, wrong } = records.carried;
      results.push({
        what: `${name}: precision of records that are carried over`,
        figure: `${share(right, right + wrong)} of ${(right + wrong).toLocaleString('en')}`,
        raw: '',
        ratio: '',
        budget: '≥ 0.98',
      });
      const { order, times } = records;
      results.push({
        what: `${name}: order in which components began; begins and ends within 20 ms or 2 %`,
        figure: `${share(order.right, order.right + order.wrong)}; ${share(times.right, times.right + times.wrong)}`,
        raw: `${(order.right + order.wrong).toLocaleString('en')} pairs`,
        ratio: '',
        budget: '≥ 0.99; ≥ 0.95',
      });
      const { course } = records;
      if (course.right + course.wrong > 0)
        results.push({
          what: `${name}: legs, attempts, branches side by side`,
          figure: share(course.right, course.right + course.wrong),
          raw: `${(course.right + course.wrong).toLocaleString('en')} of them`,
          ratio: '',
          budget: '',
        });
      results.push(...(await clockResults(name, own.server.url)));
      results.push({
        what: `${name}: outcome; component of the cause; its record`,
        figure: `${share(records.outcomes, records.strands)}; ${share(records.causes.component, records.causes.all)}; ${share(records.causes.record, records.causes.all)}`,
        raw: `${records.causes.all.toLocaleString('en')} strands with a cause`,
        ratio: '',
        budget: '',
      });
      const each = [...records.byOutcome].sort(([a], [b]) => a.localeCompare(b));
      results.push({
        what: `${name}: outcome, each kind of it counting alike; component of what was slow`,
        figure: `${(each.reduce((total, [, one]) => total + one.right / one.all, 0) / each.length).toFixed(4)}; ${share(records.byOutcome.get('slow')?.component ?? 0, records.byOutcome.get('slow')?.causes ?? 0)}`,
        raw: each.map(([outcome, one]) => `${outcome} ${share(one.right, one.all)} of ${one.all}`).join(', '),
        ratio: '',
        budget: '≥ 0.95; ≥ 0.95',
      });
      if (records.next.all + records.lost.all > 0)
        results.push({
          what: `${name}: who should have spoken next; how much was lost, within 15 %`,
          figure: `${share(records.next.right, records.next.all)} of ${records.next.all}; ${share(records.lost.right, records.lost.all)} of ${records.lost.all}`,
          raw: '',
          ratio: '',
          budget: '≥ 0.95; ≥ 0.95',
        });
      results.push({
        what: `${name}: the component among the first three findings; good strands that are told to be faulty`,
        figure: `${share(records.causes.amongThree, records.causes.all)}; ${share(records.good.blamed, records.good.all)}`,
        raw: `${records.good.all.toLocaleString('en')} good strands`,
        ratio: '',
        budget: '≥ 0.98; ≤ 0.005',
      });
      results.push({
        what: `${name}: how sure the first finding is said to be, and how often it names the right component`,
        figure: [...records.sure].sort(([a], [b]) => b - a).map(([, bin]) => `${(bin.said / bin.findings).toFixed(2)}: ${share(bin.right, bin.findings)} of ${bin.findings}`).join('; '), // prettier-ignore
        raw: '',
        ratio: '',
        budget: 'alike',
      });
    } finally {
      await own.stop();
    }
  }
  await writeFile(join(ROOT, 'bench/results/truth.md'), `${page.join('\n')}\n`);
  return results;
}

/** Clocks as they were found against those that the made-up world really had. */
async function clockResults(name: string, url: string): Promise<Result[]> {
  const { items } = await call<Page<HostClock>>(`${url}/api/hosts`);
  const file = join(FOLDER, 'truth/clocks.json');
  const real = existsSync(file) ? (JSON.parse(await readFile(file, 'utf8')) as { host: string; component: string; spans: TrueClock[] }[]) : [];
  const bounded = items.filter((one) => one.stretches.length > 0);
  const errors: number[] = [];
  const turns: number[] = [];
  for (const clock of bounded) {
    const own = real.find((one) => one.host === clock.host && (one.host !== '' || one.component === clock.component))?.spans;
    for (const { from, to, aheadMs, driftMsPerHour } of clock.stretches) {
      for (let i = 0; i <= 20; i++) {
        const at = Date.parse(from) + ((Date.parse(to) - Date.parse(from)) * i) / 20;
        // how well the moment of a step is found is told apart
        if (own?.slice(1).some((turn) => Math.abs(at - turn.from / 1000) < TURNING)) continue;
        const told = aheadMs + (driftMsPerHour * (at - Date.parse(from))) / 3_600_000;
        errors.push(Math.abs(told - (own ? aheadAt(own, (at - told) * 1000) / 1000 : 0)));
      }
    }
    for (const turn of own?.slice(1) ?? []) turns.push(Math.min(...clock.stretches.map((one) => Math.abs(Date.parse(one.from) - turn.from / 1000))));
  }
  const within = Math.max(...bounded.flatMap((clock) => clock.stretches.map((one) => one.withinMs)));
  return [
    {
      what: `${name}: clocks of ${bounded.length} of ${items.length} hosts, error at most`,
      figure: `${Math.max(...errors).toFixed(1)} ms, said to be at most ${within.toFixed(1)} ms${turns.length > 0 ? `; the moment of a step ${(Math.max(...turns) / 1000).toFixed(1)} s off` : ''}`,
      raw: `off: ${items.filter((one) => one.state === 'corrected').map((one) => one.host || one.component).join(', ') || 'none'}`, // prettier-ignore
      ratio: '',
      budget: '≤ 50 ms, said ≤ 100 ms; step ≤ 60 s',
    },
  ];
}

function table(scoring: Scoring): string[] {
  const row = (name: string, score: Score): string =>
    `| ${name} | ${score.strands} | ${share(score.found, score.strands)} | ${f1(score.records).toFixed(4)} | ${score.records.wrong} / ${score.records.missing} | ${share(score.carried.right, score.carried.right + score.carried.wrong)} | ${f1(score.identifiers).toFixed(4)} | ${share(score.order.right, score.order.right + score.order.wrong)} | ${share(score.times.right, score.times.right + score.times.wrong)} | ${share(score.outcomes, score.strands)} | ${share(score.causes.failedIn, score.causes.all)} | ${share(score.causes.component, score.causes.all)} | ${share(score.causes.record, score.causes.all)} |`;
  return [
    '| | strands | found | records F1 | wrong / missing | carried over rightly | identifiers F1 | order of begins | begins and ends | outcome | given up in | cause in | its record |',
    '|---|---|---|---|---|---|---|---|---|---|---|---|---|',
    ...[...scoring.byFlow].sort(([a], [b]) => a.localeCompare(b)).map(([flow, score]) => row(flow, score)),
    ...[...scoring.byKind].sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true })).map(([kind, score]) => row(kind, score)),
    '',
    `Strands that never were: ${scoring.invented.length}${scoring.invented.length > 0 ? ` (${scoring.invented.slice(0, 8).join(', ')})` : ''}.`,
    '',
    'Worst cases:',
    '',
    ...scoring.worst(WORST).map((one) => `- \`${one.businessId}\`: ${one.why}`),
  ];
}
function sum(scoring: Scoring): Score {
  const all: Score = { strands: 0, found: 0, records: { right: 0, wrong: 0, missing: 0 }, carried: { right: 0, wrong: 0, missing: 0 }, identifiers: { right: 0, wrong: 0, missing: 0 }, order: { right: 0, wrong: 0, missing: 0 }, times: { right: 0, wrong: 0, missing: 0 }, course: { right: 0, wrong: 0, missing: 0 }, outcomes: 0, byOutcome: new Map(), causes: { all: 0, failedIn: 0, component: 0, record: 0, amongThree: 0 }, next: { all: 0, right: 0 }, lost: { all: 0, right: 0 }, good: { all: 0, blamed: 0 }, sure: new Map() }; // prettier-ignore
  for (const score of scoring.byFlow.values()) {
    all.strands += score.strands;
    all.found += score.found;
    all.outcomes += score.outcomes;
    for (const name of ['right', 'wrong', 'missing'] as const) {
      all.order[name] += score.order[name];
      all.times[name] += score.times[name];
      all.course[name] += score.course[name];
      all.records[name] += score.records[name];
      all.carried[name] += score.carried[name];
      all.identifiers[name] += score.identifiers[name];
    }
    for (const name of ['all', 'failedIn', 'component', 'record', 'amongThree'] as const) all.causes[name] += score.causes[name];
    for (const name of ['all', 'blamed'] as const) all.good[name] += score.good[name];
    for (const name of ['next', 'lost'] as const) {
      all[name].all += score[name].all;
      all[name].right += score[name].right;
    }
    for (const [outcome, own] of score.byOutcome) {
      const same = all.byOutcome.get(outcome) ?? { all: 0, right: 0, causes: 0, component: 0 };
      for (const name of ['all', 'right', 'causes', 'component'] as const) same[name] += own[name];
      all.byOutcome.set(outcome, same);
    }
    for (const [tenth, { findings, said, right }] of score.sure) {
      const bin = all.sure.get(tenth) ?? { findings: 0, said: 0, right: 0 };
      all.sure.set(tenth, { findings: bin.findings + findings, said: bin.said + said, right: bin.right + right });
    }
  }
  return all;
}
