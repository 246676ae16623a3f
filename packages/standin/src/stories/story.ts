import type { Micros } from '../writing/times.ts';

/** A fault of the full day with a documented right answer. Each story is a module of its own; flows ask them. */
export interface Story {
  number: number;
  title: string;
  /** The run of a job that this story changes. */
  job?(prefix: string, at: Micros): JobFault | null;
  /** What happens to an order that reserves a blank at this moment. */
  reserve?(at: Micros, chance: number): ReserveFault | null;
  /** What happens to a call that begins at this moment. */
  call?(at: Micros, chance: number): 'dropped-after-transfer' | null;
}
export interface JobFault {
  story: number;
  run?: string;
  rows?: number;
  /** Holds row locks that long. */
  holds?: Micros;
}
export interface ReserveFault {
  story: number;
  kind: 'lock-timeout';
  holderPid: number;
  xid: number;
}
