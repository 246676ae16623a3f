/** Times of the made-up world: microseconds since 1970, UTC. */
export type Micros = number;
export const MS = 1000;
export const SECOND = 1_000_000;
export const MINUTE = 60 * SECOND;
export const HOUR = 60 * MINUTE;
export const DAY = 24 * HOUR;
export const ZONE = 'Europe/Berlin';

const format = new Intl.DateTimeFormat('en-US', {
  timeZone: ZONE,
  hourCycle: 'h23',
  year: 'numeric',
  month: 'numeric',
  day: 'numeric',
  hour: 'numeric',
  minute: 'numeric',
});
const offsets = new Map<number, number>();

/** Hours that local time is ahead of UTC at an instant. */
export function localOffset(at: Micros): number {
  const slot = Math.floor(at / HOUR);
  let offset = offsets.get(slot);
  if (offset === undefined) {
    const part: Record<string, number> = {};
    const ms = slot * 3_600_000;
    for (const { type, value } of format.formatToParts(ms)) part[type] = Number(value);
    offset = (Date.UTC(part.year!, part.month! - 1, part.day!, part.hour!, part.minute!) - ms) / 3_600_000;
    offsets.set(slot, offset);
  }
  return offset;
}

/** Instant of a local wall-clock time. */
export function localTime(year: number, month: number, day: number, hour = 0, minute = 0, second = 0): Micros {
  const local = Date.UTC(year, month - 1, day, hour, minute, second) * MS;
  return local - localOffset(local - HOUR) * HOUR;
}

let minuteSlot = NaN;
let minuteText = '';
let minuteDate = '';
function prepare(at: Micros): number {
  const slot = Math.floor(at / MINUTE);
  if (slot !== minuteSlot) {
    const iso = new Date(slot * 60_000).toISOString();
    minuteSlot = slot;
    minuteDate = iso.slice(0, 10);
    minuteText = iso.slice(11, 17);
  }
  return Math.floor(at - slot * MINUTE);
}
const two = (n: number): string => (n < 10 ? '0' + n : String(n));
const three = (n: number): string => (n < 10 ? '00' + n : n < 100 ? '0' + n : String(n));

/** `2026-11-24T09:41:58.912` in UTC; the separator between date and time, and the decimal point, can be chosen. */
export function utcText(at: Micros, separator = 'T', point = '.', digits: 3 | 6 = 3): string {
  const micros = prepare(at);
  const second = Math.floor(micros / SECOND);
  const rest = micros - second * SECOND;
  const fraction = digits === 3 ? three(Math.floor(rest / MS)) : String(rest).padStart(6, '0');
  return minuteDate + separator + minuteText + two(second) + point + fraction;
}
/** The same in local time. */
export const localText = (at: Micros, separator = ' ', point = '.', digits: 3 | 6 = 3): string =>
  utcText(at + localOffset(at) * HOUR, separator, point, digits);
/** `24.11.2026 10:41:58.912` in local time. */
export function germanText(at: Micros): string {
  const text = localText(at);
  return `${text.slice(8, 10)}.${text.slice(5, 7)}.${text.slice(0, 4)}${text.slice(10)}`;
}
/** `+01:00` */
export const offsetText = (at: Micros, colon = ':'): string => `+${two(localOffset(at))}${colon}00`;
export const hourOfDay = (at: Micros): number => Math.floor((at / HOUR + localOffset(at)) % 24);
