import type { Microseconds } from '../units.ts';
import { MARK } from '../path/marks.ts';
import type { Path, StrandRecord } from '../path/types.ts';
import { volumeFinding } from './volume.ts';
import type { Finding, FlowRules, SentencePart, Verdict } from './types.ts';

/** Failure lines of a nested call stand this close together; within it the callee counts first. */
const NESTED: Microseconds = 250_000;

/**
 * How a leg ended and why, by marks and declared rules.
 *
 * @param evidenceEnd until when the sources concerned have spoken: silence before it is telling, after it is not
 */
export function verdict(records: readonly StrandRecord[], path: Path, flow: FlowRules | null, evidenceEnd: Microseconds): Verdict {
  const marked = (bit: number): number[] => records.flatMap((record, index) => (record.marks & bit ? [index] : []));
  const done = marked(MARK.done);
  const lastDone = done[done.length - 1] ?? -1;
  const failing = marked(MARK.failing).filter((index) => !(records[index]!.marks & MARK.harmless));
  const refusing = marked(MARK.refusing);
  const firstFailing = failing.find((index) => index > lastDone);
  const firstRefusing = refusing.find((index) => index > lastDone);
  if (firstRefusing !== undefined && (firstFailing === undefined || firstRefusing < firstFailing)) {
    return { outcome: 'refused', findings: [refusal(records, firstRefusing)] };
  }
  if (firstFailing !== undefined)
    return {
      outcome: 'failed',
      findings: [
        failure(
          records,
          path,
          failing.filter((index) => index > lastDone),
        ),
      ],
    };
  const volume = flow ? volumeFinding(records, flow) : null;
  if (volume) return { outcome: 'odd', findings: [volume] };
  if (lastDone >= 0 || marked(MARK.ends).length > 0) return { outcome: 'done', findings: [] };
  if (flow && evidenceEnd - records[records.length - 1]!.at > flow.patienceMs * 1000)
    return { outcome: 'stalled', findings: [silence(records, lastReached(records), evidenceEnd)] };
  return { outcome: flow ? 'running' : 'done', findings: [] };
}

function failure(records: readonly StrandRecord[], path: Path, failing: readonly number[]): Finding {
  const depth = (index: number): number => {
    let steps = 0;
    for (let step = path.steps[path.stepOf[index]!]; step?.parent; step = path.steps[step.parent - 1]) steps++;
    return steps;
  };
  const first = failing[0]!;
  const near = failing.filter((index) => records[index]!.at - records[first]!.at <= NESTED);
  const root = near.reduce((best, index) => (depth(index) > depth(best) ? index : best), first);
  const record = records[root]!;
  const gaveUp = near.find((index) => index !== root && isCaller(path, root, index));
  const failedIn = gaveUp === undefined ? record.component : records[gaveUp]!.component;
  const sentence: SentencePart[] = [
    { kind: 'words', text: 'Failed in ' },
    { kind: 'component', text: failedIn },
    { kind: 'words', text: ', ' },
    { kind: 'time', at: records[gaveUp ?? root]!.at },
    { kind: 'words', text: ': ' },
  ];
  if (failedIn !== record.component) sentence.push({ kind: 'component', text: record.component }, { kind: 'words', text: ' said ' });
  sentence.push({ kind: 'quote', text: firstLine(record.message), record: root });
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
  const evidence = [...new Set([...(lock ? records.flatMap((r, i) => (r.marks & MARK.waits ? [i] : [])) : []), root, ...near])].sort((a, b) => a - b);
  return {
    rank: 1,
    kind: 'failed-at',
    failedIn,
    component: record.component,
    record: root,
    sentence,
    confidence: near.length === 1 ? 0.9 : 0.8,
    evidence,
  };
}

/** Whether the step of one record was under way when the step of the other began, in the chain of callers. */
function isCaller(path: Path, inner: number, outer: number): boolean {
  const caller = path.steps[path.stepOf[outer]!];
  for (let step = path.steps[path.stepOf[inner]!]; step?.parent;) {
    step = path.steps[step.parent - 1];
    if (step === caller || step?.component === caller?.component) return true;
  }
  return false;
}

function refusal(records: readonly StrandRecord[], index: number): Finding {
  const record = records[index]!;
  return {
    rank: 1,
    kind: 'refused',
    failedIn: record.component,
    component: record.component,
    record: index,
    confidence: 0.9,
    evidence: [index],
    sentence: [
      { kind: 'words', text: 'Refused by ' },
      { kind: 'component', text: record.component },
      { kind: 'words', text: ', ' },
      { kind: 'time', at: record.at },
      { kind: 'words', text: ': ' },
      { kind: 'quote', text: firstLine(record.message), record: index },
      { kind: 'words', text: '.' },
    ],
  };
}

/**
 * The last record that tells how far it came: not one that closes what it had begun before others (its stated duration reaches back over
 * records of other components), such as a proxy's that speaks when the answer has gone.
 */
function lastReached(records: readonly StrandRecord[]): number {
  for (let i = records.length - 1; i > 0; i--) {
    const { at, took, component } = records[i]!;
    const begin = at - took;
    if (!(took > 0) || !records.slice(0, i).some((other) => other.component !== component && other.at > begin)) return i;
  }
  return 0;
}

function silence(records: readonly StrandRecord[], last: number, evidenceEnd: Microseconds): Finding {
  const record = records[last]!;
  const closing = [...new Set(records.slice(last + 1).map((other) => other.component))];
  return {
    rank: 1,
    kind: 'stopped-before',
    failedIn: record.component,
    component: record.component,
    record: last,
    confidence: 0.6,
    evidence: [last],
    sentence: [
      { kind: 'words', text: 'Nothing more after ' },
      { kind: 'component', text: record.component },
      { kind: 'words', text: ', ' },
      { kind: 'time', at: record.at },
      { kind: 'words', text: ': ' },
      { kind: 'quote', text: firstLine(record.message), record: last },
      ...(closing.length === 0
        ? [{ kind: 'words' as const, text: '. No source names it in the ' }]
        : [
            { kind: 'words' as const, text: '. ' },
            { kind: 'component' as const, text: closing.join(' and ') },
            { kind: 'words' as const, text: ' only closed what had begun before; no source names it in the ' },
          ]),
      { kind: 'duration', time: evidenceEnd - records[records.length - 1]!.at },
      { kind: 'words', text: ' of evidence after it.' },
    ],
  };
}

/** A message's first line, cut to what a sentence can bear. */
export function firstLine(message: string): string {
  const breakAt = message.indexOf('\n');
  const line = breakAt < 0 ? message : message.slice(0, breakAt);
  return line.length > 160 ? line.slice(0, 159) + '…' : line;
}
