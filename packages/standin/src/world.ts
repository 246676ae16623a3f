import { newSession, type Session } from './components/labdb.ts';
import type { Story } from './stories/story.ts';
import type { Random } from './writing/random.ts';
import type { Sink } from './writing/sink.ts';
import { HOUR, type Micros } from './writing/times.ts';

/** All that flows share while the lens works run. */
export interface World {
  sink: Sink;
  random: Random;
  /** Share of strands that fail for everyday reasons, besides the stories. */
  faultRate: number;
  stories: readonly Story[];
  pool: SessionPool;
  numbers: Numbers;
}

/** Running numbers of orders, messages and job runs. */
export class Numbers {
  private order: number;
  private claim = 400;
  /** Behind the numbers that the stories use for their runs, so that none is given twice. */
  private readonly runs: Record<string, number> = { PL: 423, SS: 7_731, IE: 300, FC: 40 };
  constructor(firstOrder = 101_000) {
    this.order = firstOrder;
  }
  nextOrder(): string {
    this.order++;
    return `LX-${this.order}`;
  }
  nextClaim(): string {
    this.claim++;
    return `RC-${String(this.claim).padStart(5, '0')}`;
  }
  get lastOrder(): number {
    return this.order;
  }
  nextRun(prefix: string): string {
    this.runs[prefix] = (this.runs[prefix] ?? 0) + 1;
    return `${prefix}-${String(this.runs[prefix]).padStart(4, '0')}`;
  }
}

/** Database sessions of blank-store: each is used by one order after another. */
export class SessionPool {
  private readonly sessions: { session: Session; busyUntil: Micros }[] = [];
  private nextPid = 5_480;
  constructor(private readonly random: Random) {}

  /** A session that is free at `at` and stays taken until `until`. */
  take(at: Micros, until: Micros): Session {
    let free = this.sessions.find((entry) => entry.busyUntil < at);
    if (!free) {
      free = { session: this.open(at - (this.random.whole(1, 40) * HOUR) / 10, 'labapp', 'blank-store'), busyUntil: 0 };
      this.sessions.push(free);
    }
    free.busyUntil = until;
    return free.session;
  }

  open(at: Micros, user: string, application: string): Session {
    this.nextPid += this.random.whole(1, 9);
    return newSession(this.nextPid, Math.floor(at), user, application);
  }
}

export const SHOPS = Array.from({ length: 60 }, (_, i) => String(((i * 37) % 420) + 11).padStart(4, '0'));
export const MATERIALS = ['1.50/65', '1.50/70', '1.60/65', '1.60/70', '1.60/75', '1.67/70', '1.67/75', '1.74/70'];
