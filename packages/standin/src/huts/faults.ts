import type { Random } from '../writing/random.ts';
import type { OpenTruth } from '../writing/sink.ts';
import { HOUR, type Micros } from '../writing/times.ts';

/** What becomes of a booking when something happens to it, with its documented right answer. */
interface Answer {
  outcome: string;
  /** Null where nothing is wrong. */
  cause: { failedIn: string; component: string; accepted: string[] } | null;
}
const at = (component: string, ...accepted: string[]): Answer['cause'] => ({ failedIn: component, component, accepted });

/** Kinds of faults of bookings; those that are done must distract nobody. */
export const FAULTS = {
  refused: { outcome: 'refused', cause: at('reserve', 'pay') },
  conflict: { outcome: 'failed', cause: at('reserve') },
  'bank silent': { outcome: 'stalled', cause: at('pay', 'reserve') },
  'tried again': { outcome: 'done', cause: null },
  'given up': { outcome: 'failed', cause: { failedIn: 'reserve', component: 'pay', accepted: ['reserve'] } },
  'bank slow': { outcome: 'slow', cause: at('pay') },
  'transfer never comes': { outcome: 'stalled', cause: at('pay') },
  'lost before the ledger': { outcome: 'stalled', cause: at('reserve', 'ledger') },
  'lost in the ledger': { outcome: 'stalled', cause: at('ledger') },
  'branch failed': { outcome: 'failed', cause: at('ledger') },
  astray: { outcome: 'stalled', cause: at('archive', 'reserve') },
  doubled: { outcome: 'doubled', cause: at('reserve', 'ledger') },
  'delivered again': { outcome: 'done', cause: null },
  'no connection': { outcome: 'failed', cause: at('reserve') },
  'new version': { outcome: 'failed', cause: at('reserve') },
  'queue at the door': { outcome: 'slow', cause: at('reserve', 'booking-web') },
  'slow client': { outcome: 'slow', cause: at('booking-web') },
  restart: { outcome: 'stalled', cause: at('reserve') },
  'never called back': { outcome: 'stalled', cause: at('notifier', 'booking-web', 'reserve', 'locks', 'ledger') },
  harmless: { outcome: 'done', cause: null },
} satisfies Record<string, Answer>;
export type Fault = keyof typeof FAULTS;

/** Happens to single bookings, by weight; the others happen at their time of the day. */
const SINGLE: readonly (readonly [Fault, number])[] = [
  ['refused', 16],
  ['conflict', 8],
  ['bank silent', 8],
  ['tried again', 16],
  ['given up', 6],
  ['bank slow', 6],
  ['transfer never comes', 6],
  ['lost before the ledger', 6],
  ['lost in the ledger', 6],
  ['branch failed', 6],
  ['astray', 5],
  ['doubled', 5],
  ['delivered again', 8],
  ['slow client', 6],
  ['restart', 4],
  ['never called back', 6],
  ['harmless', 16],
];
const ALL = SINGLE.reduce((sum, [, weight]) => sum + weight, 0);
/** Shares of the day: no connection is free twice, the door is crowded once, the new version stays. */
const CROWDED = { from: 0.3, to: 0.31 };
const EXHAUSTED = [
  { from: 0.45, to: 0.46 },
  { from: 0.8, to: 0.805 },
];
/** Within this time the hut calls back; only then is it known that it did not. */
const CALLED_BACK = 6 * HOUR;
export const VERSION_FROM = 0.6;
/** The hut that the new version of the second instance does not know. */
export const UNKNOWN_HUT = 'Eisenjoch';

/**
 * What happens to a booking.
 *
 * @param through the share of the time that has passed, 0 to 1
 * @param left time that is left of the day
 */
export function faultOf(random: Random, rate: number, through: number, hut: string, instance: string, left: Micros): Fault | null {
  const chance = random.next();
  const within = ({ from, to }: { from: number; to: number }): boolean => through >= from && through < to;
  if (within(CROWDED) && rate > 0) return 'queue at the door';
  if (EXHAUSTED.some(within) && chance < 10 * rate) return 'no connection';
  if (through >= VERSION_FROM && instance === 'b' && hut === UNKNOWN_HUT && rate > 0) return 'new version';
  let share = (chance / rate) * ALL;
  for (const [fault, weight] of SINGLE) if ((share -= weight) < 0) return fault === 'never called back' && left < CALLED_BACK ? null : fault;
  return null;
}

/** Who should have spoken next, where something never came. */
const NEXT: Partial<Record<string, readonly string[]>> = {
  'bank silent': ['pay', 'reserve'],
  'transfer never comes': ['pay', 'reserve'],
  'lost before the ledger': ['ledger'],
  'lost in the ledger': ['ledger'],
  astray: ['ledger'],
  restart: ['reserve', 'pay'],
  'never called back': ['booking-web'],
  stuck: ['weather'],
};

/** Writes the right answer into the truth. */
export function answer({ truth }: OpenTruth, kind: string, { outcome, cause }: Answer): void {
  const next = NEXT[kind];
  Object.assign(truth, { kind, outcome, cause: cause && { ...cause, record: null }, ...(next && { next }) });
}

/** What becomes of a run of the weather feed. */
export const FEED_FAULTS = {
  'too small': { outcome: 'odd', cause: at('weather') },
  overrun: { outcome: 'slow', cause: at('weather') },
  stuck: { outcome: 'stalled', cause: at('weather') },
  'feed broken': { outcome: 'failed', cause: at('weather') },
} satisfies Record<string, Answer>;
export type FeedFault = keyof typeof FEED_FAULTS;
export const feedFaultOf = (random: Random, rate: number): FeedFault | null =>
  random.chance(rate) ? random.pick(Object.keys(FEED_FAULTS) as FeedFault[]) : null;
