import type { Outcome, RoundsCell, RoundsFlow } from '@fadenweg/api';
import { OUTCOME_WORDS, OUTCOMES } from '../glyphs/outcomes.ts';
import { count } from '../time/format.ts';

/** Of what is amiss in a cell that of which there is most; the gravest of equals. */
export function mostlyAmiss({ outcomes, departs }: RoundsCell): Outcome | null {
  if (departs?.kind === 'late') return 'slow';
  if (departs?.kind !== 'not-done') return null;
  const amiss = OUTCOMES.filter((one) => !['running', 'out-of-sight', 'done'].includes(one));
  return amiss.reduce<Outcome | null>((most, one) => ((outcomes[one] ?? 0) > (most === null ? 0 : (outcomes[most] ?? 0)) ? one : most), null);
}

/** What a cell shows: how many came, or what of them departs. */
export function cellText({ all, amiss, late, departs }: RoundsCell, seen: boolean): string {
  if (!seen) return '';
  if (departs?.kind === 'not-done') return `${count(amiss)} of ${count(all)}`;
  if (departs?.kind === 'late') return `${count(late)} of ${count(all)}`;
  return departs?.kind === 'none' && all === 0 ? 'none' : all === 0 ? '·' : count(all);
}

const share = (part: number): string =>
  part < 0.001 ? 'none' : part < 0.01 ? `${(part * 1000).toFixed(0)} in 1,000` : `${(part * 100).toFixed(part < 0.1 ? 1 : 0)} %`;
const many = (n: number): string => (n < 10 ? (Math.round(n * 10) / 10).toLocaleString('en') : count(Math.round(n)));

/** The same in full, for those who hear it, and as the tip of the cell. */
export function cellWords(cell: RoundsCell, seen: boolean): string {
  if (!seen) return 'nothing was collected then';
  const { all, outcomes, amiss, late, expected, departs } = cell;
  const ended = OUTCOMES.filter((one) => (outcomes[one] ?? 0) > 0).map((one) => `${count(outcomes[one]!)} ${OUTCOME_WORDS[one]}`);
  const came = all === 0 ? 'none came' : `${count(all)} came: ${ended.join(', ')}`;
  const usual = expected === null ? '' : `; usually ${many(expected)}`;
  if (!departs) return came + usual;
  if (departs.kind === 'not-done') return `${came}${usual}. Departs: ${count(amiss)} not done, usually ${share(departs.usual)}`;
  if (departs.kind === 'late')
    return `${came}${usual}. Departs: ${count(late)} took longer than nineteen of twenty usually do, usually ${share(departs.usual)}`;
  return `${came}${usual}. Departs: ${departs.kind === 'none' ? 'none came' : departs.kind === 'fewer' ? 'fewer than usual' : 'more than usual'}`;
}

/** What stands below a column's name. */
export function usualText({ usual, known }: Pick<RoundsFlow, 'usual' | 'known'>, slot: string): string {
  if (usual === null) return known === 0 ? 'nothing earlier' : 'too few to say';
  return usual < 0.5 ? `usually none / ${slot}` : `usual ${many(usual)} / ${slot}`;
}

/** How long a slot is, in a word. */
export function slotWord(ms: number): string {
  const minutes = ms / 60_000;
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 1440) return minutes === 60 ? 'h' : `${minutes / 60} h`;
  return minutes === 1440 ? 'day' : `${minutes / 1440} days`;
}

/** So dense are the stitches of a cell: long gaps where many are late. */
export const stitches = ({ all, late }: RoundsCell): string => `5 ${2.5 + 16 * (all === 0 ? 0 : Math.min(1, late / all))}`;
