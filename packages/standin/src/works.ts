import { newSession, type Session } from './components/labdb.ts';
import { priceListJob, stockSyncJob } from './flows/jobs.ts';
import { lensOrder } from './flows/lens-order.ts';
import { noise } from './flows/noise.ts';
import { recurring } from './flows/recurring.ts';
import { statusCall } from './flows/status-call.ts';
import { droppedCalls } from './stories/dropped-calls.ts';
import { stockSyncLocks } from './stories/stock-sync-locks.ts';
import { thinPriceList } from './stories/thin-price-list.ts';
import { Numbers, SessionPool, type World } from './world.ts';
import { Random } from './writing/random.ts';
import { Sink } from './writing/sink.ts';
import { DAY, MINUTE, type Micros } from './writing/times.ts';

const RECORDS_OF_ORDER = 44;
const RECORDS_OF_CALL = 18;
/** From so many records a minute on, what recurs is written too. */
const RECURS_FROM = 40;
const STORIES = [stockSyncLocks, thinPriceList, droppedCalls];

/** The lens works while they run: flows begin at random moments, jobs by the clock. The same for the past and for the live system. */
export class Works {
  readonly sink: Sink;
  private readonly world: World;
  private readonly arrivals: Random;
  private readonly regular: Random;
  private readonly recent: string[] = [];
  private readonly server: Session;

  /** @param storyDay local midnight of the day on which the stories happen, null for none */
  constructor(out: string, seed: number, faultRate: number, storyDay: Micros | null, begin: Micros, firstOrder?: number) {
    this.sink = new Sink(`${out}/logs`, `${out}/truth`);
    const random = new Random(seed);
    this.world = {
      sink: this.sink,
      random: random.fork('flows'),
      faultRate,
      stories: storyDay === null ? [] : STORIES.map((story) => story(storyDay)),
      pool: new SessionPool(random.fork('pool')),
      numbers: new Numbers(firstOrder),
    };
    this.arrivals = random.fork('arrivals');
    this.regular = random.fork('regular');
    this.server = newSession(771, begin - 40 * DAY, '', '');
  }

  /**
   * All that begins between `from` and `from + length`.
   *
   * @param perMinute records a minute on the average of the day
   * @param busy how busy this time of day is, 1 on the average
   */
  produce(from: Micros, length: Micros, perMinute: number, busy: number): void {
    const { world, arrivals, recent } = this;
    const share = (length / MINUTE) * perMinute;
    const starts: { at: Micros; run: (at: Micros) => void }[] = [];
    const add = (rate: number, run: (at: Micros) => void): void => {
      let count = Math.floor(rate);
      if (arrivals.chance(rate - count)) count++;
      for (let i = 0; i < count; i++) starts.push({ at: from + Math.floor(arrivals.next() * length), run });
    };
    add(((share * 0.62) / RECORDS_OF_ORDER) * busy, (at) => {
      lensOrder(world, at);
      recent.push(`LX-${world.numbers.lastOrder}`);
      if (recent.length > 400) recent.splice(0, 200);
    });
    add(((share * 0.14) / RECORDS_OF_CALL) * busy, (at) =>
      statusCall(world, at, recent.length > 30 ? world.random.pick(recent.slice(0, -20)) : 'LX-100001'),
    );
    add(share * 0.185 * (0.5 + busy / 2), (at) => noise(world, at, this.server));
    for (let minute = Math.ceil(from / MINUTE); minute * MINUTE < from + length; minute++) {
      if (perMinute >= RECURS_FROM) starts.push({ at: minute * MINUTE, run: (at) => recurring(world, this.regular, at) });
      if (minute % 60 === 30) starts.push({ at: minute * MINUTE, run: (at) => priceListJob(world, at) });
      if (minute % 30 === 6) starts.push({ at: minute * MINUTE, run: (at) => stockSyncJob(world, at) });
    }
    starts.sort((a, b) => a.at - b.at);
    for (const { at, run } of starts) run(at);
  }
}
