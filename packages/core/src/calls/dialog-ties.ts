import type { Duration, Microseconds } from '../units.ts';
import type { Dialog } from './dialogs.ts';

/** By what two dialogs are told to be of one call. */
export type TiedBy = 'session' | 'header' | 'records' | 'numbers';
export interface KnownDialog extends Dialog {
  key: number;
}
/** Two dialogs of one call, by their keys, the smaller one first; `sure` from 0 to 1. */
export interface DialogTie {
  a: number;
  b: number;
  how: TiedBy;
  sure: number;
}

/** How sure each way is: what a standard or a program says, then what agrees. */
const SURE = { session: 0.99, header: 0.98, records: 0.95, bothNumbers: 0.9, oneNumber: 0.8 } as const;
/** Clocks of two places differ by this at most where only numbers and time tell, and what is passed on goes out so soon. */
const APART: Duration = 10_000_000;
const PASSED_ON: Duration = 5_000_000;
/** What somebody who stands between passes on reaches the other side so soon: times of both sides are alike within it, and a thousandth of them. */
const ALIKE: Duration = 250_000;
/** With one number alone many may be ringing at once: then within this, and somebody has talked for a while. */
const CLOSELY_ALIKE: Duration = 60_000;
const A_WHILE: Duration = 3_000_000;
/** What is passed on takes as long each time, within this; so many have to tell how far clocks are apart. */
const STEADY: Duration = 300_000;
const FEWEST = 5;
/** Who names more than so many dialogs counts them, and passes none on. */
const MOST_NAMED = 4;

/**
 * Which dialogs are of one call: by a session identifier that both bear, by a header of one that names the other, by records that name both, or by numbers and
 * time, where exactly one fits.
 *
 * @param together pairs of keys that records name together, or that one link names
 */
export function dialogTies(dialogs: readonly KnownDialog[], together: readonly (readonly [number, number])[]): DialogTie[] {
  const ties = new Map<string, DialogTie>();
  const add = (one: KnownDialog, other: KnownDialog, how: TiedBy, sure: number): void => {
    if (one.key === other.key) return;
    const [a, b] = one.key < other.key ? [one.key, other.key] : [other.key, one.key];
    const known = ties.get(`${a} ${b}`);
    if (!known || known.sure < sure) ties.set(`${a} ${b}`, { a, b, how, sure });
  };
  const bySession = new Map<string, KnownDialog>();
  const byCallId = new Map(dialogs.map((one) => [one.callId, one]));
  const byKey = new Map(dialogs.map((one) => [one.key, one]));
  for (const one of dialogs) {
    for (const session of one.sessions) {
      const first = bySession.get(session);
      if (first) add(first, one, 'session', SURE.session);
      else bySession.set(session, one);
    }
    for (const name of one.names) {
      const other = byCallId.get(name);
      if (other) add(one, other, 'header', SURE.header);
    }
  }
  const partners = new Map<number, Set<number>>();
  for (const [a, b] of together)
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      const known = partners.get(x);
      if (known) known.add(y);
      else partners.set(x, new Set([y]));
    }
  for (const [a, b] of together) {
    const [one, other] = [byKey.get(a), byKey.get(b)];
    if (!one || !other || partners.get(a)!.size > MOST_NAMED || partners.get(b)!.size > MOST_NAMED) continue;
    if (overlap(one, other, APART) && numbersShared(one, other) > 0) add(one, other, 'records', SURE.records);
  }
  const pairs = [...ties.values()].map(({ a, b }): Pair => [byKey.get(a)!, byKey.get(b)!]);
  const told = new Set(pairs.flat());
  const untold = dialogs.filter((dialog) => !told.has(dialog));
  for (const [one, other] of passedOn(untold, pairs)) add(one, other, 'numbers', numbersShared(one, other) === 2 ? SURE.bothNumbers : SURE.oneNumber);
  return [...ties.values()].sort((x, y) => x.a - y.a || x.b - y.b);
}

/** Pairs of which each is the only one that fits the other; first as far as clocks may be apart, then as far as those pairs, and others that are known, tell that they are. */
function passedOn(dialogs: readonly KnownDialog[], known: readonly Pair[]): Pair[] {
  const fitting = fittingPairs(dialogs);
  const sure = onlyOnes(fitting);
  const apart = clocksApart([...known, ...sure]);
  const left = new Set(sure.flat());
  const near = fitting.filter(([one, other]) => {
    const usual = apart.get(placesOf(one, other));
    return usual !== undefined && !left.has(one) && !left.has(other) && Math.abs(laterBy(one, other) - usual) <= STEADY;
  });
  // one that was the only fit and comes at quite another time than all others is none
  const steady = sure.filter(([one, other]) => Math.abs(laterBy(one, other) - (apart.get(placesOf(one, other)) ?? laterBy(one, other))) <= STEADY);
  return [...steady, ...onlyOnes(near)];
}
type Pair = [KnownDialog, KnownDialog];
function fittingPairs(dialogs: readonly KnownDialog[]): Pair[] {
  const sorted = [...dialogs].sort((x, y) => x.at - y.at || x.key - y.key);
  const pairs: Pair[] = [];
  sorted.forEach((one, i) => {
    for (let j = i + 1; j < sorted.length && sorted[j]!.at - one.at <= APART; j++) if (isPassedOn(one, sorted[j]!)) pairs.push([one, sorted[j]!]);
  });
  return pairs;
}
function onlyOnes(pairs: readonly Pair[]): Pair[] {
  const times = new Map<KnownDialog, number>();
  for (const one of pairs.flat()) times.set(one, (times.get(one) ?? 0) + 1);
  return pairs.filter(([one, other]) => times.get(one) === 1 && times.get(other) === 1);
}
/** The places of two dialogs, in an order that does not depend on whose clock is ahead. */
const placesOf = (...pair: Pair): string => pair.map(placeOf).sort().join('\n\n');
const placeOf = ({ places }: KnownDialog): string => places.join('\n');
/** By how much the one at the place that comes later in that order is later. */
const laterBy = (one: KnownDialog, other: KnownDialog): Duration => (placeOf(one) <= placeOf(other) ? other.at - one.at : one.at - other.at);
/** By how much clocks of two places are apart, where enough pairs of them agree. */
function clocksApart(pairs: readonly Pair[]): Map<string, Duration> {
  const told = new Map<string, Duration[]>();
  for (const pair of pairs) told.set(placesOf(...pair), [...(told.get(placesOf(...pair)) ?? []), laterBy(...pair)]);
  const apart = new Map<string, Duration>();
  for (const [places, times] of told) {
    times.sort((x, y) => x - y);
    const middle = times[Math.floor(times.length / 2)]!;
    const agreeing = times.filter((time) => Math.abs(time - middle) <= STEADY).length;
    if (times.length >= FEWEST && agreeing >= times.length * 0.8) apart.set(places, middle);
  }
  return apart;
}
/** Whether the second may be what somebody between made of the first: the same answer after the same ringing, the same talk. */
function isPassedOn(first: KnownDialog, second: KnownDialog): boolean {
  const shared = numbersShared(first, second);
  if (shared === 0 || first.status !== second.status) return false;
  // who stands between sends by himself: what one device sent twice are two calls
  if (first.sender === second.sender) return false;
  const slack = shared === 2 ? ALIKE : CLOSELY_ALIKE;
  if (!isAlike(first.ringing, second.ringing, slack) || !isAlike(first.talking, second.talking, slack)) return false;
  if (shared === 1 && (first.talking === null || first.talking < A_WHILE || first.ringing === null)) return false;
  // whoever calls again does so when the first try is over: where one place sees both, the second lies within the first
  const oneClock = first.places.some((place) => second.places.includes(place));
  return !oneClock || (second.at - first.at <= PASSED_ON && second.at < first.until);
}
const isAlike = (one: Duration | null, other: Duration | null, slack: Duration): boolean =>
  one === null || other === null ? one === other : Math.abs(one - other) <= slack + Math.max(one, other) / 1000;
const overlap = (one: KnownDialog, other: KnownDialog, slack: Microseconds): boolean =>
  one.at <= other.until + slack && other.at <= one.until + slack;
/** Of caller and called, how many both name: 0 to 2. */
function numbersShared(one: KnownDialog, other: KnownDialog): number {
  const isShared = (x: string, y: string): boolean => x === y && x !== '' && x !== 'anonymous';
  return (isShared(one.caller, other.caller) ? 1 : 0) + (isShared(one.called, other.called) ? 1 : 0);
}
