import type { Outcome } from '../path/types.ts';
import type { Saying } from './types.ts';
import type { Usual } from './index-of.ts';

/** What a flow says in so many of its good legs belongs to it wherever it stands. */
const MOSTLY = 0.5;

/**
 * The flow whose good legs begin as a strand does that has no number of its own: it failed before it got one. Of several the one of which more do. Where none begins like it, the one that mostly says
 * the same somewhere: what a door tells when all is over stands at the end of good ones, and alone of those that it turned away.
 *
 * @param usual what is usual, by the name of the flow
 * @param first its first record
 * @returns null where no flow is known that does
 */
export function flowBeginning(usual: ReadonlyMap<string, Usual>, first: Pick<Saying, 'component' | 'shape'>): string | null {
  const isIt = ({ component, shape }: Pick<Saying, 'component' | 'shape'>): boolean => component === first.component && shape === first.shape;
  const best = (shareIn: (of: Usual['of']) => number, least: number): string | null => {
    let found: { flow: string; share: number } | null = null;
    for (const [flow, { of }] of usual) {
      const share = shareIn(of);
      if (share > least && share > (found?.share ?? 0)) found = { flow, share };
    }
    return found?.flow ?? null;
  };
  return (
    best((of) => of.begins?.find(isIt)?.share ?? 0, 0) ??
    best((of) => of.sayings.filter(isIt).reduce((most, one) => Math.max(most, one.legs), 0) / Math.max(1, of.legs), MOSTLY)
  );
}
/** Warnings and errors. */
const LOUD = 4;

/**
 * Whether what has no number of its own is a strand for people: it belongs to a flow, or it failed, or was turned away and somebody warned of it (a page that is not there is nobody's transaction); where
 * no flows are declared, whatever says more than one thing. Else it is a request among many that nobody asks about.
 *
 * @param level the highest of its records
 */
export const isStrand = (flow: unknown, outcome: Outcome, records: number, level: number, anyFlows: boolean): boolean =>
  flow !== null || outcome === 'failed' || (outcome === 'refused' && level >= LOUD) || (!anyFlows && records > 1);
/** The highest level of some records. */
export const loudest = (records: readonly { level: number }[]): number => records.reduce((most, { level }) => Math.max(most, level), 0);
