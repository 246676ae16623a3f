import { createWriteStream, mkdirSync, type WriteStream } from 'node:fs';
import { once } from 'node:events';
import { dirname, join } from 'node:path';
import type { Micros } from './times.ts';

/** What really happened to one strand, written beside the logs and never read by the product. */
export interface Truth {
  flow: string;
  businessId: string;
  identifiers: { kind: string; value: string }[];
  startedAt: Micros;
  outcome: string;
  /** Outcomes that are as right: at the margin of what is slow. */
  alsoRight?: string[];
  story: number | null;
  /** What kind of fault it is, where no story tells it. */
  kind?: string;
  /** The right answer: the record that tells, by its place, and the components. */
  cause: { failedIn: string; component: string; record: { source: string; line: number } | null; accepted: string[] } | null;
  /** Of what never came: who should have spoken next. */
  next?: readonly string[];
  /** Of what was slow: how much longer it took than usual, in milliseconds. */
  lostMs?: number;
  attributes: Record<string, string>;
  records: { source: string; line: number }[];
  /** When each component really began and ended to work on it, by the folder of its log. */
  spans: Record<string, TrueSpan>;
  /** How it went on its way, where that is more than one thing after the other. */
  course?: TrueCourse;
}
export interface TrueCourse {
  legs: number;
  /** How often a component was asked for the same, by component. */
  attempts: Record<string, number>;
  /** Components that were at work side by side. */
  parallel: string[];
}
export interface TrueSpan {
  from: Micros;
  to: Micros;
  /** How coarsely its log tells times; left out for milliseconds and finer. */
  grain?: Micros;
}

interface Pending {
  at: Micros;
  /** When what it tells of began. */
  from: Micros;
  order: number;
  text: string;
  truth: OpenTruth | null;
  isCause: boolean;
}
export interface OpenTruth {
  truth: Truth;
  waiting: number;
  closed: boolean;
}

/** One log file: lines are written in order of time although flows emit them out of order. */
class LogFile {
  private readonly heap: Pending[] = [];
  private readonly stream: WriteStream;
  private buffer: string[] = [];
  private size = 0;
  private line = 1;
  records = 0;

  constructor(
    readonly path: string,
    folder: string,
    private readonly grain: Micros | undefined,
  ) {
    const full = join(folder, path);
    mkdirSync(dirname(full), { recursive: true });
    this.stream = createWriteStream(full);
  }

  push(entry: Pending): void {
    const heap = this.heap;
    let i = heap.push(entry) - 1;
    while (i > 0) {
      const parent = (i - 1) >> 1;
      if (!before(entry, heap[parent]!)) break;
      heap[i] = heap[parent]!;
      i = parent;
    }
    heap[i] = entry;
  }

  /** Moves everything before `until` to the file's buffer. */
  release(until: Micros, closed: (open: OpenTruth) => void): void {
    while (this.heap.length > 0 && this.heap[0]!.at < until) {
      const entry = this.pop();
      this.buffer.push(entry.text);
      this.size += entry.text.length + 1;
      this.records++;
      if (entry.truth) {
        const place = { source: this.path, line: this.line };
        entry.truth.truth.records.push(place);
        spread(entry.truth.truth.spans, this.path.slice(0, this.path.indexOf('/')), entry, this.grain);
        if (entry.isCause && entry.truth.truth.cause) entry.truth.truth.cause.record = place;
        entry.truth.waiting--;
        if (entry.truth.closed && entry.truth.waiting === 0) closed(entry.truth);
      }
      this.line++;
      for (let at = entry.text.indexOf('\n'); at >= 0; at = entry.text.indexOf('\n', at + 1)) this.line++;
    }
  }

  private pop(): Pending {
    const heap = this.heap;
    const top = heap[0]!;
    const last = heap.pop()!;
    if (heap.length > 0) {
      let i = 0;
      for (;;) {
        let child = 2 * i + 1;
        if (child >= heap.length) break;
        if (child + 1 < heap.length && before(heap[child + 1]!, heap[child]!)) child++;
        if (!before(heap[child]!, last)) break;
        heap[i] = heap[child]!;
        i = child;
      }
      heap[i] = last;
    }
    return top;
  }

  async write(least: number): Promise<void> {
    if (this.size <= least || this.buffer.length === 0) return;
    const text = this.buffer.join('\n') + '\n';
    this.buffer = [];
    this.size = 0;
    if (!this.stream.write(text)) await once(this.stream, 'drain');
  }

  async end(): Promise<void> {
    await this.write(0);
    this.stream.end();
    await once(this.stream, 'finish');
  }
}

function spread(spans: Truth['spans'], component: string, { from, at }: Pending, grain: Micros | undefined): void {
  const own = (spans[component] ??= { from, to: at, ...(grain === undefined ? {} : { grain }) });
  own.from = Math.min(own.from, from);
  own.to = Math.max(own.to, at);
}
const before = (a: Pending, b: Pending): boolean => a.at < b.at || (a.at === b.at && a.order < b.order);

/** Collects the lines of all components and writes them as a stream; memory is bounded by what is under way at one time. */
export class Sink {
  private readonly files = new Map<string, LogFile>();
  private readonly truthFile: LogFile;
  private order = 0;
  strands = 0;

  constructor(
    private readonly folder: string,
    truthFolder: string,
    /** How coarsely logs tell times, by path, where it is coarser than milliseconds. */
    private readonly grains: Record<string, Micros> = {},
  ) {
    this.truthFile = new LogFile('truth.jsonl', truthFolder, undefined);
  }

  get records(): number {
    let count = 0;
    for (const file of this.files.values()) count += file.records;
    return count;
  }

  open(truth: Omit<Truth, 'records' | 'spans'>): OpenTruth {
    return { truth: { ...truth, records: [], spans: {} }, waiting: 0, closed: false };
  }

  /** A record of a component; `isCause` marks the line that a strand's cause names, `from` is when what it tells of began. */
  emit(path: string, at: Micros, text: string, truth: OpenTruth | null = null, isCause = false, from = at): void {
    let file = this.files.get(path);
    if (!file) this.files.set(path, (file = new LogFile(path, this.folder, this.grains[path])));
    if (truth) truth.waiting++;
    file.push({ at: Math.floor(at), from: Math.floor(from), order: this.order++, text, truth, isCause });
  }

  /** Nothing more will be said about this strand. */
  close(open: OpenTruth): void {
    open.closed = true;
    if (open.waiting === 0) this.finished(open);
  }

  private finished(open: OpenTruth): void {
    this.strands++;
    this.truthFile.push({ at: this.strands, from: this.strands, order: this.order++, text: JSON.stringify(open.truth), truth: null, isCause: false });
  }

  /** Nothing earlier than `until` will be emitted any more. */
  async advance(until: Micros, least = 1 << 20): Promise<void> {
    for (const file of this.files.values()) {
      file.release(until, (open) => this.finished(open));
      await file.write(least);
    }
    this.truthFile.release(Infinity, () => {});
    await this.truthFile.write(least);
  }

  async end(): Promise<void> {
    await this.advance(Infinity);
    for (const file of this.files.values()) await file.end();
    await this.truthFile.end();
  }
}

/** Where what is said goes to when nothing is to be written: what an order would have done had it gone on. */
export const silent = { emit: () => {} } as unknown as Sink;
