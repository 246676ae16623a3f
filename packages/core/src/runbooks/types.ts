/** Something to be filled in before a runbook is run; a text or choice is named in searches and texts as `{name}`. */
export interface Blank {
  /** Lower-case letters, digits and hyphens. */
  name: string;
  label: string;
  kind: 'text' | 'choice';
  /** For a choice: the values to choose from, or the field whose values they are. */
  values: string[] | { field: string } | null;
  /** What stands there at first. */
  usual: string;
}

/** Times around which a step looks: those of an earlier step. */
export interface Around {
  step: string;
  /** The first time only, or each of them. */
  at: 'first' | 'each';
  /** Durations as in searches: `30s`, `2h`. */
  before: string;
  after: string;
}

/** Where a step looks, and for what. */
export type StepLook =
  | { what: 'records'; /** In the search language, with blanks. */ q: string; /** Field whose values are counted, or `strand`. */ by: string }
  | {
      what: 'strands';
      identifier: string;
      flow: string;
      outcome: string;
      failedIn: string;
      component: string;
      by: 'none' | 'finding' | 'failedIn' | 'flow' | 'party' | 'caused-by';
      /** Only strands that this earlier step found; '' for all. */
      among: string;
    }
  | { what: 'changes'; component: string };

export interface RunbookStep {
  /** Lower-case letters, digits and hyphens; later steps and texts refer to it. */
  name: string;
  title: string;
  look: StepLook;
  /** Null for the whole window. */
  around: Around | null;
  /** What it means when something is found, and where to look next; with blanks. */
  found: string;
  /** What it means when nothing is. */
  nothing: string;
}
/** A part of the finding's text; it is left away unless its condition holds. */
export interface FindingPart {
  /** Name of a step; '' for always. */
  when: string;
  /** Whether that step has to have found something, or nothing. */
  has: 'found' | 'nothing';
  text: string;
}
/** Searches in order, with blanks, each saying what its result means. */
export interface Runbook {
  name: string;
  title: string;
  about: string;
  blanks: Blank[];
  steps: RunbookStep[];
  finding: FindingPart[];
}

/** What a step came to, as far as later steps and texts need it. */
export interface StepSum {
  count: number;
  /** Not everything was looked at. */
  partial: boolean;
  /** ISO 8601; null where nothing was found. */
  first: string | null;
  last: string | null;
  /** Times of single finds, the earliest first, at most `MOST_TIMES`. */
  times: string[];
  /** Values that were counted, or identifiers of strands, the most frequent first, at most `MOST_VALUES`. */
  values: { value: string; count: number }[];
  /** Ids of strands that were found, at most `MOST_VALUES`. */
  strands: string[];
  /** Sentences of findings, the most frequent first. */
  sentences: { value: string; count: number }[];
}
export const MOST_TIMES = 20;
export const MOST_VALUES = 200;
