import type { Duration } from '../units.ts';
import type { Fields } from './types.ts';

const UNIT: Record<string, number> = {
  us: 1,
  µs: 1,
  usec: 1,
  micros: 1,
  ms: 1000,
  msec: 1000,
  millis: 1000,
  s: 1_000_000,
  sec: 1_000_000,
  secs: 1_000_000,
  seconds: 1_000_000,
  min: 60_000_000,
  m: 60_000_000,
  ns: 0.001,
};
const STATED = /\b(?:took|in|after|duration:?|elapsed:?|within)[ =:]+(\d+(?:[.,]\d+)?) ?(ms|us|µs|msec|s|sec|seconds|min)\b/;
/** Field names that state how long the record's own work took, with the unit that a bare number has. */
const BARE: Record<string, number> = {
  took: 1000,
  duration: 1000,
  elapsed: 1000,
  latency: 1000,
  rt: 1_000_000,
  reqtime: 1_000_000,
  request_time: 1_000_000,
  query_time: 1_000_000,
  durationmillis: 1000,
  duration_millis: 1000,
  elapsedmillis: 1000,
  elapsed_millis: 1000,
  response_time: 1000,
  tookms: 1000,
  durationms: 1000,
  elapsedms: 1000,
  duration_ms: 1000,
  elapsed_ms: 1000,
  took_ms: 1000,
  time_ms: 1000,
  latency_ms: 1000,
  duration_us: 1,
  duration_s: 1_000_000,
  took_s: 1_000_000,
};

/** The duration that a text states about itself ("took 812 ms", "duration: 2.913 ms"), NaN where there is none. */
export function tookOfText(text: string): Duration {
  if (!text.includes('s') && !text.includes('min')) return NaN;
  const hit = STATED.exec(text);
  return hit ? Math.round(Number(hit[1]!.replace(',', '.')) * UNIT[hit[2]!]!) : NaN;
}

/** Unit of a field by its name as written, 0 for one that states no duration; names repeat from record to record. */
const unitOf = new Map<string, number>();

/** The duration that a record's fields state, NaN where there is none. */
export function tookOfFields(fields: Fields): Duration {
  for (const name in fields) {
    let unit = unitOf.get(name);
    if (unit === undefined) {
      const last = name.slice(name.lastIndexOf('.') + 1).toLowerCase();
      unit = Object.hasOwn(BARE, last) ? BARE[last]! : 0;
      if (unitOf.size < 5000) unitOf.set(name, unit);
    }
    if (unit === 0) continue;
    const value = fields[name]!;
    if (typeof value === 'number') return Math.round(value * unit);
    const hit = typeof value === 'string' ? /^(\d+(?:\.\d+)?) ?([a-zµ]*)$/.exec(value) : null;
    if (hit) return Math.round(Number(hit[1]) * (hit[2] ? (UNIT[hit[2]] ?? NaN) : unit));
  }
  return NaN;
}
