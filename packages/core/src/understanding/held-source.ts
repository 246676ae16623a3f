import { describeSource, SAMPLE, type Description } from '../reading/describe.ts';
import { decode } from '../reading/encoding.ts';
import { frame, type Place } from '../reading/framing.ts';
import { SLICE, withSlices } from '../reading/sample.ts';
import { familyOf } from '../reading/source-naming.ts';
import { NamedTogether } from '../records/named-together.ts';
import { RecordMaker, type Made } from '../records/record-maker.ts';
import { LONGEST_NAME, MOST_NAMES, type Known, type RecordsState } from '../records/types.ts';
import type { Level, Microseconds } from '../units.ts';
import type { HeldRecord, SourceFile } from './types.ts';

/** Bytes that are decoded at once. */
const STRIDE = 1 << 20;
/** Longest message that is kept, in characters, as everywhere. */
const LONGEST_MESSAGE = 16_384;
/** Ten thousand days. */
const LONGEST_TOOK = 8.64e14;
/** Positions in a source lie below this. */
const MOST_BYTES = 2 ** 36;

/** A source in memory: its bytes, how it is read, and what was read of it. */
export class HeldSource {
  readonly path: string;
  readonly family: string;
  zone: string;
  zoneBy: 'given' | 'guessed' = 'given';
  readonly about: Description;
  records: HeldRecord[] = [];
  named = new NamedTogether([]);
  state: RecordsState | null = null;
  understood = 0;
  first: Microseconds = Infinity;
  last: Microseconds = -Infinity;
  /** The source that tells the same. */
  copyOf: HeldSource | null = null;
  /** Its records that are out of sight, each with the one that is shown for it. */
  copies: { copy: HeldRecord; shown: HeldRecord }[] = [];

  constructor(
    readonly index: number,
    private readonly file: SourceFile,
    zone: string,
  ) {
    this.path = file.path;
    this.family = familyOf(file.path);
    this.zone = zone;
    this.about = describeSource({ size: this.size, at: (from, length) => this.bytes(from, length) }, file.path, file.modified, zone);
  }
  get size(): number {
    return this.file.bytes.length;
  }
  /** Text of some bytes. */
  text(from: number, length: number): string {
    return decode(this.bytes(from, length), this.about.encoding);
  }

  /** Reads it from its beginning, by what is known now; what was read before is forgotten. */
  read(known: Known): void {
    this.records = [];
    this.named = new NamedTogether(known.kinds);
    this.understood = 0;
    [this.first, this.last] = [Infinity, -Infinity];
    [this.copyOf, this.copies] = [null, []];
    const { about, path, zone } = this;
    const source = { path, zone, ...about, ownComponents: true, ownHosts: true, state: null };
    const maker = new RecordMaker(source, known, this.sample(), this.size <= SAMPLE);
    const names = { component: new OwnNames(about.component), host: new OwnNames(about.host) };
    let place: Place = { byte: 0, line: 1 };
    let reach = STRIDE;
    while (place.byte < this.size) {
      const some = this.bytes(place.byte, reach);
      const last = place.byte + some.length >= this.size;
      const next = frame(some, place, about.encoding, maker.reader, last, (one) => {
        const made = maker.make(one);
        if (made) this.hold(made, one.byteFrom, one.line, names);
      });
      if (next.byte === place.byte && last) break;
      reach = next.byte === place.byte ? reach + STRIDE : STRIDE;
      place = next;
    }
    this.state = maker.state(true);
  }
  /** Records that are copies of another source's are out of sight. */
  takeOut(copies: { copy: HeldRecord; shown: HeldRecord }[], of: HeldSource): void {
    const out = new Set(copies.map((one) => one.copy));
    this.records = this.records.filter((one) => !out.has(one));
    [this.copyOf, this.copies] = [of, copies];
  }

  private hold(made: Made, byte: number, line: number, names: { component: OwnNames; host: OwnNames }): void {
    const { draft, at, mentions, home } = made;
    const id = this.index * MOST_BYTES + byte;
    if (!this.about.hints.snapshots) this.named.note(mentions, home, at, id);
    if (draft.understood) this.understood++;
    this.first = Math.min(this.first, at);
    this.last = Math.max(this.last, at);
    this.records.push({
      id,
      source: this.index,
      line,
      at,
      shift: made.shift,
      component: names.component.of(draft.component),
      host: names.host.of(draft.host),
      level: draft.level as Level,
      marks: made.marks,
      took: draft.took >= 0 ? Math.min(draft.took, LONGEST_TOOK) : NaN,
      logger: draft.logger,
      message: draft.message.slice(0, LONGEST_MESSAGE),
      fields: draft.fields,
      shape: made.shape,
      traits: made.traits,
      keys: mentions.map((one) => one.key),
      home: home < 0 ? NaN : mentions[home]!.key,
      lane: made.lane,
      understood: draft.understood,
    });
  }
  private sample(): string {
    const { sampleAt } = this.about.hints;
    return sampleAt ? withSlices(sampleAt.map((place) => this.text(place, SLICE))) : this.text(0, SAMPLE);
  }
  private bytes(from: number, length: number): Uint8Array {
    return this.file.bytes.subarray(from, Math.min(from + length, this.size));
  }
}

/** Names that records give; too long ones, and those beyond many, count as the source's own. */
class OwnNames {
  private readonly names = new Set<string>();
  constructor(private readonly own: string) {}

  of(name: string): string {
    if (name === '') return this.own;
    if (this.names.has(name)) return name;
    if (name.length > LONGEST_NAME || this.names.size >= MOST_NAMES) return this.own;
    this.names.add(name);
    return name;
  }
}
