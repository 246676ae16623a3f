/** Microseconds since 1970-01-01T00:00:00Z. Whole numbers; a double holds them exactly until the year 2255. */
export type Microseconds = number;
/** A length of time in microseconds. */
export type Duration = number;
/** 64 bits as two signed 32-bit halves, written as a signed decimal where text is needed. */
export type KeyText = string;

/** Levels of detail and gravity, ordered; 0 where the source states none. */
export const LEVELS = ['none', 'trace', 'debug', 'info', 'warning', 'error', 'fatal'] as const;
export type LevelName = (typeof LEVELS)[number];
/** Index into LEVELS. */
export type Level = 0 | 1 | 2 | 3 | 4 | 5 | 6;

/** ISO 8601 text in UTC with microseconds, e.g. `2026-11-24T09:41:58.912345Z`. */
export function isoMicros(at: Microseconds): string {
  const ms = Math.floor(at / 1000);
  const rest = at - ms * 1000;
  return new Date(ms).toISOString().slice(0, -1) + String(rest).padStart(3, '0') + 'Z';
}
