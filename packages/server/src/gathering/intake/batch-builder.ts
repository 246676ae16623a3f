import type { Mention } from '@fadenweg/core/identifiers';
import type { Draft, Frame, Place, RecordReader } from '@fadenweg/core/reading';
import { RecordMaker, type Made } from '@fadenweg/core/records';
import { shapeText } from '@fadenweg/core/shapes';
import { FLAG, recordId } from '../../evidence/record-id.ts';
import { COLUMNS } from '../../evidence/record-layout.ts';
import { writeJudged } from '../../evidence/judged-record.ts';
import type { Batch, Declarations } from '../../evidence/batch.ts';
import type { NameLists, ReadingJob } from './messages.ts';
import { CopyRows } from '../../database/copy-rows.ts';
import { Mentions } from './mentions.ts';
import { FaultCollector } from './fault-collector.ts';
import { ShapeCollector } from './shape-collector.ts';
import { OwnNames } from './own-names.ts';
import { Speakers } from './speakers.ts';
import { SignCollector } from './sign-collector.ts';

/** Longest message that is kept in the row, in characters; the rest is read from the kept bytes. */
const LONGEST_MESSAGE = 16_384;
/** Bytes of a row before its first field. */
const ROW_HEAD = 2;
/** Bytes for the rows of a batch to begin with. */
const [LEAST_ROOM, MOST_ROOM] = [1 << 14, 1 << 21];
const LONGEST_ATTRIBUTES = 65_536;
/** Ten thousand days. */
const LONGEST_TOOK = 8.64e14;
const MINUTE = 60_000_000;
const MINUTES_OF_DAY = 1440;
/** Turns the frames of one source into batches of rows. One for each source that is read. */
export class BatchBuilder {
  private readonly maker: RecordMaker;
  private readonly signs = new SignCollector();
  private readonly knownShapes = new Set<number>();
  private readonly fieldNames = new Map<string, string>();
  private records: CopyRows;
  private glimpses: CopyRows;
  private places: number[] = [];
  /** Bytes that the rows of a batch are likely to take. */
  private readonly room: number;
  private count = 0;
  private understood = 0;
  private firstAt = Infinity;
  private latestAt = -Infinity;
  private days = new Set<number>();
  private minutes = new Map<number, number>();
  private minute = NaN;
  private readonly levels = [0, 0, 0, 0, 0, 0, 0, 0];
  private readonly mentions: Mentions;
  private shapes: { id: number; text: string }[] = [];
  private readonly keys: number[] = [];
  private readonly components: OwnNames;
  private readonly hosts: OwnNames;
  private readonly speakers = new Speakers();
  private readonly faults: FaultCollector;
  private readonly said = new ShapeCollector();

  /** @param start the source's first text, by which its layout is learned; @param whole that is all of it */
  constructor(
    private readonly job: ReadingJob,
    declarations: Declarations,
    start: string,
    whole: boolean,
  ) {
    this.maker = new RecordMaker(job, declarations, start, whole);
    this.faults = new FaultCollector(declarations.parted);
    this.room = 8 * Math.ceil(Math.min(MOST_ROOM, Math.max(LEAST_ROOM, job.size)) / 8);
    this.records = new CopyRows(this.room, this.fieldNames);
    this.glimpses = new CopyRows(this.room / 2);
    this.mentions = new Mentions(declarations, this.room / 8);
    this.components = new OwnNames(job.componentId);
    this.hosts = new OwnNames(job.hostId);
  }
  get reader(): RecordReader {
    return this.maker.reader;
  }

  add(frame: Frame): void {
    const { job } = this;
    const made = this.maker.make(frame);
    if (!made) return;
    const { draft, at, mentions, home, shape } = made;
    const id = recordId(job.sourceId, frame.byteFrom);
    this.speakers.note(draft.component, draft.host);
    if (!job.hints.snapshots) this.mentions.note(mentions, home, at, id);
    this.signs.note(draft, draft.component || job.component, draft.host || job.host, id, home < 0);
    if (!this.knownShapes.has(shape)) {
      this.knownShapes.add(shape);
      this.shapes.push({ id: shape, text: shapeText(made.varying) });
    }
    const minute = Math.floor(at / MINUTE);
    if (minute !== this.minute) this.turn(minute);
    this.levels[draft.level]!++;
    this.count++;
    if (draft.understood) this.understood++;
    if (at < this.firstAt) this.firstAt = at;
    if (at > this.latestAt) this.latestAt = at;
    this.row(frame, made, home < 0 ? null : mentions[home]!.key, id);
    this.said.note(at, draft.component, shape, draft.level);
    this.faults.note(made, draft.component || job.component, id, job.sourceId, (rows) => this.hosts.write(rows, draft.host));
  }

  /** Records mostly follow each other in time: the minute at hand is counted apart from those that are over. */
  private turn(minute: number): void {
    for (let level = 0; level < this.levels.length; level++) {
      const count = this.levels[level]!;
      if (count === 0) continue;
      const slot = this.minute * 8 + level;
      this.minutes.set(slot, (this.minutes.get(slot) ?? 0) + count);
      this.levels[level] = 0;
    }
    this.minute = minute;
    if (!Number.isNaN(minute)) this.days.add(Math.floor(minute / MINUTES_OF_DAY));
  }

  private row(frame: Frame, { draft, mentions, shape, shift, marks, lane, traits }: Made, home: number | null, id: number): void {
    const { records, job } = this;
    const shortened = draft.message.length > LONGEST_MESSAGE;
    records.begin(COLUMNS.length);
    records.big(draft.at);
    records.big(id);
    records.int(job.sourceId);
    records.int(frame.line);
    records.int(frame.byteTo - frame.byteFrom);
    this.components.write(records, draft.component);
    this.hosts.write(records, draft.host);
    records.small(draft.level);
    records.small(marks);
    records.small((draft.understood ? FLAG.understood : 0) | (frame.cut ? FLAG.cut : 0) | (shortened ? FLAG.shortened : 0));
    if (draft.took >= 0) records.big(Math.min(draft.took, LONGEST_TOOK));
    else records.nothing();
    records.big(shape);
    if (home === null) records.nothing();
    else records.big(home);
    records.text(draft.logger);
    records.text(draft.timeText);
    records.text(shortened ? draft.message.slice(0, LONGEST_MESSAGE) : draft.message);
    records.object(bounded(draft.fields));
    this.keysOf(mentions);
    if (lane === null) records.nothing();
    else records.int(lane);
    if (shift === 0) records.nothing();
    else records.big(shift);
    if (traits === '') records.nothing();
    else records.text(traits);
    if (home !== null) this.glimpse(draft, home, id, marks, shape, traits);
  }

  private keysOf(mentions: readonly Mention[]): void {
    if (mentions.length === 0) {
      this.records.nothing();
      return;
    }
    this.keys.length = 0;
    for (const { key } of mentions) this.keys.push(key);
    this.records.bigs(this.keys);
  }
  private glimpse(draft: Draft, home: number, id: number, marks: number, shape: number, traits: string): void {
    const { glimpses } = this;
    this.places.push(home, draft.at, id, glimpses.length + ROW_HEAD);
    const names = (): void => {
      this.components.write(glimpses, draft.component);
      this.hosts.write(glimpses, draft.host);
    };
    const { level, message } = draft;
    writeJudged(glimpses, names, { level, marks, took: Math.min(draft.took, LONGEST_TOOK), message, shape, traits, keys: this.keys });
  }

  /** Names that came up and whose numbers are not known yet; null where there are none. */
  unknownNames(): NameLists<string[]> | null {
    const names = { component: this.components.unknown(), host: this.hosts.unknown() };
    return names.component.length + names.host.length > 0 ? names : null;
  }
  know(ids: NameLists<[string, number][]>): void {
    this.components.know(ids.component);
    this.hosts.know(ids.host);
  }

  /** Everything since the last call; all names have to be known. */
  take(next: Place, raw: Uint8Array | null, last: boolean): Batch {
    const { sourceId } = this.job;
    this.turn(NaN);
    const counts = new CopyRows();
    for (const [slot, count] of this.minutes) {
      counts.begin(4);
      counts.big(Math.floor(slot / 8) * MINUTE);
      counts.int(sourceId);
      counts.small(slot % 8);
      counts.int(count);
    }
    const batch: Batch = {
      sourceId,
      next,
      raw,
      last,
      count: this.count,
      understood: this.understood,
      firstAt: this.firstAt,
      lastAt: this.latestAt,
      state: {
        ...this.maker.state(last),
        inside: next.inside === true,
      },
      days: [...this.days],
      records: this.records.finish(),
      counts: counts.finish(),
      shapes: this.shapes,
      ...this.faults.take(),
      said: this.said.take(sourceId, (rows, component) => this.components.write(rows, component)),
      signs: this.signs.take(),
      speakers: this.speakers.take(),
      ...this.mentions.take(sourceId),
      glimpses: { sourceId, rows: this.glimpses.finish(), places: Float64Array.from(this.places) },
    };
    this.glimpses = new CopyRows(this.room / 2);
    this.places = [];
    this.records = new CopyRows(this.room, this.fieldNames);
    this.count = this.understood = 0;
    this.firstAt = Infinity;
    this.latestAt = -Infinity;
    this.days = new Set();
    this.minutes = new Map();
    this.shapes = [];
    return batch;
  }
}

/** Fields that fit into a row: of very many or very long ones, the beginnings. */
function bounded(fields: Draft['fields']): Draft['fields'] {
  let length = 0;
  for (const name in fields) {
    const value = fields[name]!;
    length += name.length + (typeof value === 'string' ? value.length : 20) + 6;
  }
  if (length <= LONGEST_ATTRIBUTES) return fields;
  return Object.fromEntries(
    Object.entries(fields).map(([name, value]) => [name.slice(0, 200), typeof value === 'string' ? value.slice(0, 200) : value]),
  );
}
