import type { Level } from '../units.ts';
import { WEIGHTS, type Weight, type WeightName } from './words.ts';

/** What a level weighs by itself: none, trace, debug, info, warning, error, fatal. */
const OF_LEVEL: readonly Weight[] = [0, 0, 0, 0, 1, 2, 3];
/** What a program says only for those who write it weighs this at most. */
const OF_DETAIL: Weight = 1;
const DEBUG = 2;

/** The weight that a word names, -1 for none. */
export const weightIndex = (text: string): number => (WEIGHTS as readonly string[]).indexOf(text.toLowerCase());
export const weightName = (weight: number): WeightName => WEIGHTS[weight]!;

/** What a record weighs: by its level, and by its words, which count like a level; of detail words count little. */
export function weightOf(level: Level | number, words: Weight): Weight {
  const own = OF_LEVEL[level]!;
  const said = level > 0 && level <= DEBUG && words > OF_DETAIL ? OF_DETAIL : words;
  return said > own ? said : own;
}

/** In the marks of a record its weight stands behind their bits. */
const SHIFT = 11;
export const weightInMarks = (marks: number): Weight => ((marks >> SHIFT) & 3) as Weight;
export const withWeight = (marks: number, weight: Weight): number => (marks & ~(3 << SHIFT)) | (weight << SHIFT);
/** The same for a column of the database. */
export const weightSql = (column: string): string => `((${column} >> ${SHIFT}) & 3)`;

/** What outcomes weigh at least. */
const OF_OUTCOME: Readonly<Record<string, Weight>> = { failed: 2, stalled: 2, odd: 1, doubled: 1, slow: 1, refused: 1 };
/** A strand: by its outcome, and by the gravest of its records, which weighs a step less where it ended well all the same. */
export function weightOfStrand(outcome: string, gravest: Weight): Weight {
  const own = OF_OUTCOME[outcome] ?? 0;
  const told = own >= 2 || outcome === 'running' || outcome === 'out-of-sight' ? gravest : Math.max(0, gravest - 1);
  return Math.max(own, told) as Weight;
}

/** A fault: as the gravest strand that failed by it; errors that strands go on from all the same are notable, those of no strand serious. */
export const weightOfFault = ({ gravest, unharmed, apart }: { gravest: Weight | null; unharmed: number; apart: number }): Weight =>
  gravest ?? (unharmed > 0 && apart === 0 ? 1 : 2);

/** Of how many strands that pass it more than this share, and three times that of all others, fail: it is serious whatever it says. */
const TELLING = 0.5;
const TIMES = 3;
const FEWEST = 5;
/** A shape: by its level and words; what its strands end with makes it serious, and what is new and tells of trouble is a step graver. */
export function weightOfShape(
  said: Weight,
  { isNew, strands }: { isNew: boolean; strands?: { failed: number; all: number; usual: number } },
): Weight {
  const ends =
    strands && strands.all >= FEWEST && strands.failed / strands.all >= TELLING && strands.failed / strands.all >= TIMES * strands.usual ? 2 : 0;
  const base = Math.max(said, ends);
  return Math.min(3, isNew && base >= 1 ? base + 1 : base) as Weight;
}
