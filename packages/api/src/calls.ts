import type { Iso, Outcome } from './index.ts';
import type { CallSide as CallParty, Side as CallSideName, CallState as CallStateName } from '@fadenweg/core/calls';

export type { CallParty, CallSideName, CallStateName };

/** A call as a line of a list. */
export interface CallSummary {
  strand: string;
  flow: string | null;
  outcome: Outcome;
  headline: string;
  startedAt: Iso;
  state: CallStateName;
  caller: CallParty;
  called: CallParty;
  /** Who was reached in the end. */
  final: string;
  /** The final answer to its INVITE. */
  status: number | null;
  phrase: string;
  postDialMs: number | null;
  ringingMs: number | null;
  setUpMs: number | null;
  talkingMs: number | null;
  endedBy: CallSideName | null;
  /** How often a message was sent again. */
  repeated: number;
  transfers: number;
}
export interface CallPage {
  items: CallSummary[];
  next: string | null;
}
/** How many calls there are by how they went. */
export interface CallCounts {
  calls: number;
  states: Partial<Record<CallStateName, number>>;
}

export interface CallMedia {
  side: CallSideName;
  kind: string;
  address: string;
  port: number;
  codecs: string[];
  direction: string;
  /** Not reached from another network. */
  private: boolean;
}
export interface CallAmissTold {
  trouble: string;
  record: string;
  text: string;
}
export interface CallTransfer {
  record: string;
  at: Iso;
  by: CallSideName;
  to: string;
  taken: boolean | null;
  status: number | null;
}
/** A lane of the ladder, and a message between two of them. */
export interface LadderLane {
  label: string;
  detail: string;
}
export interface LadderArrow {
  /** As it was sent; and as it came in, where both ends were seen. */
  record: string;
  arrived: string | null;
  at: Iso;
  /** Behind the one before it. */
  afterMs: number;
  underMs: number | null;
  from: number;
  to: number;
  label: string;
  method: string;
  number: number;
  status: number | null;
  dialog: number;
  again: boolean;
  media: string;
  /** How long this usually takes here, where it took far longer. */
  usualMs: number | null;
}
/** Two dialogs that are told to be of one call: by a session identifier, a header of one, records that name both, or numbers and time. */
export interface CallTie {
  callIds: [string, string];
  how: 'session' | 'header' | 'records' | 'numbers';
  /** From 0 to 1. */
  sure: number;
}
/** All there is to say of one call. */
export interface Call extends CallSummary {
  endedAt: Iso | null;
  /** The protocol of the reason, its code and text. */
  reason: { protocol: string; code: number | null; text: string; meaning: string } | null;
  offered: string[];
  agreed: string[];
  media: CallMedia[];
  challenges: number;
  holds: number;
  handedOn: CallTransfer[];
  amiss: CallAmissTold[];
  lanes: LadderLane[];
  arrows: LadderArrow[];
  callIds: string[];
  /** How its dialogs are told to be one. */
  ties: CallTie[];
  /** Messages that whoever keeps to the standard would refuse, and why; the first of them. */
  unsound: { record: string; text: string }[];
  /** While both could talk. */
  talk: { from: Iso; to: Iso | null } | null;
  /** Messages are cut behind so many records. */
  cut: boolean;
}
