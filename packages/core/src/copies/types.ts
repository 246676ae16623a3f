/** What a record says, as copies are told by. */
export interface Told {
  /** When, as its source wrote it, in microseconds since 1970. */
  at: number;
  /** Its words and values, as numbers, each once, in ascending order. */
  words: Int32Array;
  /** Those of its message. */
  said: Int32Array;
  fields: Readonly<Record<string, unknown>>;
  /** Who spoke; where nobody says, the host is empty. */
  host: string;
  component: string;
  /** Whether the record itself names its component: else its file does. */
  named: boolean;
}

/** Some consecutive events of one source, in order of time. */
export interface Stretch {
  told: readonly Told[];
  /** What its times are told to, in microseconds: two records of one event may be so far apart. */
  coarse: number;
}
