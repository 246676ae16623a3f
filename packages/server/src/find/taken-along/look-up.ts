import { MARK } from '@fadenweg/core/path';
import { LEVELS, type LevelName } from '@fadenweg/core/units';
import { weightInMarks, weightName } from '@fadenweg/core/weights';
import { FLAG, timeFrom } from '../../evidence/record-id.ts';
import { strandId, type IdentifierRepository, type Named } from '../../evidence/identifiers.ts';
import type { CopyRepository } from '../../evidence/copies.ts';
import type { Names } from '../../evidence/names.ts';
import { recordKey } from '../../evidence/record-key.ts';
import type { RecordRepository } from '../../evidence/records.ts';
import { sharedOf, type RecordText } from '../../evidence/record-texts.ts';
import type { SourceRepository } from '../../evidence/sources.ts';
import type { StrandRepository } from '../../weaving/strand-rows.ts';
import type { Beside, RecordForm } from './forms.ts';

const MARK_NAMES = Object.entries(MARK) as [string, number][];
/** So much is kept of each kind. */
const MOST_KNOWN = 200_000;

export interface Repositories {
  records: RecordRepository;
  sources: SourceRepository;
  identifiers: IdentifierRepository;
  strands: StrandRepository;
  names: Names;
  copies: CopyRepository;
}

/** What is written of a strand in a record that names it, and in one that is carried over to it. */
interface OfRecord {
  declared: Buffer;
  carried: Buffer;
}

/** What stands beside records, as it is written: what neighbours share is looked up once. For one export. */
export class LookUp {
  private readonly fixed = new Map<string, readonly Buffer[]>();
  private readonly shapes = new Map<number, Buffer>();
  private readonly identifiers = new Map<number, Buffer>();
  private readonly strands = new Map<number, OfRecord>();
  /** Of the records that were looked up last. */
  private copies = new Map<number, Buffer>();
  private readonly none: Buffer;
  private readonly uncopied: Buffer;

  constructor(
    private readonly from: Repositories,
    private readonly form: RecordForm,
  ) {
    this.none = Buffer.from(form.strand(null, false));
    this.uncopied = Buffer.from(form.copies([]) ?? '');
  }

  /** Looks up what is not known yet of these records. @param named identifiers that were looked up for something else */
  async learn(rows: readonly RecordText[], named: ReadonlyMap<number, Named>): Promise<void> {
    await Promise.all([
      this.learnFixed(rows),
      this.learnShapes(rows),
      this.learnIdentifiers(rows, named),
      this.learnStrands(rows),
      this.learnCopies(rows),
    ]);
  }
  of(row: RecordText): Beside {
    const identifiers: Buffer[] = [];
    for (const key of row.keys) {
      const one = this.identifiers.get(key);
      if (one) identifiers.push(one);
    }
    return {
      fixed: this.fixed.get(row.shared)!,
      shape: this.shapes.get(row.shape),
      identifiers,
      copies: this.copies.get(row.id) ?? this.uncopied,
      strand: (row.founder === null ? undefined : this.strands.get(row.founder)?.[row.carried ? 'carried' : 'declared']) ?? this.none,
    };
  }

  private async learnFixed(rows: readonly RecordText[]): Promise<void> {
    const unknown = unknownOf(this.fixed, rows, (row) => row.shared);
    if (unknown.length === 0) return;
    const parts = unknown.map(sharedOf);
    const sources = await this.from.sources.byIds([...new Set(parts.map(({ source_id }) => source_id))]);
    parts.forEach(({ source_id, component_id, host_id, level, flags, marks, logger }, i) => {
      const known = sources.get(source_id);
      const written = this.form.fixed({
        source: { id: source_id, path: known?.path ?? '' },
        component: this.from.names.component(component_id),
        host: this.from.names.host(host_id),
        environment: known?.environment ?? '',
        level: LEVELS[level] as LevelName,
        logger,
        understood: (flags & FLAG.understood) !== 0,
        timeFrom: timeFrom(flags, known),
        shortened: (flags & FLAG.shortened) !== 0,
        marks: MARK_NAMES.filter(([, bit]) => marks & bit).map(([name]) => name),
        weight: weightName(weightInMarks(marks)),
      });
      this.fixed.set(
        unknown[i]!,
        written.map((text) => Buffer.from(text)),
      );
    });
  }
  private async learnShapes(rows: readonly RecordText[]): Promise<void> {
    if (this.form.shape('') === null) return;
    const unknown = unknownOf(this.shapes, rows, (row) => row.shape);
    if (unknown.length > 0) for (const [id, text] of await this.from.records.shapes(unknown)) this.shapes.set(id, Buffer.from(this.form.shape(text)!)); // prettier-ignore
  }
  private async learnIdentifiers(rows: readonly RecordText[], named: ReadonlyMap<number, Named>): Promise<void> {
    if (this.form.identifier({ kind: '', value: '', role: '' }) === null) return;
    const write = (key: number, one: Named): unknown => this.identifiers.set(key, Buffer.from(this.form.identifier(one)!));
    const elsewhere: number[] = [];
    for (const key of unknownOf(this.identifiers, rows, (row) => row.keys)) {
      const one = named.get(key);
      if (one) write(key, one);
      else elsewhere.push(key);
    }
    for (const [key, one] of await this.from.identifiers.named(elsewhere)) write(key, one);
  }
  private async learnCopies(rows: readonly RecordText[]): Promise<void> {
    if (this.form.copies([]) === null) return;
    const found = await this.from.copies.of(rows);
    this.copies = new Map([...found].map(([id, copies]) => [id, Buffer.from(this.form.copies(copies.map(recordKey))!)]));
  }
  private async learnStrands(rows: readonly RecordText[]): Promise<void> {
    const unknown = unknownOf(this.strands, rows, (row) => row.founder);
    const [named, strands] = await Promise.all([this.from.identifiers.named(unknown), this.from.strands.byFounders(unknown)]);
    const strandOf = new Map(strands.map((strand) => [strand.founder, strand]));
    for (const [founder, { kind, scope, value }] of named) {
      const { flow = null, outcome = null } = strandOf.get(founder) ?? {};
      const written = (carried: boolean): Buffer => Buffer.from(this.form.strand({ strand: strandId(kind, scope, value), flow, outcome }, carried));
      this.strands.set(founder, { declared: written(false), carried: written(true) });
    }
  }
}

/** What is named and not known yet; where too much is known, all of it is forgotten first. */
function unknownOf<Item, Key, Known>(known: Map<Key, Known>, items: readonly Item[], keysOf: (item: Item) => Key | null | readonly Key[]): Key[] {
  if (known.size > MOST_KNOWN) known.clear();
  const unknown = new Set<Key>();
  for (const item of items) {
    const keys = keysOf(item);
    if (keys === null) continue;
    if (Array.isArray(keys)) {
      for (const key of keys as readonly Key[]) if (!known.has(key)) unknown.add(key);
    } else if (!known.has(keys as Key)) unknown.add(keys as Key);
  }
  return [...unknown];
}
