import type { Finding, SentencePart, Strand, StrandIdentifier } from '@fadenweg/api';
import { durationWords, sentenceText, type Finding as CoreFinding, type SentencePart as CorePart } from '@fadenweg/core/findings';
import type { Path } from '@fadenweg/core/path';
import { chains } from '@fadenweg/core/stitching';
import { isoMicros } from '@fadenweg/core/units';
import type { StepUsual } from '@fadenweg/core/usual';
import { ALWAYS, type EdgeRow, type Named, type TieRow } from '../evidence/identifiers.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import { recordKey } from '../evidence/record-key.ts';

/** The identifiers of a strand, each with the chain that ties it in. */
export function identifiersOf(
  founder: number,
  ties: readonly TieRow[],
  edges: readonly EdgeRow[],
  named: Map<number, Named>,
  parties: readonly number[],
): StrandIdentifier[] {
  const keys = [...new Set(ties.map((tie) => tie.key))];
  const links = chains(
    founder,
    keys,
    edges.map((edge) => ({ a: edge.a, b: edge.b, first: edge.first_at, record: recordKey({ at: edge.first_at, id: edge.first_id }) })),
  );
  const lease = new Map(ties.map((tie) => [tie.key, tie]));
  const one = (key: number, because: StrandIdentifier['because']): StrandIdentifier[] => {
    const name = named.get(key);
    const tie = lease.get(key);
    if (!name) return [];
    const leased = tie !== undefined && tie.valid_to < ALWAYS;
    return [
      {
        kind: name.kind,
        label: name.label,
        value: name.value,
        role: name.role,
        discovered: name.discovered,
        because,
        validFrom: leased ? isoMicros(tie.valid_from) : null,
        validTo: leased ? isoMicros(tie.valid_to) : null,
      },
    ];
  };
  return [
    ...links.flatMap((link) => {
      const from = link.from === null ? undefined : named.get(link.from);
      return one(link.key, from && link.record ? [{ recordId: link.record, from: from.kind, fromValue: from.value }] : []);
    }),
    ...parties.flatMap((key) => one(key, [])),
  ];
}

const inMs = (time: number | undefined): number | null => (time === undefined ? null : time / 1000);

/** A strand's path as the API tells it. */
export function pathInWords(
  path: Path,
  rows: readonly RecordRow[],
  named: Map<number, Named>,
  usual: Map<number, StepUsual>,
): Pick<Strand, 'steps' | 'hops' | 'time' | 'silences'> {
  return {
    steps: path.steps.map((step) => ({
      id: step.id,
      leg: step.leg,
      parent: step.parent,
      attempt: step.attempt,
      parallel: step.parallel,
      component: step.component,
      host: step.host,
      startedAt: isoMicros(step.startedAt),
      endedAt: isoMicros(step.endedAt),
      workMs: step.work / 1000,
      waitMs: step.wait / 1000,
      usualMs: inMs(usual.get(step.id)?.usual),
      excessMs: inMs(usual.get(step.id)?.excess),
      outcome: step.outcome,
      records: step.records.length,
    })),
    hops: path.hops.map((hop) => {
      const by =
        hop.by.map((key) => named.get(key)).find((name) => name?.role === 'link') ?? hop.by.map((key) => named.get(key)).find((name) => name);
      return { from: hop.from, to: hop.to, by: by ? `${by.label} ${by.value}` : '', delayMs: hop.delay / 1000 };
    }),
    time: path.time.map((share) => ({ component: share.component, kind: share.kind, ms: share.time / 1000 })),
    silences: path.silences.map((silence) => ({
      before: recordKey(rows[silence.before]!),
      ms: silence.time / 1000,
      kind: silence.kind,
      component: silence.component,
    })),
  };
}

/** A sentence as the API tells it. */
export const partsInWords = (sentence: readonly CorePart[], rows: readonly RecordRow[]): SentencePart[] =>
  sentence.map((part) => {
    if (part.kind === 'time') return { kind: 'time', at: isoMicros(part.at) };
    if (part.kind === 'duration') return { kind: 'duration', text: durationWords(part.time) };
    return part.kind === 'quote' ? { kind: 'quote', text: part.text, record: recordKey(rows[part.record]!) } : part;
  });

/** A finding as the API tells it; what it takes other strands to know is added by who asks. */
export function findingInWords(
  finding: CoreFinding,
  rows: readonly RecordRow[],
  paths: Map<number, { path: string }>,
  legAt: readonly number[],
): Finding {
  const row = rows[finding.record]!;
  return {
    rank: finding.rank,
    leg: legAt[finding.record]!,
    kind: finding.kind,
    failedIn: finding.failedIn,
    component: finding.component,
    causedBy: null,
    record: { id: recordKey(row), source: paths.get(row.source_id)?.path ?? '', line: row.line, text: row.message },
    sentence: sentenceText(finding.sentence, (at) => `${isoMicros(at).slice(11, 23)} UTC`),
    parts: partsInWords(finding.sentence, rows),
    confidence: finding.confidence,
    evidence: finding.evidence.map((index) => recordKey(rows[index]!)),
    missingNext: finding.missingNext,
    excessMs: finding.excess === null ? null : finding.excess / 1000,
    nearestChange: null,
    known: [],
    similar: null,
    signature: finding.signature,
  };
}
