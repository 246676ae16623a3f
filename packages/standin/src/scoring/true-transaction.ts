/** A record by where it stands: the path of its source below what was brought in, and the line at which it begins, from 1: `path:line`. */
export type Place = string;

/**
 * What really happened to one transaction, in terms of no world in particular. Transactions are matched to what was told of them by their records alone: one without a business
 * number, or with another one than it is told by, is not lost.
 */
export interface TrueTransaction {
  id: string;
  /** What kind of transaction it is: what begins and runs alike. */
  kind: string;
  /** Transactions of one strand have the same: requests about one order. */
  strand: string;
  /** Records of each of its legs. */
  legs: Place[][];
  /** It is a leg of its strand: then that leg's outcome and findings count, else those of the strand. */
  byLeg: boolean;
  /** Values that are its own; compared without case and punctuation. */
  identifiers: string[];
  /** Outcomes that are right. */
  outcomes: string[];
  /** It went well, and nothing departed. */
  good: boolean;
  /** Kind of fault, null where there was none. */
  fault: string | null;
  cause: TrueCause | null;
  /** Components that should have spoken next, where something never came. */
  next: string[] | null;
  /** The component that was slow, where one was. */
  slowIn: string | null;
}
export interface TrueCause {
  /** Components that are a right answer, two at most. */
  components: string[];
  /** Records that show it. */
  records: Place[];
}

/** A strand as it is told, as much of it as is judged. */
export interface ToldStrand {
  id: string;
  outcome: string;
  /** Values of the identifiers that are its own. */
  identifiers: string[];
  /** Outcome of each leg, by its number from 1. */
  legs: string[];
  records: { place: Place; leg: number }[];
  findings: ToldFinding[];
}
export interface ToldFinding {
  /** The leg that it is about. */
  leg: number;
  component: string;
  failedIn: string;
  place: Place;
  /** 0 to 1. */
  confidence: number;
  missingNext: string | null;
}
