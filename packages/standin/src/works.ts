import { newSession, type Session } from './components/labdb.ts';
import { frameCatalogueJob, invoiceExportJob, priceListJob, stockSyncJob } from './flows/jobs.ts';
import { lensOrder } from './flows/lens-order.ts';
import { noise } from './flows/noise.ts';
import { orderFile } from './flows/order-file.ts';
import { recurring } from './flows/recurring.ts';
import { remakeClaim } from './flows/remake-claim.ts';
import { storyCall } from './flows/story-call.ts';
import { statusCall } from './flows/status-call.ts';
import { storiesOf } from './stories/index.ts';
import type { Line } from './stories/story.ts';
import { Numbers, SessionPool, type World } from './world.ts';
import { Random } from './writing/random.ts';
import { Sink } from './writing/sink.ts';
import { DAY, MINUTE, type Micros } from './writing/times.ts';

const RECORDS_OF_ORDER = 44;
const RECORDS_OF_CALL = 18;
/** From so many records a minute on, what recurs is written too. */
const RECURS_FROM = 40;
const RECORDS_OF_CLAIM = 12;
/** When files of orders arrive, in minutes of the hour from midnight UTC, about. */
const FILES_AT = [8 * 60 + 40, 13 * 60 + 40];

/** The lens works while they run: flows begin at random moments, jobs by the clock. The same for the past and for the live system. */
export class Works {
  readonly sink: Sink;
  private readonly world: World;
  private readonly arrivals: Random;
  private readonly regular: Random;
  private readonly claims: Random;
  private lines: readonly Line[];
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
      stories: storyDay === null ? [] : storiesOf(storyDay),
      pool: new SessionPool(random.fork('pool')),
      numbers: new Numbers(firstOrder),
    };
    this.lines = this.world.stories.flatMap((story) => story.lines ?? []);
    this.claims = random.fork('claims');
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
      if (minute % 30 === 20) starts.push({ at: minute * MINUTE, run: (at) => invoiceExportJob(world, at) });
      if (minute % 720 === 15) starts.push({ at: minute * MINUTE, run: (at) => frameCatalogueJob(world, at) });
      if (FILES_AT.includes(minute % 1440))
        starts.push({ at: minute * MINUTE, run: (at) => orderFile(world, at, perMinute >= RECURS_FROM ? 12 : 2) });
      if (minute % 60 === 30) starts.push({ at: minute * MINUTE, run: (at) => priceListJob(world, at) });
      if (minute % 30 === 6) starts.push({ at: minute * MINUTE, run: (at) => stockSyncJob(world, at) });
    }
    const claims = ((share * 0.008) / RECORDS_OF_CLAIM) * busy;
    for (let i = 0; i < Math.floor(claims) + Number(this.claims.chance(claims % 1)); i++) {
      const of = recent.length > 30 ? this.claims.pick(recent) : 'LX-100001';
      starts.push({ at: from + Math.floor(this.claims.next() * length), run: (at) => remakeClaim(world, at, of) });
    }
    for (const { number, calls = [] } of world.stories)
      for (const { at, course } of calls) if (at >= from && at < from + length) starts.push({ at, run: (when) => storyCall(world, number, when, course) }); // prettier-ignore
    for (const { at, path, text } of this.lines) if (at < from + length) world.sink.emit(path, Math.max(at, from), text);
    this.lines = this.lines.filter((line) => line.at >= from + length);
    starts.sort((a, b) => a.at - b.at);
    for (const { at, run } of starts) run(at);
  }
}
