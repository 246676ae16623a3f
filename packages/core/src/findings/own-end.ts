import type { Outcome, StrandRecord } from '../path/types.ts';
import type { Verdict } from './types.ts';

/** How something ended, as it says itself: a status by a word for success, or an exit status of 0. English and German. */
const WELL =
  /(?<![\p{L}\p{N}_-])(?:(?:status|state|result|outcome|ergebnis|end(?:ed)?(?:\s+with)?)["']?\s*[=:]?\s*["']?(?:ok|success|successful|successfully|succeeded|completed|finished|done|erfolgreich|abgeschlossen|fertig)|(?:exit(?:ed)?(?:\s+with)?(?:[\s_]+(?:code|status))?|return[\s_]code|rc)\s*[=:]?\s*0)(?![\p{L}\p{N}.])/iu;

/**
 * A strand of which nobody knows yet what is usual, whose first speaker says at last that it ended well, with nobody heard behind it who was not heard before: it has
 * ended, though a few words of others may stand behind.
 */
export function withOwnEnd<V extends Verdict>(verdict: V, records: readonly StrandRecord[]): V {
  if (verdict.outcome !== 'stalled') return verdict;
  const own = records[0]!.component;
  const last = records.findLastIndex(({ component }) => component === own);
  if (last === 0 || !WELL.test(records[last]!.message.split('\n', 1)[0]!.slice(0, 600))) return verdict;
  const before = new Set(records.slice(0, last).map(({ component }) => component));
  if (records.slice(last).some(({ component }) => !before.has(component))) return verdict;
  const outcome: Outcome = 'done';
  return { ...verdict, outcome, findings: verdict.findings.filter(({ kind }) => kind !== 'stopped-before') };
}
