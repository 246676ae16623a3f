import type { Duration, Microseconds } from '../units.ts';
import type { Span } from './regularly.ts';

/** What a component says: records of one shape and with the same traits. */
export interface Saying {
  component: string;
  shape: number;
  /** As `traitsOf` tells them, without those that vary too much to tell anything. */
  traits: string;
}

/** How long something usually takes. */
export interface Usually {
  median: Duration;
  p90: Duration;
  p99: Duration;
  /** What takes longer departs, however much the flow spreads. */
  fence: Duration;
  /** Legs that it was learned from. */
  cases: number;
  /** Hours or weekdays at which it regularly takes otherwise; what stands above holds for all others. */
  times?: (Usually & AtTimes)[];
}

/** At which times something is so, and on how many days it was. */
export interface AtTimes {
  span: Span;
  days: number;
}

/** The share that one number of a leg is of an earlier one. */
export interface Proportion {
  saying: number;
  /** Which number, as of a volume. */
  of: string;
  to: { saying: number; of: string };
  median: number;
  /** What lies below or above departs. */
  low: number;
  high: number;
  cases: number;
}

/** What many good legs go on with once they have ended: asked for again, called back. */
export interface Continuation {
  component: string;
  shape: number;
  /** The shape in words. */
  text: string;
  /** Good strands of which it is known for long enough whether they have it, and of these those that do. */
  of: number;
  legs: number;
  /** How long after the first leg's end. */
  wait: Usually;
  /** What has not come by then does not come any more. */
  longest: Duration;
}

/** A number that a saying states, in good legs: how it lies on a logarithmic scale. */
export interface Volume {
  /** Which number: its place in the first line from 0, or the field that states it. */
  of: string;
  median: number;
  least: number;
  most: number;
  /** What lies below or above departs. */
  low: number;
  high: number;
  cases: number;
  /** As for what takes time. */
  times?: (Volume & AtTimes)[];
}

export interface UsualSaying extends Saying {
  /** Its shape in words. */
  text: string;
  /** Good legs in which it occurs, and others. */
  legs: number;
  bad: number;
  /** Most times in one good leg, and good legs that have it more than once because its component was handed something more than once. */
  most: number;
  twice: number;
  /** Good legs that have it more than once for whatever reason; not known of what was learned long ago. */
  repeated?: number;
  /** Good legs in which it is the last word of its component. */
  last: number;
  /** Good legs in which it names something for the first time; those in which another component names that too, and with which saying they do most often. */
  hands: { legs: number; taken: number; by: number | null };
  /** Where it usually stands in a leg, 0 for the beginning and 1 for the end. */
  position: number;
  /** The saying behind which it comes, the closest one that is nearly always there, and how long after it. Index into the sayings. */
  after: { saying: number; wait: Usually } | null;
  /** The next closest, for where that one is not there. */
  otherwise: { saying: number; wait: Usually } | null;
  /** What comes behind it nearly always, the soonest first, with the lower bound of how often. */
  then: { saying: number; share: number; wait: Usually }[];
  volumes: Volume[];
}

/** What changed for good at a moment. */
export interface ChangedUsual {
  at: Microseconds;
  /** How long the whole takes, how long something comes after what it follows, whether something is said at all. */
  what: 'whole' | 'wait' | 'there';
  /** Of what is said; null for the whole. */
  component: string | null;
  text: string | null;
  /** Medians in microseconds; for what is said the share of good legs. */
  before: number;
  since: number;
}

/** What is normal for a flow, learned from its good legs. */
export interface FlowUsual {
  flow: string;
  /** Good legs that it rests on, and others that were seen with them. */
  legs: number;
  bad: number;
  /** When the first of them began, and the last. */
  since: Microseconds;
  until: Microseconds;
  whole: Usually;
  /** How long they are silent at most before they go on. */
  silence: Usually;
  records: { least: number; median: number; most: number };
  sayings: UsualSaying[];
  /** In how many good legs each component speaks. */
  components: { component: string; legs: number }[];
  /** Traits that vary too much to tell anything: component, shape and name, as `traitKey` puts them. */
  varied: string[];
  /** Sayings with which good legs end, with their share. */
  ends: { saying: number; share: number }[];
  /** What good legs begin with, by component and shape, with their share; left out by what was learned before it was kept. */
  begins?: { component: string; shape: number; share: number }[];
  /** Paths by the components in the order in which they are reached, the most frequent first. */
  variants: { components: string[]; share: number }[];
  proportions: Proportion[];
  /** Good legs that are calls, and those of them whose addresses look as if one side could not be heard. Nothing where none is a call. */
  calls?: { legs: number; unreached: number };
  /** First words of later legs, the most frequent first. */
  continues: Continuation[];
  /** IANA zone in which hours and weekdays are told. */
  zone: string;
  /** What changed for good when this began to hold; empty where nothing did. */
  changed: ChangedUsual[];
  /** What was usual before that. */
  before: FlowUsual | null;
  /** What is usual for legs that begin in one way, first ones and later ones, where enough of them are known; the rest holds for first ones. */
  kinds?: LegKind[];
}

/** Legs that begin in one way: a submission, a question how it stands, a payment. */
export interface LegKind {
  component: string;
  shape: number;
  /** How many legs it was learned from, good or not: of several that one begins with the rarest counts. */
  legs: number;
  usual: FlowUsual;
}
