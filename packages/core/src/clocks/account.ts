import type { Duration, Microseconds } from '../units.ts';
import { isAmiss, shiftAt } from './shift.ts';
import type { ClockReading, ClockSpan } from './types.ts';

/** Accounts of a clock that differ by no more than this are alike, in microseconds. */
const ALIKE: Duration = 5000;
/** The moment of a step is known within a minute. */
const TURN: Duration = 60_000_000;

/**
 * What is known of a clock after a window was looked at anew: what was known stays outside of the window, cut at its ends; inside, what is known now
 * counts. Where the window alone says nothing, all stays.
 */
export function renewed(before: readonly ClockSpan[], now: readonly ClockSpan[], from: Microseconds, to: Microseconds): ClockSpan[] {
  if (now.length === 0) return [...before];
  const kept = before.flatMap((one) => {
    const behind = Math.max(one.from, to);
    return [
      ...(one.from < from ? [{ ...one, to: Math.min(one.to, from) }] : []),
      ...(one.to > to ? [{ ...one, from: behind, ahead: one.ahead + one.drift * (behind - one.from) }] : []),
    ];
  });
  return [...kept, ...now].sort((a, b) => a.from - b.from);
}

/** The same of readings, which are kept or replaced as a whole. */
export const renewedReadings = (
  before: readonly ClockReading[],
  now: readonly ClockReading[],
  from: Microseconds,
  to: Microseconds,
): ClockReading[] => [...before.filter((one) => one.to < from || one.from > to), ...now].sort((a, b) => a.from - b.from);

/** Whether two accounts of a clock say the same, as closely as they know it, at their ends and those of the readings. */
export function alike(a: readonly ClockSpan[], b: readonly ClockSpan[], readings: readonly ClockReading[]): boolean {
  if (!isAmiss(a) && !isAmiss(b)) return true;
  const close = Math.max(ALIKE, ...[...a, ...b].map((one) => one.within));
  return [...a, ...b, ...readings].every(({ from, to }) =>
    [from, to].every((at) => Math.abs(shiftAt(a, at) - shiftAt(b, at)) <= close || (isTurn(a, at) && isTurn(b, at))),
  );
}
/** Where both tell of a step, its moment is known no closer, and around it both are right. */
const isTurn = (spans: readonly ClockSpan[], at: Microseconds): boolean => spans.some((span, i) => i > 0 && Math.abs(span.from - at) <= TURN);
