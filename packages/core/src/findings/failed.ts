import { depthOf } from '../path/depth.ts';
import { MARK } from '../path/marks.ts';
import type { Path, StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import { because } from './reason.ts';
import { firstLine } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { BORNE_OUT, SAID } from './sure.ts';
import type { Finding, SentencePart } from './types.ts';

/** Failure lines of a nested call stand this close together; within it the callee counts first. */
const NESTED: Microseconds = 250_000;

/**
 * What failed first, by what the records say themselves: of failures that stand close together the one that is deepest in the calls.
 *
 * @param failing indexes of records that tell of a failure, at least one
 * @param telling index of an earlier record of another component that tells this leg from the good ones; it counts before what followed from it
 * @param passedOn those that only report another one's failure: they are no cause unless there is nothing else
 */
export function failure(
  records: readonly StrandRecord[],
  path: Path,
  failing: readonly number[],
  telling: number | undefined,
  passedOn: ReadonlySet<number> = new Set(),
): Finding {
  const own = ownWords(failing, passedOn);
  const first = own[0]!;
  const isNear = (index: number): boolean => records[index]!.at - records[first]!.at <= NESTED;
  const near = failing.filter(isNear);
  const deepest = own.filter(isNear).reduce((best, index) => (depthOf(path, index) > depthOf(path, best) ? index : best), first);
  const root = telling ?? deepest;
  const record = records[root]!;
  const gaveUp = telling === undefined ? near.find((index) => index !== root && isCaller(path, root, index)) : deepest;
  const failedIn = gaveUp === undefined ? record.component : records[gaveUp]!.component;
  const sentence: SentencePart[] = [
    { kind: 'words', text: 'Failed in ' },
    { kind: 'component', text: failedIn },
    { kind: 'words', text: ', ' },
    { kind: 'time', at: records[gaveUp ?? root]!.at },
    { kind: 'words', text: ': ' },
  ];
  if (failedIn !== record.component) sentence.push({ kind: 'component', text: record.component }, { kind: 'words', text: ' said ' });
  sentence.push({ kind: 'quote', text: firstLine(record.message), record: root }, ...because(record, root));
  if (telling !== undefined) sentence.push(...withTraits(record));
  const lock = path.time.find((share) => share.kind === 'lock-wait' && share.component === record.component);
  if (lock) {
    sentence.push({ kind: 'words', text: ', after it had waited ' }, { kind: 'duration', time: lock.time }, { kind: 'words', text: ' for a lock' });
  }
  const shouts = failing.filter((index) => index > root && records[index]!.component !== record.component && records[index]!.component !== failedIn);
  if (shouts.length > 0) {
    const names = [...new Set(shouts.map((index) => records[index]!.component))];
    sentence.push(
      { kind: 'words', text: '. What ' },
      { kind: 'component', text: names.join(' and ') },
      { kind: 'words', text: ' reported after it is a consequence' },
    );
  }
  sentence.push({ kind: 'words', text: '.' });
  const waits = lock ? records.flatMap((r, i) => (r.marks & MARK.waits ? [i] : [])) : [];
  const about = { kind: 'failed-at' as const, failedIn, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: root,
    sentence,
    confidence: failedIn === record.component ? SAID : BORNE_OUT,
    evidence: [...new Set([...waits, root, ...near])].sort((a, b) => a - b),
    excess: null,
    signature: signatureOf(about, record),
  };
}

/** Of what tells of a failure what is no report of another one's; all where there are reports only. */
export function ownWords(failing: readonly number[], passedOn: ReadonlySet<number>): readonly number[] {
  const own = failing.filter((index) => !passedOn.has(index));
  return own.length > 0 ? own : failing;
}

/** What tells a record apart besides its words, for a sentence. */
export const withTraits = ({ traits }: StrandRecord): SentencePart[] => (traits === '' ? [] : [{ kind: 'words', text: ` with ${traits}` }]);

/** Whether the step of one record was under way when the step of the other began, in the chain of callers. */
function isCaller(path: Path, inner: number, outer: number): boolean {
  const caller = path.steps[path.stepOf[outer]!];
  for (let step = path.steps[path.stepOf[inner]!]; step?.parent;) {
    step = path.steps[step.parent - 1];
    if (step === caller || step?.component === caller?.component) return true;
  }
  return false;
}
