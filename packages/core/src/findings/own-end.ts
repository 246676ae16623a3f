import type { Outcome, StrandRecord } from '../path/types.ts';
import type { FlowRules, Verdict } from './types.ts';

/** How something ended, as it says itself: a status by a word for success, or an exit status of 0. English and German. */
const WELL =
  /(?<![\p{L}\p{N}_-])(?:(?:status|state|result|outcome|ergebnis|end(?:ed)?(?:\s+with)?)["']?\s*[=:]?\s*["']?(?:ok|success|successful|successfully|succeeded|completed|finished|done|erfolgreich|abgeschlossen|fertig)|(?:exit(?:ed)?(?:\s+with)?(?:[\s_]+(?:code|status))?|return[\s_]code|rc)\s*[=:]?\s*0)(?![\p{L}\p{N}.])/iu;

/**
 * A strand of one leg, of which nobody knows yet what is usual, whose first speaker says at last that it ended well, with nobody heard behind it who was not heard
 * before: it has ended, though a few words of others may stand behind. It teaches nothing by that: where work goes on behind an answer, those that were lost say it too.
 *
 * @param flow steps that are declared to follow count whatever it says
 */
export function withOwnEnd<V extends Verdict & { legs: Outcome[] }>(verdict: V, records: readonly StrandRecord[], flow: FlowRules | null): V {
  if (verdict.outcome !== 'stalled' || verdict.legs.length > 1 || (flow?.must ?? []).length > 0) return verdict;
  const own = records[0]!.component;
  const last = records.findLastIndex(({ component }) => component === own);
  if (last === 0 || !WELL.test(records[last]!.message.split('\n', 1)[0]!.slice(0, 600))) return verdict;
  const before = new Set(records.slice(0, last).map(({ component }) => component));
  if (records.slice(last).some(({ component }) => !before.has(component))) return verdict;
  return { ...verdict, outcome: 'done', legs: ['done'], findings: verdict.findings.filter(({ kind }) => kind !== 'stopped-before') };
}
