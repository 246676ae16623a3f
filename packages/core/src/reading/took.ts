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
/** Words that name a duration in a field's name, wherever they stand in it; `time` does where one of these others stands beside it. */
const DURATION = new Set(['took', 'duration', 'dur', 'elapsed', 'latency', 'runtime', 'rt', 'reqtime']);
const TIME_OF = new Set([
  'response',
  'request',
  'req',
  'query',
  'exec',
  'execution',
  'processing',
  'process',
  'upstream',
  'run',
  'taken',
  'spent',
  'total',
  'ms',
]);
/** What names a unit in a field's name. */
const { min: _minimum, m: _letter, ...NAMED_UNITS } = UNIT; // in a name they mean something else as often
const UNIT_WORD: Record<string, number> = {
  ...NAMED_UNITS,
  milliseconds: 1000,
  microseconds: 1,
  micro: 1,
  nanos: 0.001,
  nanoseconds: 0.001,
  second: 1_000_000,
};
/** Where a name tells no unit, a bare number is in milliseconds, and in these in seconds: as web and database servers write them. */
const IN_SECONDS = new Set(['rt', 'reqtime', 'request time', 'query time', 'upstream response time']);

/** The unit of a bare number in a field of this name, 0 where the name tells of no duration. */
function unitOfName(name: string): number {
  const last = name.slice(name.lastIndexOf('.') + 1);
  const words = (
    last
      .replace(/([a-z\d])([A-Z])/g, '$1 $2')
      .toLowerCase()
      .match(/[a-zµ]+/g) ?? []
  ).flatMap(unglued);
  const told = words.some((word) => DURATION.has(word)) || (words.includes('time') && words.some((word) => TIME_OF.has(word)));
  if (!told) return 0;
  const unit = words.find((word) => Object.hasOwn(UNIT_WORD, word));
  return unit ? UNIT_WORD[unit]! : IN_SECONDS.has(words.join(' ')) ? 1_000_000 : 1000;
}
/** `durationms` is two words. */
function unglued(word: string): string[] {
  const hit = /^(took|duration|elapsed|latency|time)(ms|us|ns|s|sec|secs|millis|micros|nanos|seconds)$/.exec(word);
  return hit ? [hit[1]!, hit[2]!] : [word];
}

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
      unit = unitOfName(name);
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
