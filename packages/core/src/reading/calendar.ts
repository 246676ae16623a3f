import type { Microseconds } from '../units.ts';

/** Names of months, by their first letters in English, German, French, Spanish, Italian and Dutch; the number is the month from 1. */
const MONTHS: readonly [number, string][] = [
  [1, 'jan january januar jän jänner janv janvier ene enero gen gennaio januari'],
  [2, 'feb february februar fév févr février fev fevr fevrier febrero febbraio februari'],
  [3, 'mar march mär märz mrz mars marzo mrt maart'],
  [4, 'apr april avr avril abr abril aprile'],
  [5, 'may mai mayo mag maggio mei'],
  [6, 'jun june juni juin junio giu giugno'],
  [7, 'jul july juli juil juillet julio lug luglio'],
  [8, 'aug august août aout ago agosto augustus'],
  [9, 'sep sept september septembre septiembre set settembre'],
  [10, 'oct october okt oktober octobre octubre ott ottobre'],
  [11, 'nov november novembre noviembre'],
  [12, 'dec december dez dezember déc décembre decembre dic diciembre dicembre'],
];
const WEEKDAYS = [
  'mon monday tue tuesday tues wed wednesday thu thursday thurs fri friday sat saturday sun sunday',
  'mo montag di dienstag mi mittwoch do donnerstag fr freitag sa samstag sonnabend so sonntag',
  'lun lundi mar mardi mer mercredi jeu jeudi ven vendredi sam samedi dim dimanche',
  'lunes martes mié miércoles mie miercoles jue jueves vie viernes sáb sábado sab sabado dom domingo',
  'lunedì lunedi martedì martedi mercoledì mercoledi gio giovedì giovedi venerdì venerdi sabato domenica',
  'ma maandag dinsdag wo woensdag donderdag vr vrijdag za zaterdag zo zondag',
];
const MONTH_OF = new Map<string, number>();
for (const [month, names] of MONTHS) for (const name of names.split(' ')) MONTH_OF.set(name, month);
const WEEKDAY = new Set(WEEKDAYS.join(' ').split(' '));

/** The month from 1 that a word names, in any case and with or without a point; 0 for another word. */
export function monthOf(word: string): number {
  const known = MONTH_OF.get(word);
  if (known !== undefined) return known;
  const bare = word.toLowerCase();
  return MONTH_OF.get(bare.endsWith('.') ? bare.slice(0, -1) : bare) ?? 0;
}
export const isWeekday = (word: string): boolean => WEEKDAY.has(word.toLowerCase());

const DAYS_BEFORE = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334];

/** Days since 1970-01-01 of a date of the Gregorian calendar (month from 1). */
export function dayNumber(year: number, month: number, day: number): number {
  const y = month > 2 ? year : year - 1;
  const leaps = Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400) - 477;
  return (year - 1970) * 365 + leaps + DAYS_BEFORE[month - 1]! + day - 1;
}

/** How a date in numbers alone is to be read: 24/11/2026, 11/24/2026 or 26/11/24. */
export type DateOrder = 'day-first' | 'month-first' | 'year-first';

const NUMERIC = /(?<![\d./-])(\d{1,2})([/.-])(\d{1,2})\2(\d{4}|\d{2})(?=,? +\d{1,2}:\d\d|[T:]\d\d:\d\d)/g;
/** The same behind its clock. */
const BEHIND = /:\d\d(?:[.,]\d{1,9})? (\d{1,2})([/.-])(\d{1,2})\2(\d{4}|\d{2})(?!\d)/g;
/** Days after which a date is far from that of its file. */
const FAR = 400;
/** Month and day before a clock, without a year. */
const YEARLESS = /(?<![\d./:-])(\d{2})([/-])(\d{2})(?= \d\d:\d\d:\d\d)/g;

/**
 * The order of dates in numbers, by what all of them in a source allow: no month is above 12, no day above 31. Where that leaves a choice, dates
 * with points are day-first, and of the others those readings count that run on in small steps, then those that lie nearest to the source's date.
 *
 * @param modified when the source was last written, in microseconds
 * @returns null where there are no such dates; certain where no other order fits all of them
 */
export function dateOrderOf(text: string, modified: Microseconds): { order: DateOrder; certain: boolean } | null {
  const votes: Record<DateOrder, number> = { 'day-first': 0, 'month-first': 0, 'year-first': 0 };
  const steps: Record<DateOrder, number> = { 'day-first': 0, 'month-first': 0, 'year-first': 0 };
  const before: Record<DateOrder, number> = { 'day-first': NaN, 'month-first': NaN, 'year-first': NaN };
  let dates = 0;
  let points = 0;
  const year = String(new Date(modified / 1000).getUTCFullYear());
  const layout = [NUMERIC, BEHIND].find((one) => text.search(one) >= 0) ?? YEARLESS;
  for (const [, first, separator, second, third = year] of text.matchAll(layout)) {
    const [a, b, c] = [Number(first), Number(second), Number(third)];
    dates++;
    if (separator === '.') points++;
    const full = c < 100 ? 2000 + c : c;
    for (const [order, y, m, d] of [
      ['day-first', full, b, a],
      ['month-first', full, a, b],
      ['year-first', 2000 + a, b, c],
    ] as const) {
      if (m < 1 || m > 12 || d < 1 || d > 31 || (order === 'year-first' && third.length === 4)) continue;
      votes[order]++;
      const day = dayNumber(y, m, d);
      if (day !== before[order]) steps[order] += Number.isNaN(before[order]) ? 0 : Math.abs(day - before[order]);
      before[order] = day;
    }
  }
  if (dates === 0) return null;
  const most = Math.max(...Object.values(votes));
  const possible = (Object.keys(votes) as DateOrder[]).filter((order) => votes[order] === most);
  if (points > dates / 2 && possible.includes('day-first')) return { order: 'day-first', certain: true };
  const distance = (order: DateOrder): number => Math.abs(before[order] - modified / 86_400_000_000);
  const [order] = possible.sort((a, b) => steps[a] - steps[b] || distance(a) - distance(b));
  // a day and a month that are the same number are read alike either way
  // nor does an order count that leads years away from the date of the file, where this one does not
  const isFar = (one: DateOrder): boolean => distance(one) > FAR && distance(order!) <= FAR;
  return { order: order!, certain: possible.every((one) => one === order || before[one] === before[order!] || isFar(one)) };
}
export const dateOrder = (text: string, modified: Microseconds): DateOrder | null => dateOrderOf(text, modified)?.order ?? null;

/**
 * A moment whose date was read in one order, as it is in another.
 *
 * @returns NaN where that order makes no date of it
 */
export function readInOrder(at: Microseconds, read: DateOrder, other: DateOrder): Microseconds {
  const date = new Date(at / 1000);
  const [y, m, d] = [date.getUTCFullYear() % 100, date.getUTCMonth() + 1, date.getUTCDate()];
  const [a, b, c] = read === 'day-first' ? [d, m, y] : read === 'month-first' ? [m, d, y] : [y, m, d];
  const [year, month, day] = other === 'day-first' ? [c, b, a] : other === 'month-first' ? [c, a, b] : [a, b, c];
  if (month < 1 || month > 12 || day < 1 || day > 31) return NaN;
  return dayNumber(2000 + year, month, day) * 86_400_000_000 + (at - dayNumber(date.getUTCFullYear(), m, d) * 86_400_000_000);
}
