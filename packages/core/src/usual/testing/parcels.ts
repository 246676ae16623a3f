import { MARK } from '../../path/marks.ts';
import type { StrandRecord } from '../../path/types.ts';
import { Usual } from '../index-of.ts';
import { learnUsual } from '../learn.ts';
import { dice, lessons, said } from './legs.ts';

/** What becomes of a parcel. */
export interface Fate {
  start?: number;
  /** How far the stamp gets: it is not asked at all, it only begins, another one is asked, or it is asked twice. */
  stamp?: 'lost' | 'begun' | 'elsewhere' | 'twice' | 'again after an error';
  /** The desk has the parcel confirmed at all. */
  confirmed?: boolean;
}
let numbers = 0;

/** A made-up flow with work behind its end: a desk confirms a parcel and hands it to the stamp under a number of its own; meanwhile a clerk notes it. */
export function parcel(random: () => number, { start = Math.floor(random() * 1e9), stamp, confirmed = true }: Fate = {}): StrandRecord[] {
  const own = ++numbers * 100;
  const spread = (median: number): number => median * (0.8 + 0.4 * random());
  const records = [said(start, 'desk', `parcel ${start} taken`, { keys: [own] })];
  let at = start + spread(20);
  if (!confirmed) return records;
  records.push(said(at, 'desk', `parcel ${start} is confirmed`, { keys: [own], marks: MARK.done }));
  const times = stamp === 'twice' || stamp === 'again after an error' ? 2 : 1;
  for (let time = 1; time <= times; time++) {
    const key = own + time;
    records.push(said((at += spread(3)), 'desk', `handed on as ${key}`, { keys: [own, key] }));
    if (stamp === 'elsewhere') records.push(said(at + spread(30), 'cellar', `kept ${key}`, { keys: [key] }));
    else if (stamp !== 'lost') {
      records.push(said(at + spread(30), 'stamp', `stamping ${key}`, { keys: [key] }));
      if (stamp === 'again after an error' && time === 1)
        records.push(said(at + spread(60), 'stamp', `ink of ${key} is dry`, { keys: [key], level: 5 }));
      else if (stamp !== 'begun') records.push(said(at + spread(60), 'stamp', `stamped ${key}`, { keys: [key] }));
    }
    at += times > 1 ? 100 : 0;
  }
  records.push(said(at + spread(400), 'clerk', `parcel ${start} noted`, { keys: [own] }));
  return records.sort((a, b) => a.at - b.at);
}

/** What is usual for so many good parcels, and some others that look good by their end. */
export function parcelsUsual(count: number, others: readonly Fate[] = []): Usual {
  const random = dice(11);
  const legs = [...Array.from({ length: count }, () => parcel(random)), ...others.map((fate) => parcel(random, fate))];
  return new Usual(learnUsual('parcels', lessons(legs))!);
}
