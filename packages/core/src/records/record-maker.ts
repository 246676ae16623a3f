import { Finder } from '../identifiers/finder.ts';
import type { Mention } from '../identifiers/types.ts';
import { MARK, Marker } from '../path/marks.ts';
import { encode } from '../reading/encoding.ts';
import { frame, type Frame } from '../reading/framing.ts';
import { openReader, sampleOf } from '../reading/registry.ts';
import { clearDraft, emptyDraft, type Draft, type RecordReader } from '../reading/types.ts';
import { measuresOf, withMeasures } from '../shapes/measures.ts';
import { shapeHash } from '../shapes/shape.ts';
import { traitsOf } from '../shapes/traits.ts';
import { withoutFields } from '../shapes/without-fields.ts';
import { withoutNames } from '../shapes/without-names.ts';
import { HomeChooser } from '../stitching/home.ts';
import { LaneFinder } from '../stitching/lane.ts';
import type { Duration, Microseconds } from '../units.ts';
import { weightOf, WordWeights, withWeight } from '../weights/index.ts';
import { ClockTable } from './clock-table.ts';
import { LaneSample } from './lane-sample.ts';
import { LastingSample } from './lasting-sample.ts';
import { TableRows } from './table-rows.ts';
import { FIRST_RECORDS, MOST_SHAPES, type Known, type RecordsState, type ToRead } from './types.ts';

const SECOND = 1_000_000;
/** A time that tells more than whole seconds: a fraction, or milliseconds since 1970. */
const FINER = /[.,]\d|^\d{13,}$/;
/** Times outside of this are a misreading: 1990 to 2100. */
const EARLIEST = 631_152_000_000_000;
const LATEST = 4_102_444_800_000_000;
/** Identifiers are not looked for in longer texts. */
const LONGEST_SEARCHED = 1_000_000;

/**
 * What is made of a frame of a source. One object is used again for each record on the hot path: whoever keeps one copies what it needs.
 */
export interface Made {
  draft: Draft;
  /** Corrected time; that of the draft. */
  at: Microseconds;
  /** What was added to the time as written. */
  shift: Duration;
  mentions: readonly Mention[];
  /** Place of its home among the mentions, -1 for none. */
  home: number;
  /** Hash of the shape, and the message that it is of, without what identifiers vary. */
  shape: number;
  varying: string;
  /** Bits of MARK, and the weight (`weightInMarks`). */
  marks: number;
  /** Number of its thread or process, null for none. */
  lane: number | null;
  /** What tells it apart besides its shape, with its measures. */
  traits: string;
}

/** Makes records of the frames of one source, in the order in which they stand there. */
export class RecordMaker {
  readonly reader: RecordReader;
  private readonly finder: Finder;
  private readonly chooser: HomeChooser;
  private readonly marker: Marker;
  private readonly lanes: LaneFinder;
  private readonly laneSample: LaneSample | null;
  private readonly clocks: ClockTable;
  private readonly lasting: LastingSample;
  private readonly table: TableRows | null;
  private readonly weights = new WordWeights();
  private readonly made: Made;
  private readonly shapes: Set<number>;
  private count = 0;
  private lastAt: Microseconds;
  /** A record was placed. */
  private begun: boolean;

  /**
   * @param start the source's first text, by which its layout is learned
   * @param whole that is all of it
   */
  constructor(
    private readonly source: ToRead,
    private readonly known: Known,
    private readonly start: string,
    private readonly whole: boolean,
  ) {
    const { path, format, hints, zone, state } = source;
    this.reader = openReader(format, sampleOf(path, start, whole), {
      ...hints,
      zone,
      ...(state ? { anchor: state.lastAt, memory: state.memory } : {}),
    });
    this.shapes = new Set(state?.shapes);
    this.lanes = new LaneFinder(hints.laneBy);
    this.laneSample = hints.laneBy === undefined ? new LaneSample(state?.laneBy) : null;
    this.finder = finderOf(known.kinds);
    this.chooser = new HomeChooser(known.kinds, state?.homeCounts);
    this.marker = new Marker(known.rules);
    this.lastAt = state?.lastAt ?? hints.modified;
    this.begun = state !== null;
    this.clocks = new ClockTable(known.clocks);
    this.lasting = new LastingSample(state?.lasting);
    this.table = format === 'table' && hints.snapshots === undefined ? new TableRows(state?.snapshots) : null;
    this.made = { draft: emptyDraft(), at: NaN, shift: 0, mentions: [], home: -1, shape: 0, varying: '', marks: 0, lane: null, traits: '' };
  }

  /** Null where the frame is none: blank lines before the first record, framing of the format. */
  make(frame: Frame): Made | null {
    const { source, made } = this;
    const { draft } = made;
    clearDraft(draft);
    if (frame.cut) draft.message = frame.text;
    else this.reader.read(frame.text, draft);
    if (draft.framing || (draft.message.length < 20 && !draft.understood && frame.text.trim() === '')) return null;
    this.place(draft);
    if (!source.ownComponents) draft.component = '';
    if (!source.ownHosts) draft.host = '';
    const host = draft.host || source.host;
    const component = draft.component || source.component;
    const shift = this.clocks.shift(host, component, draft.at);
    draft.at += shift;
    const mentions = frame.text.length > LONGEST_SEARCHED ? [] : this.finder.find(frame.text, draft.fields, host);
    made.at = draft.at;
    made.shift = shift;
    made.mentions = mentions;
    // a state that was seen names what was under way, and is no event of it
    made.home = source.hints.snapshots ? -1 : this.chooser.choose(mentions);
    this.table?.note(draft);
    made.varying = withoutNames(draft.message, mentions);
    const whole = shapeHash(made.varying);
    made.varying = withoutFields(made.varying);
    made.shape = shapeHash(made.varying);
    if (this.count++ < FIRST_RECORDS && this.shapes.size < MOST_SHAPES && draft.understood) this.shapes.add(made.shape);
    made.marks = withWeight(this.marksOf(made, component, whole), weightOf(draft.level, this.weights.of(draft.message)));
    made.lane = source.hints.snapshots ? null : this.lanes.laneOf(draft.fields);
    this.laneSample?.note(draft.fields, this.businessAt(made), made.lane !== null);
    made.traits = withMeasures(traitsOf(draft.message, draft.fields), measuresOf(draft.fields));
    return made;
  }

  /** What the next piece of the source needs to know. @param last nothing more comes */
  state(last: boolean): RecordsState {
    return {
      homeCounts: this.chooser.state(),
      lastAt: this.lastAt,
      memory: this.reader.save?.(),
      lasting: this.lasting.taken,
      shapes: [...this.shapes],
      laneBy: this.laneSample?.told(last),
      snapshots: this.table?.told(last),
    };
  }

  private businessAt({ mentions, home }: Made): number {
    const one = home < 0 ? undefined : mentions[home];
    return one && this.known.kinds[one.kind]!.role === 'business' ? one.key : 0;
  }
  /** What tells no time stands between its neighbours: before the first that tells one, where it begins the source. */
  private place(draft: Draft): void {
    if (draft.at >= EARLIEST && draft.at < LATEST) this.lastAt = draft.at;
    else {
      if (!this.begun) this.lastAt = this.firstTold() ?? this.lastAt;
      draft.at = this.lastAt;
      draft.understood = false;
    }
    this.begun = true;
  }
  private marksOf({ draft, shift, mentions }: Made, component: string, shape: number): number {
    const { standsAt } = this.source.hints;
    const at = draft.at - shift;
    const coarse = at % SECOND === 0 && !FINER.test(draft.timeText);
    if (draft.took > 0 && !draft.begins && standsAt === undefined) this.lasting.note(at, draft.took, coarse, mentions);
    return (
      this.marker.marks(draft, component, shape) |
      (coarse ? MARK.coarse : 0) |
      (draft.took > 0 && (draft.begins || standsAt === 'begin') ? MARK.begins : 0)
    );
  }
  /** The first time that the source's beginning tells, null where it tells none. */
  private firstTold(): Microseconds | null {
    const { path, format, hints, zone } = this.source;
    const reader = openReader(format, sampleOf(path, this.start, this.whole), { ...hints, zone });
    const draft = emptyDraft();
    let first: number | null = null;
    frame(encode(this.start), { byte: 0, line: 1 }, 'utf-8', reader, true, ({ text, cut }) => {
      if (first !== null || cut) return;
      clearDraft(draft);
      reader.read(text, draft);
      if (draft.understood && draft.at >= EARLIEST && draft.at < LATEST) first = draft.at;
    });
    return first;
  }
}

/** The finder of the source before, where the same kinds are declared: it knows its patterns and the names of fields. */
let kept: { kinds: string; finder: Finder } | null = null;
function finderOf(kinds: Known['kinds']): Finder {
  const text = JSON.stringify(kinds);
  if (kept?.kinds !== text) kept = { kinds: text, finder: new Finder(kinds) };
  return kept.finder;
}
