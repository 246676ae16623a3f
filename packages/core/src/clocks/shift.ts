import type { Duration, Microseconds } from '../units.ts';
import type { ClockSpan } from './types.ts';

/**
 * What has to be added to a time that a clock wrote. Before the first span and behind the last one these go on without drifting further.
 *
 * @param spans in order of time; none for a clock that is right
 */
export function shiftAt(spans: readonly ClockSpan[], at: Microseconds): Duration {
  if (spans.length === 0) return 0;
  let span = spans[0]!;
  for (let i = 1; i < spans.length && spans[i]!.from <= at; i++) span = spans[i]!;
  const within = Math.min(Math.max(at, span.from), Math.max(span.from, span.to));
  return 0 - Math.round(span.ahead + span.drift * (within - span.from));
}

/** Whether anything is to be corrected. */
export const isAmiss = (spans: readonly ClockSpan[]): boolean => spans.some((span) => span.ahead !== 0 || span.drift !== 0);
