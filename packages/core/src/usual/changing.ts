import type { StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import { FEWEST_LEGS } from './following-on.ts';
import type { Usual } from './index-of.ts';
import { awayFromTheRest, medianOf, ranksOf, SURE } from './ranks.ts';
import type { LocalSlots, Case } from './regularly.ts';
import type { ChangedUsual } from './types.ts';

/** An incident that lasts a day or two is no new normal. */
const FEWEST_DAYS = 3;
/** On so many of the days since it has to be so. */
const MOST_DAYS = 0.75;
/** What else changed with it. */
const MOST_TOLD = 5;

interface Series {
  what: ChangedUsual['what'];
  component: string | null;
  text: string | null;
  cases: Case[];
}

/**
 * Whether a flow has changed for good at a moment: from then on until the end, over three days at least, a wait, the whole or what is said lies otherwise
 * than before, by ranks and so far that the middle of each side lies beyond nine of ten of the other.
 *
 * @param legs records of good legs, in order of time
 * @returns what changed, what changed most clearly first; all that did at that moment. Empty where nothing did
 */
export function changedForGood(legs: readonly (readonly StrandRecord[])[], usual: Usual, slots: LocalSlots): ChangedUsual[] {
  if (legs.length < 2 * FEWEST_LEGS) return [];
  const sorted = [...legs].sort((a, b) => a[0]!.at - b[0]!.at);
  const since = slots.day(sorted[sorted.length - 1]![0]!.at) - slots.day(sorted[0]![0]!.at);
  if (since < FEWEST_DAYS) return [];
  const found = seriesOf(sorted, usual)
    .flatMap((one) => splitOf(one, slots) ?? [])
    .sort((a, b) => b.away - a.away);
  const [first] = found;
  if (!first) return [];
  return found
    .filter(({ told, lastBefore }) => told.at >= first.lastBefore && lastBefore <= first.told.at)
    .slice(0, MOST_TOLD)
    .map(({ told }) => ({ ...told, at: first.told.at }));
}

function seriesOf(legs: readonly (readonly StrandRecord[])[], usual: Usual): Series[] {
  const { sayings } = usual.of;
  const whole: Series = { what: 'whole', component: null, text: null, cases: [] };
  // what fewer say is the middle of neither side
  const enough = sayings.flatMap(({ legs: of }, place) => (of >= FEWEST_LEGS / 2 ? [place] : []));
  const there = sayings.map(({ component, text }): Series => ({ what: 'there', component, text, cases: [] }));
  const waits = sayings.map(({ component, text }): Series => ({ what: 'wait', component, text, cases: [] }));
  for (const records of legs) {
    const begin = records[0]!.at;
    whole.cases.push({ at: begin, value: records[records.length - 1]!.at - begin });
    const first = new Map<number, Microseconds>();
    for (const record of records) {
      const place = usual.placeOf(record);
      if (place >= 0 && !first.has(place)) first.set(place, record.at);
    }
    for (const place of enough) {
      const { after } = sayings[place]!;
      const at = first.get(place);
      there[place]!.cases.push({ at: begin, value: at === undefined ? 0 : 1 });
      const from = after && first.get(after.saying);
      if (at !== undefined && from !== undefined && from !== null) waits[place]!.cases.push({ at: begin, value: Math.max(0, at - from) });
    }
  }
  return [whole, ...there, ...waits];
}

function splitOf({ what, component, text, cases }: Series, slots: LocalSlots) {
  const n = cases.length;
  if (n < 2 * FEWEST_LEGS) return null;
  const ranks = ranksOf(cases);
  let sum = 0;
  let best = { at: 0, away: SURE };
  for (let i = 1; i <= n - FEWEST_LEGS; i++) {
    sum += ranks.of[i - 1]!;
    if (i < FEWEST_LEGS) continue;
    const away = awayFromTheRest(i, sum, ranks);
    if (away > best.away) best = { at: i, away };
  }
  if (best.at === 0) return null;
  const [before, since] = [cases.slice(0, best.at), cases.slice(best.at)];
  const [low, high] = [tenths(before), tenths(since)];
  const isMore = high.middle > low.most && low.middle < high.least;
  if (!isMore && !(high.middle < low.least && low.middle > high.most)) return null;
  const days = new Map<number, number[]>();
  for (const { at, value } of since) {
    const own = days.get(slots.day(at));
    if (own) own.push(value);
    else days.set(slots.day(at), [value]);
  }
  const alike = [...days.values()].filter((own) => (isMore ? medianOf(own) > low.most : medianOf(own) < low.least));
  if (days.size < FEWEST_DAYS || alike.length < days.size * MOST_DAYS) return null;
  const told: ChangedUsual = { at: since[0]!.at, what, component, text, before: inOne(what, before), since: inOne(what, since) };
  return { told, away: best.away, lastBefore: before[before.length - 1]!.at };
}

function tenths(cases: readonly Case[]): { least: number; middle: number; most: number } {
  const sorted = Float64Array.from(cases, ({ value }) => value).sort();
  const at = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
  return { least: at(0.1), middle: at(0.5), most: at(0.9) };
}

const inOne = (what: ChangedUsual['what'], cases: readonly Case[]): number =>
  what === 'there' ? cases.reduce((sum, { value }) => sum + value, 0) / cases.length : medianOf(cases.map(({ value }) => value));
