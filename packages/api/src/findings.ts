import type { KnownCause, NearestChange } from './changes.ts';
import type { Iso, StrandSummary } from './index.ts';

export type SentencePart =
  | { kind: 'words'; text: string }
  | { kind: 'component'; text: string }
  | { kind: 'time'; at: Iso }
  | { kind: 'duration'; text: string }
  | { kind: 'quote'; text: string; record: string };
export interface Finding {
  rank: number;
  /** The leg that it is about, from 1. */
  leg: number;
  kind: 'failed-at' | 'stopped-before' | 'slowed-by' | 'went-astray' | 'doubled' | 'refused' | 'odd-volume' | 'odd-result';
  failedIn: string;
  component: string;
  causedBy: { strand: string; component: string } | null;
  record: { id: string; source: string; line: number; text: string };
  sentence: string;
  parts: SentencePart[];
  confidence: number;
  evidence: string[];
  missingNext: string | null;
  excessMs: number | null;
  /** What changed before it and may be its reason. */
  nearestChange: NearestChange | null;
  /** What somebody found out about findings like it, the latest first. */
  known: KnownCause[];
  /** How many other strands have a finding like this one in the first place, and when the first of all of them began, this one among them. */
  similar: { count: number; since: Iso } | null;
  /** The same for findings that are alike: narrows a list of strands to those. */
  signature: string;
}
/** A line of a strand beside what is usual for its flow. */
export interface ComparedLine {
  kind: 'as usual' | 'late' | 'missing' | 'extra' | 'repeated' | 'number';
  component: string;
  /** Its words; of what is missing, as they usually are. */
  text: string;
  /** Key of the record, null for what is missing. */
  record: string | null;
  at: Iso | null;
  tookMs: number | null;
  usualMs: number | null;
  p99Ms: number | null;
  /** Of good legs, the share that has it. */
  share: number;
  times: number;
}
/** A strand's first leg beside the usual of its flow. */
export interface AgainstUsual {
  flow: string;
  flowLabel: string;
  legs: number;
  since: Iso;
  wholeMs: number;
  usualMs: number;
  p99Ms: number;
  lines: ComparedLine[];
}
interface BesideRecord {
  record: string;
  at: Iso;
  text: string;
}
/** A line of a strand beside the one that corresponds to it in another; one of both alone where the other has none. */
export interface BesideLine {
  kind: 'alike' | 'slower' | 'faster' | 'differs' | 'missing' | 'extra';
  component: string;
  own: BesideRecord | null;
  other: BesideRecord | null;
  /** Since what comes before it in the other one. */
  tookMs: number | null;
  otherTookMs: number | null;
  /** Those that state how something went first; `field` is '' for a part of the message. */
  values: { field: string; own: string; other: string; telling: boolean }[];
}
export interface AgainstStrand {
  other: StrandSummary;
  /** One of both is so long that only its beginning is compared. */
  cut: boolean;
  lines: BesideLine[];
}
/** A sentence of the told story: what one step did. */
export interface StoryChapter {
  step: number;
  leg: number;
  /** A finding points here. */
  knot: boolean;
  record: string;
  parts: SentencePart[];
}
/** What strands of a selection have more often than others of their flow. */
export interface InCommonValue {
  /** `party` and `field` are what they are about, `saying` what a component says of them. */
  kind: 'party' | 'field' | 'host' | 'saying';
  /** Of a field, a host or a saying. */
  component: string;
  field: string;
  value: string;
  /** Strands with it among those of the selection that were looked at, and among the others. */
  inside: number;
  outside: number;
  /** How much more often, as a factor of the odds. */
  odds: number;
  /** The others hardly ever have it: it is what happened itself, or followed from it. */
  only: boolean;
}
export interface InCommon {
  /** Strands of the selection, how many of them were looked at, and how many others of their flow and time. */
  strands: number;
  inside: number;
  outside: number;
  /** First what others have too, the clearest first; then what only these have. */
  values: InCommonValue[];
}
