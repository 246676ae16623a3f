import type { HostClock } from '@fadenweg/api';
import { durationWords } from '@fadenweg/core/findings';

export const STATES: Record<HostClock['state'], string> = {
  right: 'right',
  corrected: 'off, put right',
  set: 'set by hand',
  unbounded: 'not known',
};

export const nameOf = ({ host, component }: { host: string; component: string }): string => host || component;
const words = (ms: number): string => durationWords(Math.round(Math.abs(ms) * 1000));
/** `2.90 s`, `−40 ms` for a clock that is behind, `0`. */
export const signed = (ms: number): string => (Math.abs(ms) < 0.0005 ? '0' : `${ms < 0 ? '−' : ''}${words(ms)}`);

/** By the latest stretch. */
export function aheadWords({ stretches, state }: HostClock): string {
  const last = stretches.at(-1);
  if (!last) return '';
  return state === 'right' ? '0' : signed(last.aheadMs);
}
export function withinWords({ stretches, state }: HostClock): string {
  const last = stretches.at(-1);
  return !last || state === 'set' ? '' : words(Math.max(last.withinMs, 1));
}
export function driftWords({ stretches }: HostClock): string {
  const drift = stretches.at(-1)?.driftMsPerHour ?? 0;
  return Math.abs(drift) < 0.1 ? '' : `${drift.toFixed(1).replace('-', '−')} ms an hour`;
}
