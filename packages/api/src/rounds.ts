import type { KnownState, NearestChange } from './changes.ts';
import type { Iso, Outcome } from './index.ts';
import type { CellKind } from '@fadenweg/core/rounds';

export type { CellKind };

/** Strands of a flow that began in a slot. */
export interface RoundsCell {
  all: number;
  outcomes: Partial<Record<Outcome, number>>;
  /** Judged, and neither done nor under way. */
  amiss: number;
  /** Took longer than nineteen of twenty usually do. */
  late: number;
  /** How many usually come then; null where too little is known. */
  expected: number | null;
  /** That it departs from what is usual: `usual` is a share where it is about those not done or late, else how many. `chance`: how likely by chance. */
  departs: { kind: CellKind; usual: number; chance: number } | null;
}
export interface RoundsFlow {
  /** '' for strands of no flow. */
  flow: string;
  label: string;
  /** The group that people put it in; '' for none. */
  group: string;
  /** By slot. */
  cells: RoundsCell[];
  /** Where most of all flows came so many times as often as usual: its cells are compared after it. */
  shift: number | null;
  /** Earlier strands that it is compared with. */
  known: number;
  /** What a usual whole slot holds; null where too little is known. */
  usual: number | null;
  usualAmiss: number | null;
  /** What takes longer is late. */
  fenceMs: number | null;
}
/** A window as a cloth: a column for each flow, a row for each slot. */
export interface Rounds {
  slotMs: number;
  /** Where each slot begins, and the end of the last. */
  bounds: Iso[];
  /** By slot: whether anything was collected in it. */
  seen: boolean[];
  /** The gravest first. */
  flows: RoundsFlow[];
  shift: { flows: string[]; factor: number } | null;
  /** What it is compared with: the same hours of the same weekday, of earlier days, or the window itself. */
  usualBy: 'week' | 'day' | 'window';
  /** From so many earlier days. */
  days: number;
}

export type DepartureKind = 'new' | 'surging' | 'fading' | 'gone' | 'slow' | 'failing' | 'clock';
/** What people say of a departure. */
export interface Noted {
  state: 'in-hand' | 'tolerated';
  note: string;
  /** Tolerated until then; null for good. */
  until: Iso | null;
  by: string;
  at: Iso;
  /** It has become much more frequent than it was when that was said. */
  worse: boolean;
}
/** Something that departs from the usual in a window. */
export interface Departure {
  /** Stays the same while it goes on. */
  key: string;
  what: DepartureKind;
  outcome: Outcome | null;
  /** What it says, in a sentence. */
  title: string;
  flows: { flow: string; label: string }[];
  /** Where it shows, and on which host; '' where that is not known. */
  component: string;
  host: string;
  /** From when to when it was more frequent than usual; null where that cannot be told. */
  from: Iso;
  to: Iso;
  ongoing: boolean;
  count: number;
  /** Of so many; null where nothing is counted. */
  of: number | null;
  /** So many usually, in as many. */
  expected: number | null;
  /** What gravity it is sorted by. */
  weight: number;
  /** Parties that have more of it than their share. */
  parties: { kind: string; value: string; inside: number; odds: number }[];
  /** Hosts that have more of it than others of those flows. */
  hosts: { value: string; inside: number; odds: number }[];
  change: Pick<NearestChange, 'id' | 'kind' | 'at' | 'component' | 'host' | 'words' | 'record'> | null;
  /** The signature of the finding that they share; null for none. */
  finding: string | null;
  /** It is about when runs of a job begin: it leads to the job. */
  isOfSchedule?: boolean;
  noted: Noted | null;
}
export interface Departures {
  /** The gravest first. */
  items: Departure[];
  /** How many more there are. */
  more: number;
  /** Nothing earlier is known to compare with. */
  nothingBefore: boolean;
}
export interface NotedBody {
  key: string;
  state: 'in-hand' | 'tolerated' | null;
  note?: string;
  until?: Iso | null;
  /** What it is like now, as the list tells it: it comes back when it gets worse. */
  count: number;
  of: number | null;
  expected: number | null;
}

/** The state at an instant. */
export interface Instant {
  at: Iso;
  flows: InstantFlow[];
  /** Versions, settings, what runs. */
  states: KnownState[];
  /** Clocks that were off then. */
  clocks: { host: string; component: string; aheadMs: number }[];
  /** Components of which something was collected within the minutes before it, and those that spoke before and behind but not then. */
  speaking: string[];
  silent: string[];
}
export interface InstantFlow {
  flow: string;
  label: string;
  /** Begun and not yet ended. */
  running: number;
  /** Of these, those that took longer already than usual; of each the longest. */
  overdue: number;
  usualMs: number | null;
  longest: { id: string; name: string; forMs: number } | null;
  /** The last that failed, stalled or was refused before it, and the last that ended well. */
  lastAmiss: { id: string; name: string; outcome: Outcome; at: Iso; headline: string } | null;
  lastGood: { id: string; name: string; at: Iso } | null;
}

/** What was different after an instant than before it, in stretches of one length on both sides. */
export interface SinceThen {
  at: Iso;
  /** Of each side. */
  hours: number;
  flows: {
    flow: string;
    label: string;
    before: { all: number; amiss: number; medianMs: number | null };
    since: { all: number; amiss: number; medianMs: number | null };
    /** Null where chance may have it. */
    differs: 'worse' | 'better' | 'slower' | 'faster' | null;
    chance: number;
  }[];
  /** First findings that are more frequent since, the gravest first. */
  findings: {
    finding: string;
    title: string;
    outcome: Outcome;
    before: { count: number; of: number };
    since: { count: number; of: number };
    chance: number;
  }[];
}
