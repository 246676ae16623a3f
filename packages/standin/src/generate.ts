import { mkdir, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { COATING_CLOCK } from './components/cells.ts';
import { LENS_CALC_VERSIONS, lensCalcText } from './source-texts/lens-calc.ts';
import { Works } from './works.ts';
import { DAY, HOUR, MINUTE, hourOfDay, localTime, type Micros } from './writing/times.ts';

/** A stretch of time with about so many records. */
export interface Stretch {
  from: Micros;
  hours: number;
  records: number;
}
export interface Plan {
  out: string;
  seed: number;
  faultRate: number;
  stretches: Stretch[];
  /** Local midnight of the day on which the stories happen, null for none. */
  storyDay: Micros | null;
}

export const FULL_DAY: Micros = localTime(2026, 11, 24);
/** The demo: twenty thin days, then a full one with the stories. */
export function demoPlan(out: string, seed = 1): Plan {
  const thin = Array.from({ length: 20 }, (_, i) => ({ from: FULL_DAY - (20 - i) * DAY, hours: 24, records: 12_000 }));
  return { out, seed, faultRate: 0.03, storyDay: FULL_DAY, stretches: [...thin, { from: FULL_DAY, hours: 24, records: 300_000 }] };
}

/** How busy an hour of the day is, the whole day adding up to 24. */
const BUSY = [0.1, 0.1, 0.1, 0.1, 0.1, 0.3, 0.8, 1.4, 1.9, 2.1, 2.2, 2.1, 1.7, 1.8, 2, 1.9, 1.6, 1.3, 0.9, 0.6, 0.3, 0.25, 0.2, 0.15];

/**
 * Writes the logs below `out/logs`, one folder a component, the truth to `out/truth/truth.jsonl`, and source texts below `out/source-texts`.
 *
 * @returns how many records and strands were written
 */
export async function generate(plan: Plan, progress: (records: number) => void = () => {}): Promise<{ records: number; strands: number }> {
  const works = new Works(plan.out, plan.seed, plan.faultRate, plan.storyDay, plan.stretches[0]!.from);
  for (const stretch of plan.stretches) {
    const minutes = stretch.hours * 60;
    const busyOf = stretch.hours < 24 ? () => 1 : (at: Micros) => BUSY[hourOfDay(at)]!;
    for (let minute = 0; minute < minutes; minute++) {
      const from = stretch.from + minute * MINUTE;
      await works.sink.advance(from);
      works.produce(from, MINUTE, stretch.records / minutes, busyOf(from));
      if (minute % 60 === 0) progress(works.sink.records);
    }
  }
  await works.sink.end();
  await writeFile(
    `${plan.out}/truth/clocks.json`,
    JSON.stringify([{ host: 'cell-2', component: '', spans: [{ from: 0, ahead: COATING_CLOCK, drift: 0 }] }]),
  );
  await writeSourceTexts(`${plan.out}/source-texts`);
  return { records: works.sink.records, strands: works.sink.strands };
}

/** The source texts of what runs in the works, below `component/version`. */
async function writeSourceTexts(folder: string): Promise<void> {
  for (const version of LENS_CALC_VERSIONS) {
    for (const { path, body } of lensCalcText(version)) {
      const file = `${folder}/lens-calc/${version}/${path}`;
      await mkdir(dirname(file), { recursive: true });
      await writeFile(file, body);
    }
  }
}

/** A plan for any number of hours and records, beginning on the day before the demo's first. */
export const freePlan = (out: string, seed: number, hours: number, records: number, faultRate: number): Plan => ({
  out,
  seed,
  faultRate,
  storyDay: null,
  stretches: [{ from: FULL_DAY - Math.ceil(hours / 24) * 24 * HOUR, hours, records }],
});
