import type { KnownCause } from './changes.ts';
import type { Iso, WeightName } from './index.ts';
import type { FaultState } from '@fadenweg/core/faults';

export type { FaultState };

/** What somebody said of a fault. */
export interface FaultSaid {
  state: 'new' | 'in-hand' | 'mended' | 'tolerated';
  owner: string;
  note: string;
  ticket: string;
  /** Mended in this version; '' where it is since an instant. */
  version: string;
  since: Iso | null;
  /** Tolerated until then; null for good. */
  until: Iso | null;
  who: string;
  at: Iso;
}
export type FaultBody = Pick<FaultSaid, 'state'> & Partial<Pick<FaultSaid, 'owner' | 'note' | 'ticket' | 'version' | 'since' | 'until'>>;

/** Where errors come from: what was thrown with the calls in which it came up, or what is said, and by whom. */
export interface FaultOrigin {
  component: string;
  /** What was thrown, the outermost first; empty where no trace tells. */
  types: string[];
  /** Calls of one's own, the innermost first. */
  calls: string[];
  /** Its first line without what varies, where no trace tells; '' else. */
  said: string;
  /** Values that tell results apart, where no trace tells. */
  traits: string;
  /** By which people parted it from others of the same origin; '' where nobody did. */
  words: string;
}
/** A fault in a window. */
export interface Fault extends FaultOrigin {
  id: number;
  /** How many origins people put together in it; 1 by itself. */
  members: number;
  state: FaultState;
  owner: string;
  weight: WeightName;
  /** Failed strands that began in the window; each is of one fault. */
  strands: number;
  /** The same of as long a time before. */
  before: number;
  /** Strands of the window that have such an error and failed by another fault, and that did not fail. */
  follows: number;
  unharmed: number;
  /** Records of level error and above in the window. */
  records: number;
  /** Over all time. */
  firstAt: Iso | null;
  lastAt: Iso | null;
  /** Strands by piece of the window. */
  course: number[];
}
export interface Faults {
  /** Those that strands failed by, and that nothing else explains, first; as asked. */
  items: Fault[];
  /** Failed strands of the window. */
  failed: number;
  /** Left out: in the window they came up only in strands that failed by another fault. */
  consequences: number;
  /** Left out by what people said of them. */
  quiet: { mended: number; tolerated: number };
  /** How many more there are. */
  more: number;
  /** Who has any in hand. */
  owners: string[];
}
export interface FaultDetail extends Fault {
  /** All that was said, the latest first. */
  history: FaultSaid[];
  /** What the window is cut into. */
  slotMs: number;
  bounds: Iso[];
  /** Others that people put together with it, parts that they made of it, and what was done so, the latest first; `part`: it was made of another. */
  together: { id: number; component: string; title: string }[];
  parts: { id: number; words: string }[];
  byHand: { kind: 'together' | 'parted' | 'part'; words: string; who: string; at: Iso }[];
  /** What people found out about the findings of its strands. */
  causes: KnownCause[];
  flows: { flow: string; label: string; strands: number; of: number }[];
  hosts: { name: string; strands: number }[];
  /** What its strands have more of than others of their flows. */
  standOut: { what: 'party' | 'host'; kind: string; value: string; inside: number; outside: number; odds: number }[];
  versions: { version: string; host: string; from: Iso | null; to: Iso | null; strands: number }[];
  /** Through which components its strands come, in the order in which they first speak: the most frequent ways; and the way of most that ended well. */
  ways: { components: string[]; strands: number }[];
  usualWay: string[];
  /** Faults that came up in the same strands. */
  followed: { id: number; title: string; component: string; strands: number }[];
  /** The latest record of it, whole, and strands, the latest first. */
  example: { record: string; at: Iso; message: string; strand: string | null } | null;
  strandsOf: { id: string; name: string; flowLabel: string; startedAt: Iso; headline: string }[];
}
/** Records of a fault that hold some words, of how many. */
export interface FaultParting {
  records: number;
  of: number;
}
