import { lensOrder } from './flows/lens-order.ts';
import { priceListJob, stockSyncJob } from './flows/jobs.ts';
import { noise } from './flows/noise.ts';
import { statusCall } from './flows/status-call.ts';
import { droppedCalls } from './stories/dropped-calls.ts';
import { stockSyncLocks } from './stories/stock-sync-locks.ts';
import type { Story } from './stories/story.ts';
import { thinPriceList } from './stories/thin-price-list.ts';
import { Numbers, SessionPool, type World } from './world.ts';
import { newSession } from './components/labdb.ts';
import { Random } from './writing/random.ts';
import { Sink } from './writing/sink.ts';
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
const RECORDS_OF_ORDER = 15;
const RECORDS_OF_CALL = 18;

/**
 * Writes the logs below `out/logs`, one folder a component, and the truth to `out/truth/truth.jsonl`.
 *
 * @returns how many records and strands were written
 */
export async function generate(plan: Plan, progress: (records: number) => void = () => {}): Promise<{ records: number; strands: number }> {
  const sink = new Sink(`${plan.out}/logs`, `${plan.out}/truth`);
  const random = new Random(plan.seed);
  const stories: Story[] = plan.storyDay === null ? [] : [stockSyncLocks, thinPriceList, droppedCalls].map((story) => story(plan.storyDay!));
  const world: World = { sink, random: random.fork('flows'), faultRate: plan.faultRate, stories, pool: new SessionPool(random.fork('pool')), numbers: new Numbers() };
  const arrivals = random.fork('arrivals');
  const recent: string[] = [];
  const server = newSession(771, plan.stretches[0]!.from - 40 * DAY, '', '');
  for (const stretch of plan.stretches) {
    const minutes = stretch.hours * 60;
    const busyOf = stretch.hours < 24 ? () => 1 : (at: Micros) => BUSY[hourOfDay(at)]!;
    const perMinute = { order: (stretch.records * 0.62) / RECORDS_OF_ORDER / minutes, call: (stretch.records * 0.14) / RECORDS_OF_CALL / minutes, noise: (stretch.records * 0.185) / minutes };
    for (let minute = 0; minute < minutes; minute++) {
      const from = stretch.from + minute * MINUTE;
      await sink.advance(from);
      const busy = busyOf(from);
      const starts: { at: Micros; run: (at: Micros) => void }[] = [];
      const add = (rate: number, run: (at: Micros) => void): void => {
        let count = Math.floor(rate);
        if (arrivals.chance(rate - count)) count++;
        for (let i = 0; i < count; i++) starts.push({ at: from + Math.floor(arrivals.next() * MINUTE), run });
      };
      add(perMinute.order * busy, (at) => {
        lensOrder(world, at);
        recent.push(`LX-${world.numbers.lastOrder}`);
        if (recent.length > 400) recent.splice(0, 200);
      });
      add(perMinute.call * busy, (at) => statusCall(world, at, recent.length > 30 ? world.random.pick(recent.slice(0, -20)) : 'LX-100001'));
      add(perMinute.noise * (0.5 + busy / 2), (at) => noise(world, at, server));
      if (Math.round((from / MINUTE) % 60) === 30) starts.push({ at: from, run: (at) => priceListJob(world, at) });
      if (Math.round((from / MINUTE) % 30) === 6) starts.push({ at: from, run: (at) => stockSyncJob(world, at) });
      starts.sort((a, b) => a.at - b.at);
      for (const { at, run } of starts) run(at);
      if (minute % 60 === 0) progress(sink.records);
    }
  }
  await sink.end();
  return { records: sink.records, strands: sink.strands };
}

/** A plan for any number of hours and records, beginning on the day before the demo's first. */
export const freePlan = (out: string, seed: number, hours: number, records: number, faultRate: number): Plan => ({
  out, seed, faultRate, storyDay: null, stretches: [{ from: FULL_DAY - Math.ceil(hours / 24) * 24 * HOUR, hours, records }],
});
