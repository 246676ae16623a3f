import {
  clearDraft,
  emptyDraft,
  Finder,
  HomeChooser,
  LaneFinder,
  MARK,
  Marker,
  openReader,
  sampleOf,
  measuresOf,
  traitsOf,
  withMeasures,
  withoutNames,
  shapeHash,
  shapeText,
  type Draft,
  type Frame,
  type Mention,
  type Place,
  type RecordReader,
} from '@fadenweg/core';
import { FLAG, recordId, type Batch, type Declarations, type NameLists, type ReadingJob } from './batch.ts';
import { Clocks } from './clocks.ts';
import { CopyRows } from './copy-rows.ts';
import { OwnNames } from './own-names.ts';
import { SignCollector } from './sign-collector.ts';

/** Longest message that is kept in the row, in characters; the rest is read from the kept bytes. */
const LONGEST_MESSAGE = 16_384;
/** Beginning of a message that judging sees, in characters. */
const GLIMPSE = 161;
const LONGEST_ATTRIBUTES = 65_536;
/** Ten thousand days. */
const LONGEST_TOOK = 8.64e14;
const SECOND = 1_000_000;
/** A time that tells more than whole seconds: a fraction, or milliseconds since 1970. */
const FINER = /[.,]\d|^\d{13,}$/;
const MINUTE = 60_000_000;
const MINUTES_OF_DAY = 1440;
/** Times outside of this are a misreading: 1990 to 2100. */
const EARLIEST = 631_152_000_000_000;
const LATEST = 4_102_444_800_000_000;

interface Sighting {
  kind: number;
  scope: string;
  value: string;
  first: number;
  last: number;
  count: number;
}
interface Edge {
  a: number;
  b: number;
  first: number;
  firstId: number;
  last: number;
  count: number;
}

/** Turns the frames of one source into batches of rows. One for each source that is read. */
export class BatchBuilder {
  readonly reader: RecordReader;
  private readonly finder: Finder;
  private readonly chooser: HomeChooser;
  private readonly marker: Marker;
  private readonly lanes = new LaneFinder();
  private readonly signs = new SignCollector();
  private readonly draft: Draft = emptyDraft();
  private readonly knownShapes = new Set<number>();
  private lastAt: number;
  private readonly fieldNames = new Map<string, string>();
  private records = new CopyRows(1 << 21, this.fieldNames);
  private glimpses = new CopyRows(1 << 20);
  private count = 0;
  private understood = 0;
  private firstAt = Infinity;
  private latestAt = -Infinity;
  private days = new Set<number>();
  private minutes = new Map<number, number>();
  private minute = NaN;
  private readonly levels = [0, 0, 0, 0, 0, 0, 0, 0];
  private sightings = new Map<number, Sighting>();
  /** By home; a home is named together with few others. */
  private edges = new Map<number, Edge[]>();
  private edgeCount = 0;
  private shapes: { id: number; text: string }[] = [];
  private readonly keys: number[] = [];
  private readonly components: OwnNames;
  private readonly hosts: OwnNames;
  private readonly clocks: Clocks;

  /** @param start the source's first text, by which its layout is learned */
  constructor(
    private readonly job: ReadingJob,
    private readonly declarations: Declarations,
    start: string,
    whole: boolean,
  ) {
    this.reader = openReader(job.format, sampleOf(job.path, start, whole), {
      ...job.hints,
      zone: job.zone,
      ...(job.state ? { anchor: job.state.lastAt, memory: job.state.memory } : {}),
    });
    this.finder = new Finder(declarations.kinds);
    this.chooser = new HomeChooser(declarations.kinds, job.state?.homeCounts);
    this.marker = new Marker(declarations.rules);
    this.lastAt = job.state?.lastAt ?? job.hints.modified;
    this.components = new OwnNames(job.componentId);
    this.hosts = new OwnNames(job.hostId);
    this.clocks = new Clocks(declarations.clocks);
  }

  add(frame: Frame): void {
    const { draft, job } = this;
    clearDraft(draft);
    if (frame.cut) draft.message = frame.text;
    else this.reader.read(frame.text, draft);
    // blank lines before the first record belong to none
    if (draft.framing || (draft.message.length < 20 && !draft.understood && frame.text.trim() === '')) return;
    if (draft.at >= EARLIEST && draft.at < LATEST) this.lastAt = draft.at;
    else {
      draft.at = this.lastAt;
      draft.understood = false;
    }
    const id = recordId(job.sourceId, frame.byteFrom);
    if (!job.ownComponents) draft.component = '';
    if (!job.ownHosts) draft.host = '';
    const shift = this.clocks.shift(draft.host || job.host, draft.component || job.component, draft.at);
    draft.at += shift;
    const { at } = draft;
    const mentions = frame.text.length > 1_000_000 ? [] : this.finder.find(frame.text, draft.fields, draft.host === '' ? job.host : draft.host);
    const home = this.chooser.choose(mentions);
    this.note(mentions, home, at, id);
    this.signs.note(draft, draft.component || job.component, draft.host || job.host, id, home < 0);
    const varying = withoutNames(draft.message, mentions);
    const shape = shapeHash(varying);
    if (!this.knownShapes.has(shape)) {
      this.knownShapes.add(shape);
      this.shapes.push({ id: shape, text: shapeText(varying) });
    }
    const minute = Math.floor(at / MINUTE);
    if (minute !== this.minute) this.turn(minute);
    this.levels[draft.level]!++;
    this.count++;
    if (draft.understood) this.understood++;
    if (at < this.firstAt) this.firstAt = at;
    if (at > this.latestAt) this.latestAt = at;
    this.row(frame, draft, mentions, home < 0 ? null : mentions[home]!.key, id, shape, shift);
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

  private row(frame: Frame, draft: Draft, mentions: readonly Mention[], home: number | null, id: number, shape: number, shift: number): void {
    const { records, job } = this;
    const shortened = draft.message.length > LONGEST_MESSAGE;
    records.begin(21);
    records.big(draft.at);
    records.big(id);
    records.int(job.sourceId);
    records.int(frame.line);
    records.int(frame.byteTo - frame.byteFrom);
    this.components.write(records, draft.component);
    this.hosts.write(records, draft.host);
    records.small(draft.level);
    const marks =
      this.marker.marks(draft, draft.component === '' ? job.component : draft.component, shape) |
      ((draft.at - shift) % SECOND === 0 && !FINER.test(draft.timeText) ? MARK.coarse : 0);
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
    if (mentions.length === 0) records.nothing();
    else {
      this.keys.length = 0;
      for (const { key } of mentions) this.keys.push(key);
      records.bigs(this.keys);
    }
    const lane = this.lanes.laneOf(draft.fields);
    if (lane === null) records.nothing();
    else records.int(lane);
    if (shift === 0) records.nothing();
    else records.big(shift);
    const traits = withMeasures(traitsOf(draft.message, draft.fields), measuresOf(draft.fields));
    if (traits === '') records.nothing();
    else records.text(traits);
    if (home !== null) this.glimpse(draft, home, id, marks, shape, traits);
  }

  private glimpse(draft: Draft, home: number, id: number, marks: number, shape: number, traits: string): void {
    const { glimpses } = this;
    glimpses.begin(12);
    glimpses.big(home);
    glimpses.big(draft.at);
    glimpses.big(id);
    this.components.write(glimpses, draft.component);
    this.hosts.write(glimpses, draft.host);
    glimpses.small(draft.level);
    glimpses.small(marks);
    if (draft.took >= 0) glimpses.big(Math.min(draft.took, LONGEST_TOOK));
    else glimpses.nothing();
    glimpses.text(draft.message.length > GLIMPSE ? draft.message.slice(0, GLIMPSE) : draft.message);
    glimpses.big(shape);
    glimpses.text(traits);
    glimpses.bigs(this.keys);
  }

  /** Collects what the batch says about identifiers: where each was seen, and which were named together with the home. */
  private note(mentions: readonly Mention[], home: number, at: number, id: number): void {
    const homeKey = home < 0 ? 0 : mentions[home]!.key;
    for (let i = 0; i < mentions.length; i++) {
      const { key, kind, scope, value } = mentions[i]!;
      const known = this.sightings.get(key);
      if (known) {
        known.count++;
        if (at > known.last) known.last = at;
        else if (at < known.first) known.first = at;
      } else this.sightings.set(key, { kind, scope, value, first: at, last: at, count: 1 });
      if (home < 0 || i === home || this.declarations.kinds[kind]!.role === 'shared') continue;
      let own = this.edges.get(homeKey);
      if (!own) this.edges.set(homeKey, (own = []));
      const edge = own.find((one) => one.b === key);
      if (!edge) {
        own.push({ a: homeKey, b: key, first: at, firstId: id, last: at, count: 1 });
        this.edgeCount++;
      } else {
        edge.count++;
        if (at > edge.last) edge.last = at;
        else if (at < edge.first) {
          edge.first = at;
          edge.firstId = id;
        }
      }
    }
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
    const seen = new Float64Array(this.sightings.size * 4);
    const sightings = this.sightingRows(seen);
    const tied = new Float64Array(this.edgeCount * 4);
    const edges = this.edgeRows(tied);
    const batch: Batch = {
      sourceId,
      next,
      raw,
      last,
      count: this.count,
      understood: this.understood,
      firstAt: this.firstAt,
      lastAt: this.latestAt,
      state: { homeCounts: this.chooser.state(), lastAt: this.lastAt, inside: next.inside === true, memory: this.reader.save?.() },
      days: [...this.days],
      records: this.records.finish(),
      counts: counts.finish(),
      sightings,
      edges,
      shapes: this.shapes,
      signs: this.signs.take(),
      seen,
      tied,
      glimpses: this.glimpses.finish(),
    };
    this.glimpses = new CopyRows(1 << 20);
    this.records = new CopyRows(1 << 21, this.fieldNames);
    this.count = this.understood = 0;
    this.firstAt = Infinity;
    this.latestAt = -Infinity;
    this.days = new Set();
    this.minutes = new Map();
    this.sightings = new Map();
    this.edges = new Map();
    this.edgeCount = 0;
    this.shapes = [];
    return batch;
  }

  private sightingRows(seen: Float64Array): Uint8Array {
    const rows = new CopyRows(1 << 18);
    let i = 0;
    for (const [key, { kind, scope, value, first, last, count }] of this.sightings) {
      const kindId = this.declarations.kindIds[kind]!;
      rows.begin(8);
      rows.big(key);
      rows.small(kindId);
      rows.int(this.job.sourceId);
      rows.text(scope);
      rows.text(value);
      rows.big(first);
      rows.big(last);
      rows.int(count);
      seen[i++] = key;
      seen[i++] = kindId;
      seen[i++] = first;
      seen[i++] = last;
    }
    return rows.finish();
  }

  private edgeRows(tied: Float64Array): Uint8Array {
    const rows = new CopyRows(1 << 18);
    let i = 0;
    for (const { a, b, first, firstId, last, count } of [...this.edges.values()].flat()) {
      rows.begin(7);
      rows.big(a);
      rows.big(b);
      rows.int(this.job.sourceId);
      rows.big(first);
      rows.big(firstId);
      rows.big(last);
      rows.int(count);
      tied[i++] = a;
      tied[i++] = b;
      tied[i++] = first;
      tied[i++] = last;
    }
    return rows.finish();
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
