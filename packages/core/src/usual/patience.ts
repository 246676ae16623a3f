import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import type { Usual } from './index-of.ts';
import type { Usually } from './types.ts';
import { usually } from './robust.ts';

/** Silence that counts where nothing is declared and nothing learned yet. */
export const UNLEARNED: Duration = 600_000_000;
/** Sources are read in turn: what one has said may still be on its way while another one has gone on. */
const LEAST: Duration = 10_000_000;
/** Times what 99 of 100 take: with minutes and hours beside milliseconds the fences of a logarithmic scale lie days away. */
const BEYOND = 1.5;

/** How long good legs are silent at most before they go on. @param legs records of good legs, in order of time */
export function silenceOf(legs: readonly (readonly StrandRecord[])[]): Usually {
  return usually(
    legs.map((records) => {
      let most = 0;
      for (let i = 1; i < records.length; i++) most = Math.max(most, records[i]!.at - records[i - 1]!.at);
      return most;
    }),
  );
}

/**
 * The silence behind the last record of a leg after which it does not go on any more: what is declared; else how long good legs need at most for what nearly
 * always comes next; where nothing does, how long they are silent at most anywhere.
 *
 * @param declared in milliseconds, null to go by what is learned
 * @param usual null where nothing is learned yet
 */
export function patienceBehind(declared: number | null, usual: Usual | null, records: readonly StrandRecord[]): Duration {
  if (declared !== null) return declared * 1000;
  if (!usual) return UNLEARNED;
  const { of } = usual;
  const last = usual.sayingOf(records[records.length - 1]!);
  const there = new Set(usual.placesOf(records));
  const next = last?.then.filter(({ saying }) => !there.has(saying)) ?? [];
  if (next.length > 0) return Math.max(...next.map(({ wait }) => learnedPatience(wait)));
  return learnedPatience(of.silence);
}

/** The silence after which a leg of which nothing more is known does not go on. */
export const learnedPatience = ({ p99, times = [] }: Usually): Duration => Math.max(LEAST, BEYOND * p99, ...times.map((one) => BEYOND * one.p99));

/** Times what nine of ten take. */
const WELL_BEYOND = 3;
/** The same before anything is known but legs, good and bad ones: a few whose silence is that of another leg do not count. */
export const firstPatience = ({ p90 }: Usually): Duration => Math.max(LEAST, WELL_BEYOND * p90);
