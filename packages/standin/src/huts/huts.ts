import { writeFile } from 'node:fs/promises';
import { Random } from '../writing/random.ts';
import { Sink, type OpenTruth } from '../writing/sink.ts';
import { HOUR, MINUTE, MS, SECOND, type Micros } from '../writing/times.ts';
import {
  LEDGER,
  ledgerLine,
  LOCKS,
  LOCKS_HEAD,
  locksLine,
  NOTIFIER,
  notifierLine,
  PAY,
  payLine,
  RESERVE,
  reserveLine,
  WEATHER,
  weatherLine,
  WEB,
  webLine,
} from './lines.ts';

/**
 * The bookings of mountain huts: a second world, for tests and the bench alone, so that nothing fits just one. Only bookings and feed runs are
 * declared; request numbers, payment references, queue names and session numbers tie the rest, and nobody says so.
 */
export const HUT_KINDS = [
  {
    name: 'booking',
    label: 'booking',
    role: 'business',
    patterns: ['\\b[Hh][Bb]-?\\d{6}\\b'],
    fields: [],
    normal: { case: 'upper', separators: 'drop', leadingZeros: 'keep', phone: false },
    scope: 'global',
    leaseMs: null,
  },
  {
    name: 'feed-run',
    label: 'feed run',
    role: 'business',
    patterns: ['\\bWF-\\d{1,6}\\b'],
    fields: [],
    normal: { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false },
    scope: 'global',
    leaseMs: null,
  },
];
export const HUT_FLOWS = [
  { name: 'booking', label: 'booking', kind: 'booking', prefix: '', patienceMs: 600_000, expects: [] },
  { name: 'weather-feed', label: 'weather feed', kind: 'feed-run', prefix: '', patienceMs: 600_000, expects: [] },
];
export const HUT_MEANINGS = [
  { component: 'reserve', contains: 'is confirmed', means: 'done' },
  { component: 'reserve', contains: 'declined by the bank', means: 'refused' },
  { component: 'weather', contains: 'feed ended', means: 'done' },
];

const HUTS = ['Finsterkopf', 'Grauwand', 'Eisenjoch', 'Murmelboden', 'Windscharte'];
type Fate = 'done' | 'refused' | 'failed' | 'stalled' | 'retried';

/** Writes the logs below `out/logs` and the truth beside them. */
export async function generateHuts(
  out: string,
  seed: number,
  start: Micros,
  hours: number,
  bookings: number,
  faultRate: number,
): Promise<{ records: number; strands: number }> {
  const sink = new Sink(`${out}/logs`, `${out}/truth`, { [NOTIFIER]: SECOND });
  const clock = payClock(start, hours);
  const huts = new Huts(sink, new Random(seed), faultRate, start, (at) => aheadAt(clock, at));
  for (let minute = 0; minute < hours * 60; minute++) {
    const from = start + minute * MINUTE;
    await sink.advance(from);
    huts.produce(from, bookings / (hours * 60));
  }
  huts.end();
  await sink.end();
  await writeFile(`${out}/truth/clocks.json`, JSON.stringify([{ host: '', component: 'pay', spans: clock }]));
  return { records: sink.records, strands: sink.strands };
}

/** How far a clock really is ahead from a moment on: it gains evenly until the next. */
export interface TrueClock {
  from: Micros;
  ahead: Micros;
  /** Microseconds gained in each. */
  drift: number;
}
/** The clock of payments is ahead and gains; later somebody sets it nearly right. */
const payClock = (start: Micros, hours: number): TrueClock[] => [
  { from: start, ahead: 1.7 * SECOND, drift: 20e-6 },
  { from: start + 0.62 * hours * HOUR, ahead: 0.15 * SECOND, drift: 0 },
];
export function aheadAt(clock: readonly TrueClock[], at: Micros): Micros {
  const span = [...clock].reverse().find((one) => one.from <= at) ?? clock[0]!;
  return span.ahead + span.drift * (at - span.from);
}

class Huts {
  private booked = 4_700;
  private feeds = 0;
  private readonly awaited: { at: Micros; id: string; open: OpenTruth }[] = [];
  private readonly sessions = new Array<Micros>(40).fill(0);
  private readonly queues = new Array<Micros>(64).fill(0);
  private readonly threads = new Array<Micros>(12).fill(0);

  constructor(
    private readonly sink: Sink,
    private readonly random: Random,
    private readonly faultRate: number,
    start: Micros,
    private readonly payAhead: (at: Micros) => Micros,
  ) {
    sink.emit(LOCKS, start - 1, LOCKS_HEAD);
  }

  produce(from: Micros, rate: number): void {
    const { random } = this;
    const starts: { at: Micros; run: (at: Micros) => void }[] = [];
    const add = (count: number, run: (at: Micros) => void): void => {
      for (let left = count; left > 0; left--)
        if (left >= 1 || random.chance(left)) starts.push({ at: from + Math.floor(random.next() * MINUTE), run });
    };
    add(rate, (at) => this.booking(at));
    add(rate * 9, (at) => this.noise(at));
    if (Math.floor(from / MINUTE) % 10 === 0) starts.push({ at: from + SECOND, run: (at) => this.feed(at) });
    for (let i = this.awaited.findIndex((one) => one.at < from + MINUTE); i >= 0; i = this.awaited.findIndex((one) => one.at < from + MINUTE)) {
      const [one] = this.awaited.splice(i, 1);
      starts.push({ at: Math.max(from, one!.at), run: (at) => this.query(at, one!.id, one!.open) });
    }
    for (const { at, run } of starts.sort((a, b) => a.at - b.at)) run(at);
  }

  /** Nobody asks any more. */
  end(): void {
    for (const { open } of this.awaited.splice(0)) this.sink.close(open);
  }

  /** The first that is free; which is busy until then. */
  private take(pool: Micros[], at: Micros, until: Micros): number {
    const offset = this.random.whole(0, pool.length - 1);
    for (let i = 0; i < pool.length; i++) {
      const place = (i + offset) % pool.length;
      if (pool[place]! >= at) continue;
      pool[place] = until;
      return place + 1;
    }
    return offset + 1;
  }
  private request(): string {
    return `rq-${Math.floor(this.random.next() * 2 ** 40).toString(36).padStart(8, '0')}`; // prettier-ignore
  }

  private booking(start: Micros): void {
    const { random, sink } = this;
    const id = `HB-${String(++this.booked).padStart(6, '0')}`;
    const chance = random.next() / this.faultRate;
    const fate: Fate = chance < 0.25 ? 'refused' : chance < 0.5 ? 'failed' : chance < 0.7 ? 'stalled' : chance < 1 ? 'retried' : 'done';
    const request = this.request();
    const open = sink.open({
      flow: 'booking',
      businessId: id.replace('-', ''),
      startedAt: start,
      story: null,
      outcome: fate === 'retried' ? 'done' : fate,
      identifiers: [{ kind: 'booking', value: id.replace('-', '') }],
      attributes: {},
      cause: null,
      course: { legs: 1, attempts: { pay: fate === 'retried' ? 2 : 1 }, parallel: [] },
    });
    const guests = random.whole(1, 6);
    sink.emit(WEB, start, webLine(start, 'info', request, `booking ${id} asked for`, { hut: random.pick(HUTS), guests }), open);
    const thread = `w-${this.take(this.threads, start, start + 4 * SECOND)}`;
    let at = start + random.around(4 * MS);
    const say = (level: string, logger: string, message: string, cause = false): void =>
      sink.emit(RESERVE, at, reserveLine(at, level, thread, logger, message), open, cause);
    say('INFO', 'core.Door', `${request} taken up`);
    at += random.around(3 * MS);
    say('DEBUG', 'core.Beds', `${random.whole(2, 40)} beds free on that night`);
    at += random.around(5 * MS);
    say('INFO', 'core.Reserve', `${request} holds ${guests} beds for ${id}`);
    at += random.around(2 * MS);
    const paid = this.pay(open, request, at, fate);
    if (fate === 'stalled') {
      open.truth.cause = { failedIn: 'pay', component: 'pay', record: null, accepted: ['reserve'] };
      return sink.close(open);
    }
    at = paid + random.around(4 * MS);
    if (fate === 'refused') {
      say('WARN', 'core.Reserve', `${request} for ${id} declined by the bank`, true);
      open.truth.cause = { failedIn: 'reserve', component: 'reserve', record: null, accepted: ['pay'] };
    } else if (fate === 'failed') {
      say('ERROR', 'core.Reserve', `${request} beds of ${id} could not be written: version 4 expected, 5 found`, true);
      open.truth.cause = { failedIn: 'reserve', component: 'reserve', record: null, accepted: [] };
    } else {
      say('DEBUG', 'core.Beds', `${random.whole(2, 40)} beds free on that night`);
      at += random.around(3 * MS);
      say('INFO', 'core.Reserve', `${request} booking ${id} is confirmed`);
      const entry = `L-${Math.floor(random.next() * 2 ** 32).toString(36).padStart(7, '0')}`; // prettier-ignore
      at += random.around(MS);
      say('INFO', 'core.Reserve', `${request} hands entry ${entry} to the ledger`);
      const [key, booked] = [this.key(open, id, at), this.book(open, entry, at)];
      if (key.from < booked.to && booked.from < key.to) open.truth.course!.parallel.push('locks', 'ledger');
      this.mail(open, id, at);
      if (random.chance(0.3)) this.awaited.push({ at: at + HOUR * (0.3 + 3 * random.next()), id, open });
    }
    at += random.around(4 * MS);
    sink.emit(WEB, at, webLine(at, fate === 'failed' ? 'error' : 'info', request, `answered with ${fate === 'failed' ? 500 : 200}`), open);
    if (!this.awaited.some((one) => one.open === open)) sink.close(open);
  }

  private paying(at: Micros, level: string, pid: number, rest: string): string {
    return payLine(Math.floor(at + this.payAhead(at)), level, pid, rest);
  }

  /** The bank: a reference of its own; now and then it has to be asked twice. Returns when it answered. */
  private pay(open: OpenTruth, request: string, from: Micros, fate: Fate): Micros {
    const { random, sink } = this;
    const pid = random.whole(810, 813);
    let at = from;
    for (let attempt = fate === 'retried' ? 1 : 2; attempt <= 2; attempt++) {
      const reference = `PR${Math.floor(random.next() * 2 ** 36).toString(36).toUpperCase().padStart(7, '0')}`; // prettier-ignore
      at += random.around(6 * MS);
      sink.emit(
        PAY,
        at,
        this.paying(at, 'INFO', pid, `ref=${reference} rq=${request} state=asked amount=${random.whole(30, 400)}.00`),
        open,
        fate === 'stalled',
      );
      if (fate === 'stalled') return at;
      const took = random.around(240 * MS);
      at += took;
      const state = attempt === 1 ? 'timeout' : fate === 'refused' ? 'declined' : 'approved';
      sink.emit(
        PAY,
        at,
        this.paying(at, attempt === 1 ? 'WARN' : 'INFO', pid, `ref=${reference} state=${state} took=${Math.round(took / MS)}ms`),
        open,
      );
      at += attempt === 1 ? 400 * MS : 0;
    }
    return at + random.around(3 * MS);
  }

  /** The door of the hut: spelled without its hyphen, under a short session number. Returns from when to when. */
  private key(open: OpenTruth, id: string, from: Micros): { from: Micros; to: Micros } {
    const { random, sink } = this;
    const begin = from + random.around(40 * MS);
    let at = begin;
    const session = this.take(this.sessions, at, at + 5 * SECOND);
    const plain = id.replace('-', '');
    sink.emit(LOCKS, at, locksLine(at, 'INFO', session, plain, 'code asked for'), open);
    at += random.around(80 * MS);
    sink.emit(LOCKS, at, locksLine(at, 'INFO', session, plain, `code written to lock ${random.whole(1, 9)}`), open);
    return { from: begin, to: at };
  }
  /** The ledger knows its entry alone; it writes while the code is still on its way to the lock. Returns from when to when. */
  private book(open: OpenTruth, entry: string, from: Micros): { from: Micros; to: Micros } {
    const { random, sink } = this;
    const begin = from + random.around(55 * MS);
    sink.emit(LEDGER, begin, ledgerLine(begin, entry, `taken into book ${random.whole(1, 4)}`), open);
    const end = begin + random.around(90 * MS);
    sink.emit(LEDGER, end, ledgerLine(end, entry, 'balanced'), open);
    return { from: begin, to: end };
  }
  /** A letter: spelled in small letters, under the name of its place in the queue. */
  private mail(open: OpenTruth, id: string, from: Micros): void {
    const { random, sink } = this;
    let at = from + random.around(60 * MS);
    const queue = `q${(this.take(this.queues, at, at + 20 * SECOND) * 2477 + 0x1000).toString(16).toUpperCase()}`;
    sink.emit(NOTIFIER, at, notifierLine(at, 640, `${queue} letter for ${id.toLowerCase()} queued`), open);
    at += SECOND + random.around(2 * SECOND);
    sink.emit(NOTIFIER, at, notifierLine(at, 640, `letter for ${id.toLowerCase()} sent, ${queue} free`), open);
  }

  /** Hours later somebody asks how the booking stands: a request of its own, of the same strand. */
  private query(start: Micros, id: string, open: OpenTruth): void {
    const { random, sink } = this;
    const request = this.request();
    const thread = `w-${this.take(this.threads, start, start + SECOND)}`;
    open.truth.course!.legs++;
    sink.emit(WEB, start, webLine(start, 'info', request, `booking ${id} looked up`), open);
    let at = start + random.around(4 * MS);
    sink.emit(RESERVE, at, reserveLine(at, 'INFO', thread, 'core.Door', `${request} taken up`), open);
    at += random.around(4 * MS);
    sink.emit(RESERVE, at, reserveLine(at, 'INFO', thread, 'core.Reserve', `${request} tells how ${id} stands`), open);
    at += random.around(4 * MS);
    sink.emit(WEB, at, webLine(at, 'info', request, 'answered with 200'), open);
    sink.close(open);
  }

  private feed(start: Micros): void {
    const { random, sink } = this;
    const run = `WF-${++this.feeds}`;
    const open = sink.open({ flow: 'weather-feed', businessId: run, startedAt: start, story: null, outcome: 'done', identifiers: [{ kind: 'feed-run', value: run }], attributes: {}, cause: null }); // prettier-ignore
    let at = start;
    sink.emit(WEATHER, at, weatherLine(at, 'info', run, 'feed begins'), open);
    at += random.around(2 * SECOND);
    sink.emit(WEATHER, at, weatherLine(at, 'info', run, 'stations read', ` stations=${random.whole(205, 214)}`), open);
    at += random.around(SECOND);
    sink.emit(WEATHER, at, weatherLine(at, 'info', run, 'feed ended', ` took=${Math.round((at - start) / MS)}ms`), open);
    sink.close(open);
  }

  /** Lines that belong to nothing, some of them on the threads that work on bookings. */
  private noise(at: Micros): void {
    const { random, sink } = this;
    const chance = random.next();
    if (chance < 0.35) sink.emit(WEB, at, webLine(at, 'debug', this.request(), 'page of a hut shown', { hut: random.pick(HUTS) }));
    else if (chance < 0.6)
      sink.emit(RESERVE, at, reserveLine(at, 'DEBUG', `w-${random.whole(1, 12)}`, 'core.Idle', `waits for work, ${random.whole(0, 3)} in store`)); // prettier-ignore
    else if (chance < 0.8) sink.emit(PAY, at, this.paying(at, 'DEBUG', random.whole(810, 813), `state=alive queue=${random.whole(0, 4)}`));
    else if (chance < 0.9) sink.emit(NOTIFIER, at, notifierLine(at, 640, `${random.whole(0, 5)} letters wait`));
    else sink.emit(LOCKS, at, locksLine(at, 'DEBUG', random.whole(1, 40), '', 'battery checked'));
  }
}
