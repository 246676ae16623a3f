import type { Iso, Role } from './index.ts';
import type { FlowRules as FlowDeclaration } from '@fadenweg/core/findings';
import type { NormalForm } from '@fadenweg/core/identifiers';
import type { DeclaredSchedule } from '@fadenweg/core/jobs';

export type { DeclaredSchedule, NormalForm, FlowDeclaration };

export interface IdentifierKind {
  name: string;
  label: string;
  role: Role;
  patterns: string[];
  /** Patterns that are looked for in texts alone; the value of a field need not match one. */
  inText?: string[];
  fields: string[];
  normal: NormalForm;
  scope: 'global' | 'host' | 'process' | 'session';
  leaseMs: number | null;
  /** Each value belongs to one strand of a flow only: a second one with it is doubled. Of shared identifiers. */
  once?: boolean;
  supplied?: boolean;
  /** Nobody declared it: it was found in the data, by these figures. */
  discovered?: KindEvidence | null;
  /** It holds only there, since it was found in their data alone; left out it holds everywhere. */
  environments?: string[];
  /** It was a link, but joined too much to tell transactions apart: it is shared since, until somebody lets it tie again. */
  guarded?: KindGuard | null;
  /** Somebody let it tie although it joins much. */
  trusted?: boolean;
}
export interface KindGuard {
  /** Values that stand beside a business identifier; of those, the ones that stand beside several. */
  values: number;
  joining: number;
  /** The value that stands beside most, and beside how many. */
  worst: string;
  worstCount: number;
}
export interface KindEvidence {
  /** Distinct values in what was looked at. */
  values: number;
  /** Of those beside a known identifier, the share that stands beside just one, 0 to 1. */
  single: number;
  /** Values that also stand in records which name nothing else. */
  free: number;
  recordsPerValue: number;
  examples: string[];
}
export interface Flow extends FlowDeclaration {
  usualMs: number | null;
  /** Good legs from which it is learned what is usual; 0 while there are too few. */
  legs: number;
  strands: number;
}
/** How long something usually takes, in milliseconds; what takes longer than `fenceMs` departs. */
export interface UsualTime {
  medianMs: number;
  p90Ms: number;
  p99Ms: number;
  fenceMs: number;
  /** Hours or weekdays at which it regularly takes otherwise, in the flow's zone. */
  times: (UsualSpan & { medianMs: number; p99Ms: number })[];
}
/** Hours from 0 or weekdays from 0 for Sunday, and how many in a row; on how many days it was seen to be so. */
export interface UsualSpan {
  by: 'hour' | 'weekday';
  from: number;
  count: number;
  days: number;
}
/** What a component says in good legs of a flow. */
export interface UsualSaying {
  component: string;
  /** Its shape in words, and what tells it apart besides: `queue=orders.in`. */
  text: string;
  traits: string;
  /** Good legs with it, and others. */
  legs: number;
  bad: number;
  /** Most times in one good leg. */
  most: number;
  /** Place in the list of what comes closest before it, and how long after that it comes. */
  after: (UsualTime & { saying: number }) | null;
  /** What comes behind it nearly always; `share` is at least so often. */
  then: (UsualTime & { saying: number; share: number })[];
  /** Numbers that it states, by their place in the first line. */
  volumes: { of: string; median: number; least: number; most: number; times: (UsualSpan & { least: number; most: number })[] }[];
}
/** What is normal for a flow, learned from its good legs. */
export interface FlowUsual {
  flow: string;
  label: string;
  legs: number;
  bad: number;
  since: string;
  until: string;
  whole: UsualTime;
  /** Silence behind the last record after which one without an end counts as stalled, as learned. */
  patienceMs: number;
  /** What changed for good at the moment from which on this holds, what changed most clearly first; strands that began before are judged by what was usual then. */
  changed: {
    at: Iso;
    /** How long the whole takes, how long something comes after what it follows, whether something is said at all. */
    what: 'whole' | 'wait' | 'there';
    component: string | null;
    text: string | null;
    /** Milliseconds in the middle; for what is said the share of those that went well. */
    before: number;
    since: number;
  }[];
  records: { least: number; median: number; most: number };
  /** In the order in which they usually come. */
  sayings: UsualSaying[];
  ends: { saying: number; share: number }[];
  variants: { components: string[]; share: number }[];
  /** What strands go on with after their end, the most frequent first: of `of` of which it is known, `legs` do; `surely` where it is missed if it never comes. */
  continues: (UsualTime & { component: string; text: string; legs: number; of: number; surely: boolean })[];
  /** IANA zone of hours and weekdays. */
  zone: string;
}
export interface Meaning {
  component: string | null;
  contains: string;
  means: 'done' | 'ends' | 'failed' | 'refused' | 'entry' | 'harmless';
}

/** What a change of what is declared brings with it. */
export interface ReadAgain {
  /** How many sources are read again because of it. */
  sourcesReadAgain: number;
}
export interface MeaningsSaved extends ReadAgain {
  items: Meaning[];
}
