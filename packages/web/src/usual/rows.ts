import type { FlowUsual, UsualSpan } from '@fadenweg/api';
import { ms } from '../strands/duration-text.ts';
import { count as number } from '../time/format.ts';

/** Height of a row, in pixels. */
export const ROW = 24;

export interface UsualRow {
  component: string;
  text: string;
  traits: string;
  share: number;
  most: number;
  /** After what comes closest before it. */
  medianMs: number | null;
  p99Ms: number | null;
  /** Numbers that it states, from the least to the most. */
  volumes: { least: number; most: number }[];
  /** What is regularly otherwise at some hours or weekdays. */
  otherwise: string[];
  /** Of the other strands, the share that has it. */
  badShare: number;
}

/** The rows of a usual path: what at least this share of the good strands has, in the order in which it usually comes. */
export function rowsOf(usual: FlowUsual, leastShare: number): { rows: UsualRow[]; lanes: string[] } {
  const rows = usual.sayings
    .filter((one) => one.legs >= usual.legs * leastShare)
    .map(({ component, text, traits, legs, bad, most, after, volumes }) => ({
      component,
      text,
      // those that do not stand in its words
      traits: traits
        .split(' ')
        .filter((trait) => !text.includes(trait))
        .join(' '),
      share: legs / usual.legs,
      most,
      medianMs: after && after.medianMs,
      p99Ms: after && after.p99Ms,
      volumes,
      otherwise: [
        ...(after?.times ?? []).map((one) => `${spanWords(one)}: ${ms(one.medianMs)}`),
        ...volumes.flatMap(({ times }) => times.map((one) => `${spanWords(one)}: ${rangeWords(one)}`)),
      ],
      badShare: usual.bad === 0 ? 0 : bad / usual.bad,
    }));
  return { rows, lanes: [...new Set(rows.map((row) => row.component))] };
}

/** Numbers from the least to the most. */
export const rangeWords = ({ least, most }: { least: number; most: number }): string => (least === most ? number(least) : `${number(least)} to ${number(most)}`); // prettier-ignore
/** What changed for good, in words. */
export function changeWords({ what, component, text, before, since }: FlowUsual['changed'][number]): string {
  if (what === 'whole') return `it takes ${ms(since)} instead of ${ms(before)}`;
  if (what === 'wait') return `${component} says “${text}” after ${ms(since)} instead of ${ms(before)}`;
  return `${component} says “${text}” in ${shareWords(since)} of those that went well instead of ${shareWords(before)}`;
}
const DAYS = ['Sundays', 'Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays'];
/** Hours or weekdays in words: `02:00–04:00`, `Fridays to Sundays`. */
export function spanWords({ by, from, count }: Pick<UsualSpan, 'by' | 'from' | 'count'>): string {
  const hour = (of: number): string => `${String(of % 24).padStart(2, '0')}:00`;
  if (by === 'hour') return `${hour(from)}–${hour(from + count)}`;
  return count === 1 ? DAYS[from]! : `${DAYS[from]!} to ${DAYS[(from + count - 1) % 7]!}`;
}

/** Where a time stands on a scale that grows by factors, 0 for the least and 1 for the most. */
export function place(time: number, least: number, most: number): number {
  if (!(most > least)) return 0;
  return Math.max(0, Math.min(1, Math.log(Math.max(time, least) / least) / Math.log(most / least)));
}

/** A share in words: never 100 % of what is not all, nor 0 % of what there is. */
export function shareWords(share: number): string {
  if (share >= 1) return 'all';
  if (share === 0) return 'none';
  if (share > 0.995) return '> 99 %';
  return share < 0.01 ? '< 1 %' : `${Math.round(share * 100)} %`;
}
