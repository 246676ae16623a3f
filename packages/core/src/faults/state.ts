import type { VersionSpan } from '../changes/index.ts';
import type { Microseconds } from '../units.ts';

export const FAULT_STATES = ['new', 'in-hand', 'mended', 'tolerated', 'returned'] as const;
export type FaultState = (typeof FAULT_STATES)[number];

/** The last that was said of a fault. */
export interface FaultSaid {
  state: 'new' | 'in-hand' | 'mended' | 'tolerated';
  /** Mended since then, or, where a version is named, as soon as that one runs. */
  since: Microseconds | null;
  version: string;
  /** Tolerated until then; null for good. */
  until: Microseconds | null;
}

/**
 * The state of a fault: what was said of it last, as long as it holds. One that was mended returns by an instance that runs the mended version or one that came after it; one of an older version that goes on
 * is none. What was tolerated until a day is new again after it.
 *
 * @param at when it occurred, and on which hosts, in any order; null host where it is not known
 * @param spans versions of its component, host by host, in order of time
 */
export function faultState(
  said: FaultSaid | null,
  at: readonly { at: Microseconds; host: string }[],
  spans: readonly VersionSpan[],
  now: Microseconds,
): FaultState {
  if (said === null || said.state === 'new') return 'new';
  if (said.state === 'tolerated') return said.until !== null && said.until <= now ? 'new' : 'tolerated';
  if (said.state === 'in-hand') return 'in-hand';
  const returned = said.version === '' ? at.some((one) => one.at > (said.since ?? 0)) : at.some((one) => runsMended(one, said.version, spans));
  return returned ? 'returned' : 'mended';
}

/** Whether the mended version, or one that came after it, was in force where and when something occurred. */
function runsMended({ at, host }: { at: Microseconds; host: string }, version: string, spans: readonly VersionSpan[]): boolean {
  const first = Math.min(...spans.filter((one) => one.version === version).map((one) => one.from));
  const there = spans.filter((one) => one.host === '' || host === '' || one.host === host);
  const running = there.find((one) => at >= one.from && at < one.to);
  if (!running || !Number.isFinite(first) || at < first) return false;
  // going back to what ran before the mended one is no return
  return running.version === version || Math.min(...spans.filter((one) => one.version === running.version).map((one) => one.from)) >= first;
}
