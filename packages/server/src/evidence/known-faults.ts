import type { StrandFault } from '@fadenweg/api';

/** What others need to know of faults: those whose strands and records stand out of sight at first, and which count as one. */
export interface KnownFaults {
  /** Their numbers, those of all that count as them among them. */
  quiet(): Promise<number[]>;
  /** What is known of one: what it is called, its state, what was said of it last; null where it is none. */
  told(id: number): Promise<StrandFault | null>;
  /** All that count as the same fault as one. */
  sameAs(id: number): Promise<number[]>;
}
