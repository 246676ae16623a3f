import type { StrandRecord } from '../path/types.ts';
import { firstLine, said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { TWICE } from './sure.ts';
import type { Finding, Verdict } from './types.ts';

/** An identifier of which each value belongs to one strand only, and the earlier strand that has this value already. */
export interface Twin {
  key: number;
  /** What the identifier is called, and its value. */
  label: string;
  value: string;
  /** Business identifier of the earlier strand. */
  of: string;
}

/** A strand whose identifier another one had before: what went well otherwise counts as doubled, what went wrong is told first. */
export function withTwin<V extends Verdict>(verdict: V, records: readonly StrandRecord[], twin: Twin): V {
  const index = Math.max(
    0,
    records.findIndex(({ keys }) => keys.includes(twin.key)),
  );
  const finding = doubled(records, index, twin);
  const well = !['failed', 'stalled', 'refused'].includes(verdict.outcome);
  const findings = (well ? [finding, ...verdict.findings] : [...verdict.findings, finding]).map((one, i) => ({ ...one, rank: i + 1 }));
  return { ...verdict, outcome: well ? 'doubled' : verdict.outcome, findings };
}

/** A leg in which one component was handed the same twice. */
export function handedTwice(records: readonly StrandRecord[], index: number, first: number): Finding {
  const record = records[index]!;
  const taker = records.find(({ component, keys }) => component !== record.component && keys.some((key) => record.keys.includes(key) && !records[first]!.keys.includes(key))); // prettier-ignore
  const about = { kind: 'doubled' as const, failedIn: record.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: TWICE,
    evidence: [first, index],
    sentence: [
      words('Doubled in '),
      ...said(record, index),
      words(', though it had done so before and nothing had failed: '),
      { kind: 'quote', text: firstLine(records[first]!.message), record: first },
      ...(taker ? [words('. '), { kind: 'component' as const, text: taker.component }, words(' did it twice.')] : [words('.')]),
    ],
    excess: null,
    signature: signatureOf(about, record),
  };
}

function doubled(records: readonly StrandRecord[], index: number, { label, value, of }: Twin): Finding {
  const record = records[index]!;
  const about = { kind: 'doubled' as const, failedIn: record.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: TWICE,
    evidence: [index],
    sentence: [words('Doubled in '), ...said(record, index), words(`. ${of} has the same ${label}, ${value}, and began before it.`)],
    excess: null,
    signature: signatureOf(about, record),
  };
}
