import { writeFile } from 'node:fs/promises';
import { Random } from '../writing/random.ts';
import { Sink } from '../writing/sink.ts';
import { HOUR, MINUTE, MS, SECOND, type Micros } from '../writing/times.ts';
import { booking, calledBack, lookedUp, someHut } from './booking.ts';
import { VERSION_FROM } from './faults.ts';
import { feed } from './feed.ts';
import { ARCHIVE, archiveLine, LOCKS, LOCKS_HEAD, locksLine, NOTIFIER, notifierLine, PAY, RESERVE, reserveLine, WEB, webLine } from './lines.ts';
import { Office, type Asked } from './office.ts';

/** The bookings of mountain huts: a second world, for tests and the bench alone, so that nothing fits just one. Writes the logs below `out/logs` and the truth beside them. */
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
  const huts = new Huts(new Office(sink, new Random(seed), faultRate, (at) => aheadAt(clock, at)), start, hours);
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
  private readonly awaited: Asked[] = [];

  constructor(
    private readonly office: Office,
    private readonly start: Micros,
    private readonly hours: number,
  ) {
    const { sink } = office;
    sink.emit(LOCKS, start - 1, LOCKS_HEAD);
    const main = (at: Micros, instance: 'a' | 'b', text: string): void =>
      sink.emit(RESERVE[instance], at, reserveLine(at, 'INFO', 'main', 'core.Main', text));
    for (const instance of ['a', 'b'] as const) main(start, instance, `reserve 2.3.1 starts, instance ${instance}`);
    if (office.faultRate > 0) main(start + VERSION_FROM * hours * HOUR, 'b', 'reserve 2.4.0 starts, instance b');
  }

  produce(from: Micros, rate: number): void {
    const { office } = this;
    const { random } = office;
    const starts: { at: Micros; run: (at: Micros) => void }[] = [];
    const add = (count: number, run: (at: Micros) => void): void => {
      for (let left = count; left > 0; left--)
        if (left >= 1 || random.chance(left)) starts.push({ at: from + Math.floor(random.next() * MINUTE), run });
    };
    add(rate, (at) => this.book(at));
    add(rate * 9, (at) => this.noise(at));
    if (Math.floor(from / MINUTE) % 10 === 0) starts.push({ at: from + SECOND, run: (at) => feed(office, at, `WF-${++this.feeds}`) });
    for (let i = this.awaited.findIndex((one) => one.at < from + MINUTE); i >= 0; i = this.awaited.findIndex((one) => one.at < from + MINUTE)) {
      const [one] = this.awaited.splice(i, 1);
      starts.push({ at: Math.max(from, one!.at), run: (at) => this.later(at, one!) });
    }
    for (const { at, run } of starts.sort((a, b) => a.at - b.at)) run(at);
  }

  /** Nobody asks any more. */
  end(): void {
    for (const { open } of this.awaited.splice(0)) this.office.sink.close(open);
  }

  private book(at: Micros): void {
    const id = `HB-${String(++this.booked).padStart(6, '0')}`;
    const asked = booking(this.office, at, id, (at - this.start) / (this.hours * HOUR), this.start + this.hours * HOUR);
    if (asked) this.awaited.push(asked);
  }

  /** Hours behind the booking; its truth is closed when nothing more comes. */
  private later(at: Micros, one: Asked): void {
    (one.what === 'looked up' ? lookedUp : calledBack)(this.office, at, one);
    if (one.then) this.awaited.push(one.then);
    else this.office.sink.close(one.open);
  }

  /** Lines that belong to nothing, some of them on the threads that work on bookings. */
  private noise(at: Micros): void {
    const { office } = this;
    const { random, sink } = office;
    const chance = random.next();
    if (chance < 0.33) sink.emit(WEB, at, webLine(at, 'debug', office.request(), 'page of a hut shown', { hut: someHut(office) }));
    else if (chance < 0.58)
      sink.emit(RESERVE[random.pick(['a', 'b'] as const)], at, reserveLine(at, 'DEBUG', `w-${random.whole(1, 12)}`, 'core.Idle', `waits for work, ${random.whole(0, 3)} in store`)); // prettier-ignore
    else if (chance < 0.78) sink.emit(PAY, at, office.paying(at, 'DEBUG', random.whole(810, 813), `state=alive queue=${random.whole(0, 4)}`));
    else if (chance < 0.88) sink.emit(NOTIFIER, at, notifierLine(at, 640, `${random.whole(0, 5)} letters wait`));
    else if (chance < 0.98) sink.emit(LOCKS, at, locksLine(at, 'DEBUG', random.whole(1, 40), '', 'battery checked'));
    else sink.emit(ARCHIVE, at + 20 * MS, archiveLine(at + 20 * MS, `L-${office.word(32, 7)}`, 'put on the shelf of closed books'));
  }
}
