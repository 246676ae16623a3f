import type { Random } from '../writing/random.ts';
import type { OpenTruth, Sink } from '../writing/sink.ts';
import { SECOND, type Micros } from '../writing/times.ts';
import { payLine } from './lines.ts';

export type Instance = 'a' | 'b';
/** All that the flows of the booking office share while it works. */
export class Office {
  private readonly sessions = new Array<Micros>(40).fill(0);
  private readonly queues = new Array<Micros>(64).fill(0);
  private readonly threads = { a: new Array<Micros>(12).fill(0), b: new Array<Micros>(12).fill(0) };

  constructor(
    readonly sink: Sink,
    readonly random: Random,
    readonly faultRate: number,
    private readonly payAhead: (at: Micros) => Micros,
  ) {}

  thread(instance: Instance, at: Micros, until: Micros): string {
    return `w-${this.take(this.threads[instance], at, until)}`;
  }
  session(at: Micros): number {
    return this.take(this.sessions, at, at + 5 * SECOND);
  }
  queue(at: Micros): string {
    return `q${(this.take(this.queues, at, at + 20 * SECOND) * 2477 + 0x1000).toString(16).toUpperCase()}`;
  }
  request(): string {
    return `rq-${this.word(40, 8)}`;
  }
  /** So many random bits, in letters and digits. */
  word(bits: number, length: number): string {
    return Math.floor(this.random.next() * 2 ** bits)
      .toString(36)
      .padStart(length, '0');
  }
  paying(at: Micros, level: string, pid: number, rest: string): string {
    return payLine(Math.floor(at + this.payAhead(at)), level, pid, rest);
  }
  /** Nobody else has it until then. */
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
}

/** A booking about which somebody asks later. */
/** What comes of a booking hours later. */
export interface Asked {
  at: Micros;
  what: 'looked up' | 'called back';
  id: string;
  open: OpenTruth;
  /** What comes behind it. */
  then: Asked | null;
}
