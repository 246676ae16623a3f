import type { Microseconds } from '../units.ts';
import type { Encoding } from './encoding.ts';
import { frame, type Place } from './framing.ts';
import { openReader } from './registry.ts';
import { clearDraft, emptyDraft, type ReadingContext, type RecordReader, type Sample } from './types.ts';

/** What comes of reading a source in another way. */
export interface TrialResult {
  records: number;
  understood: number;
  first: Microseconds | null;
  last: Microseconds | null;
  /** Records that stand more than a minute before the one above them: many of them tell of parts that are confused. */
  backwards: number;
  /** Some of those that are understood, from all over what was read, with the time as it is written. */
  examples: { line: number; text: string; at: Microseconds }[];
  /** The first that are not. */
  missed: { line: number; text: string }[];
}

const MOST = 5;
const LONGEST = 200;
const BACK: Microseconds = 60_000_000;

/** Reads the bytes of a source without keeping anything, and tells what would come of it. */
export class LayoutTrial {
  private readonly reader: RecordReader;
  private readonly draft = emptyDraft();
  private place: Place = { byte: 0, line: 1 };
  private rest: Uint8Array = new Uint8Array(0);
  private before = NaN;
  /** Examples are every so many records. */
  private every = 1;
  readonly result: TrialResult = { records: 0, understood: 0, first: null, last: null, backwards: 0, examples: [], missed: [] };

  constructor(
    format: string,
    sample: Sample,
    context: ReadingContext,
    private readonly encoding: Encoding,
  ) {
    this.reader = openReader(format, sample, context);
  }

  /** The next bytes; with `last` nothing comes behind them. */
  feed(bytes: Uint8Array, last: boolean): void {
    const all = new Uint8Array(this.rest.length + bytes.length);
    all.set(this.rest);
    all.set(bytes, this.rest.length);
    const from = this.place.byte;
    this.place = frame(all, this.place, this.encoding, this.reader, last, ({ text, line, cut }) => this.take(text, line, cut));
    this.rest = all.subarray(this.place.byte - from);
  }

  private take(text: string, line: number, cut: boolean): void {
    const { draft, result } = this;
    clearDraft(draft);
    if (!cut) this.reader.read(text, draft);
    if (draft.framing) return;
    result.records++;
    const shown = text.slice(0, LONGEST);
    if (!draft.understood) {
      if (result.missed.length < MOST) result.missed.push({ line, text: shown });
      return;
    }
    result.understood++;
    result.first = result.first === null ? draft.at : Math.min(result.first, draft.at);
    result.last = result.last === null ? draft.at : Math.max(result.last, draft.at);
    if (draft.at < this.before - BACK) result.backwards++;
    this.before = draft.at;
    if (result.understood % this.every === 0) result.examples.push({ line, text: shown, at: draft.at });
    if (result.examples.length <= MOST) return;
    this.every *= 2;
    result.examples = result.examples.filter((_, i) => i % 2 === 0);
  }
}
