import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import type { JudgedLeg } from './leg.ts';
import { firstLine, said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { DECLARED } from './sure.ts';
import type { Finding, FlowRules } from './types.ts';

/**
 * What departs from the path, the steps and the times that are declared for a flow; these count before what is learned. What may still come is not
 * missing, nor what may have come where our evidence has a hole; a step for which no time is declared has to come within the patience.
 */
export function unexpected({ flow, ...leg }: JudgedLeg): Finding[] {
  if (!flow) return [];
  return [missing(leg, flow), astray(leg.records, flow), late(leg.records, flow), tooLong(leg.records, flow)].flatMap((one) => one ?? []);
}

const isOne = ({ component, words: text }: NonNullable<FlowRules['must']>[number], record: StrandRecord): boolean =>
  (component === null || component === record.component) && record.message.includes(text);
const finding = (about: Pick<Finding, 'kind' | 'failedIn' | 'component' | 'missingNext'>, record: number, records: readonly StrandRecord[], more: Pick<Finding, 'sentence' | 'evidence' | 'excess'>): Finding => ({ ...about, ...more, rank: 1, record, confidence: DECLARED, signature: signatureOf(about, records[record]!) }); // prettier-ignore

/** A step that must follow and never came. */
function missing({ records, evidenceEnd, reach, patience }: Omit<JudgedLeg, 'flow'>, flow: FlowRules): Finding | null {
  const begin = records[0]!.at;
  for (const rule of flow.must ?? []) {
    const within = rule.withinMs === null ? patience : rule.withinMs * 1000;
    if (evidenceEnd <= begin + within || records.some((record) => isOne(rule, record))) continue;
    if (rule.component !== null && reach(rule.component, records[records.length - 1]!.at, within).kind === 'hole') continue;
    const last = records.length - 1;
    const record = records[last]!;
    const about = { kind: 'stopped-before' as const, failedIn: record.component, component: record.component, missingNext: rule.component };
    return finding(about, last, records, {
      evidence: [last],
      excess: null,
      sentence: [
        words('Never came to '),
        ...(rule.component === null ? [] : [{ kind: 'component' as const, text: rule.component }, words('’s ')]),
        words(`“${rule.words}”, which has to follow`),
        ...(rule.withinMs === null ? [] : [words(' within '), { kind: 'duration' as const, time: rule.withinMs * 1000 }]),
        words('. Its last record is '),
        ...said(record, last),
        words('.'),
      ],
    });
  }
  return null;
}

/** A component that is not on the declared path. */
function astray(records: readonly StrandRecord[], { path }: FlowRules): Finding | null {
  if (!path || path.length === 0) return null;
  const index = records.findIndex((record) => !path.includes(record.component));
  if (index < 0) return null;
  const { component } = records[index]!;
  return finding({ kind: 'went-astray', failedIn: component, component, missingNext: null }, index, records, {
    evidence: [index],
    excess: null,
    sentence: [words('Went astray: '), ...said(records[index]!, index), words(`. Its way is declared as ${path.join(', ')}.`)],
  });
}

/** A step that came later than it has to. */
function late(records: readonly StrandRecord[], flow: FlowRules): Finding | null {
  for (const rule of flow.must ?? []) {
    const index = records.findIndex((record) => isOne(rule, record));
    if (index < 0 || rule.withinMs === null) continue;
    const took = records[index]!.at - records[0]!.at;
    const excess = took - rule.withinMs * 1000;
    if (excess > 0) return slow(records, index, took, excess, [words(' after its begin; it has to come within '), { kind: 'duration', time: rule.withinMs * 1000 }, words('.')]); // prettier-ignore
  }
  return null;
}

/** A leg that took longer than is declared: slow where the longest wait in it ended. */
function tooLong(records: readonly StrandRecord[], { longestMs }: FlowRules): Finding | null {
  const took = records[records.length - 1]!.at - records[0]!.at;
  if (longestMs === undefined || longestMs === null || took <= longestMs * 1000) return null;
  let worst = 1;
  for (let i = 2; i < records.length; i++) if (records[i]!.at - records[i - 1]!.at > records[worst]!.at - records[worst - 1]!.at) worst = i;
  const wait = records[worst]!.at - records[worst - 1]!.at;
  return slow(records, worst, wait, took - longestMs * 1000, [
    words(' after '),
    { kind: 'quote', text: firstLine(records[worst - 1]!.message), record: worst - 1 },
    words('. All of it took '),
    { kind: 'duration', time: took },
    words(', declared are '),
    { kind: 'duration', time: longestMs * 1000 },
    words('.'),
  ]);
}

function slow(records: readonly StrandRecord[], index: number, took: Duration, excess: Duration, more: Finding['sentence']): Finding {
  const { component } = records[index]!;
  return finding({ kind: 'slowed-by', failedIn: component, component, missingNext: null }, index, records, {
    evidence: index > 0 ? [index - 1, index] : [index],
    excess,
    sentence: [words('Slow in '), ...said(records[index]!, index), words(' came '), { kind: 'duration', time: took }, ...more],
  });
}
