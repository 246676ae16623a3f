/** Everything that rooms tell each other, by its kind. It is written in the transaction of what happened. */
export interface Happened {
  /** A stretch of a source was stored, or its end reached. */
  'batch-stored': { source: number; importId: number; from: number; to: number; records: number; first: number; last: number; ended: boolean };
  /** A source was changed (zone, format, component …), or is to be read again. */
  'source-changed': { sources: number[]; what: 'declared' | 'read-again' | 'taken-out' };
  /** A kind of identifier, a flow or a meaning was declared, changed or taken away. */
  declared: { what: 'kind' | 'flow' | 'meaning'; name: string; who: string };
  /** Strands were judged: founder, outcome before (null: there was none), outcome now (null: there is none any more). */
  'strands-judged': { strands: [founder: number, before: string | null, now: string | null][] };
  /** Who belongs to whom was worked out, and strands were judged by it. */
  woven: { strands: number };
  /** All of an import is read and judged, or nothing of it could be read. */
  'import-ended': { importId: number; state: 'done' | 'failed' };
  /** An import was taken out. */
  'import-removed': { importId: number };
  /** Nothing is written to a day any more, and its words are indexed. */
  'day-sealed': { leaf: string };
}
export type HappeningKind = keyof Happened;

/** One happening, as it is heard. */
export type Happening = { [Kind in HappeningKind]: { id: string; at: Date; kind: Kind; body: Happened[Kind] } }[HappeningKind];

/** The channel on which listeners are woken. It carries nothing: what happened stands in the table. */
export const WAKE = 'fadenweg';
