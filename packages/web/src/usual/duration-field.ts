import { durationOf } from '@fadenweg/core/search';

/** A length of time as it is typed: `90 s`, `10 min`; '' for none. */
export function durationField(ms: number | null | undefined): string {
  if (ms === null || ms === undefined) return '';
  for (const [unit, length] of [['h', 3_600_000], ['min', 60_000], ['s', 1000]] as const) if (ms % length === 0) return `${ms / length} ${unit}`; // prettier-ignore
  return `${ms} ms`;
}
/** Milliseconds of what was typed, null for nothing, undefined for what is no length of time. */
export function typedDuration(text: string): number | null | undefined {
  if (text.trim() === '') return null;
  const us = durationOf(text);
  return us > 0 ? Math.round(us / 1000) : undefined;
}
