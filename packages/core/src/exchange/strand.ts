/** As much of a strand as is handed over in an open format. Times are ISO 8601 in UTC with microseconds. */
export interface ExchangedStrand {
  id: string;
  flow: string | null;
  flowLabel: string;
  /** Null where it never got a number. */
  businessId: string | null;
  name: string;
  outcome: string;
  attributes: Readonly<Record<string, string>>;
  startedAt: string;
  endedAt: string;
  steps: readonly ExchangedStep[];
  findings: readonly { kind: string; component: string; sentence: string }[];
}
export interface ExchangedStep {
  id: number;
  parent: number | null;
  leg: number;
  attempt: number;
  component: string;
  host: string;
  startedAt: string;
  endedAt: string;
  workMs: number;
  waitMs: number;
  outcome: string;
  records: number;
}
