export const SIGN_KINDS = ['start', 'stop', 'version', 'setting', 'fail-over', 'deployment'] as const;
export type SignKind = (typeof SIGN_KINDS)[number];

/** What one record tells about a change. */
export interface Sign {
  kind: SignKind;
  /** What changes: a setting's name, the product that a version belongs to; '' where it is the component itself. */
  subject: string;
  /** '' where it is not said. */
  before: string;
  after: string;
}

/** The same sign from one place, in one stretch of a source. Times are microseconds since 1970. */
export interface SignSpan extends Sign {
  component: string;
  host: string;
  /** First line of the first record. */
  text: string;
  first: number;
  last: number;
  count: number;
  /** Key of the first record. */
  record: string;
}

export type ChangeKind = 'version' | 'setting' | 'restart' | 'start' | 'stop' | 'fail-over' | 'deployment' | 'registered';

export interface Change {
  kind: ChangeKind;
  /** Microseconds since 1970. */
  at: number;
  component: string;
  host: string;
  subject: string;
  before: string;
  after: string;
  /** Of a restart: how long it was away, in microseconds; null where its stop was not told. */
  away: number | null;
  text: string;
  /** Key of the record that tells; null for what was registered. */
  record: string | null;
  /** Components and hosts that the text names besides, in lower case. */
  names: readonly string[];
}

/** What was last known of something. */
export interface KnownState {
  component: string;
  host: string;
  /** `version`, `running`, or the name of a setting. */
  subject: string;
  value: string;
  since: number;
  record: string;
}
