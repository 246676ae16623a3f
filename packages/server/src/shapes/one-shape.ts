import type { LevelName, ShapeDetail, ShapeParameter } from '@fadenweg/api';
import { fitting, parameterKind, parameterReader, proposedNames, writtenParts } from '@fadenweg/core/shapes';
import { distribution } from '@fadenweg/core/statistics';
import { isoMicros, LEVELS } from '@fadenweg/core/units';
import { weightName, weightOf, weightOfShape, weightOfWords } from '@fadenweg/core/weights';
import { labelIn, type DeclarationRepository } from '../declared/declarations.ts';
import type { Names } from '../evidence/names.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { NamedParameter, Parameters } from '../kept/parameters.ts';
import { notFound } from '../platform/http/problems.ts';
import type { ShapeHands } from './shape-hands.ts';
import { SLOT_LENGTH, slotOf, type ShapeRecord, type ShapeRepository, type Stretch } from './shape-rows.ts';

const PIECES = 48;
const DAYS = 15 * 86_400_000_000;
/** Of so many of the latest ten minutes in which it was said records are read. */
const MOST_SLOTS = 40;
/** So many of its latest records tell its parameters; so many values of each are told; so many twins. */
const LOOKED = 1000;
const VALUES = 12;
const TWINS = 40;
/** Share of values that must be numbers. */
const NUMERIC = 0.95;

export interface ShapeAsked extends Stretch {
  component: string;
  text: string;
  environment: string[];
}

/** One shape: when it was said, what it is made of, what its parameters are, whose strands pass it. */
export class OneShape {
  constructor(
    private readonly rows: ShapeRepository,
    private readonly hands: ShapeHands,
    private readonly parameters: Parameters,
    private readonly evidence: Pick<EvidenceRows, 'identifiers' | 'records'>,
    private readonly declarations: DeclarationRepository,
    private readonly names: Names,
  ) {}

  /** In a window and as long before it. */
  async of({ component, text, from, to, environment }: ShapeAsked): Promise<ShapeDetail> {
    const id = this.names.knownComponent(component) ?? 0;
    const fits = fitting(text);
    const said = async (own: Stretch) => (await this.rows.likely(text, id, own, environment)).filter((one) => fits(one.text));
    let window = { from: from - (to - from), to };
    let likely = await said(window);
    // what is gone was said on earlier days
    if (likely.length === 0) likely = await said((window = { from: to - DAYS, to }));
    const corrected = (await this.hands.corrected()).get(component) ?? [];
    if (likely.length === 0) throw notFound('This shape in this window');
    const shapes = likely.map((one) => one.id);
    const slots = await this.rows.course(shapes, id, window, environment);
    const records = await this.rows.latest(shapes, id, telling(slots), environment, LOOKED);
    const [named, flows, labels] = await Promise.all([
      this.parameters.all(),
      this.passing(records, { from, to }, environment),
      this.declarations.flows(),
    ]);
    const level = likely.reduce((most, one) => Math.max(most, one.level), 0);
    const [strands, failed] = [flows.reduce((sum, one) => sum + one.strands, 0), flows.reduce((sum, one) => sum + one.failed, 0)];
    const all = flows.reduce((sum, one) => sum + one.all, 0);
    const usual = all === 0 ? 0 : flows.reduce((sum, one) => sum + one.usual, 0) / all;
    return {
      component,
      text,
      level: LEVELS[level] as LevelName,
      weight: weightName(weightOfShape(weightOf(level, weightOfWords(text)), { isNew: false, strands: { failed, all: strands, usual } })),
      ...pieces(slots, window),
      twins: likely.length === 1 ? [] : likely.slice(0, TWINS).map((one) => ({ text: one.text, count: one.count })),
      byHand: corrected.some((one) => one.text === text),
      parameters: parametersIn(text, records, named.filter((one) => one.component === component && one.text === text)), // prettier-ignore
      looked: records.length,
      strands,
      failed,
      usuallyFailed: usual,
      flows: flows.map(({ flow, strands: many }) => ({ flow, label: labelIn(labels)(flow), strands: many })),
    };
  }

  private async passing(records: readonly ShapeRecord[], window: Stretch, environment: string[]) {
    const carried = await this.evidence.records.carriedHomes(records);
    const homes = records.flatMap(({ home, id, at }) => {
      const key = home ?? carried.get(id) ?? null;
      return key === null ? [] : [{ key, at }];
    });
    const founders = await this.evidence.identifiers.foundersAt(homes);
    return this.rows.passing([...new Set(founders.filter((one) => one !== null))], window, environment);
  }
}

/** The latest of the ten minutes in which it was said that hold as many records as are looked at. */
function telling(slots: readonly { slot: number; count: number }[]): number[] {
  const taken: number[] = [];
  let records = 0;
  for (const { slot, count } of slots.toReversed()) {
    taken.push(slot);
    records += count;
    if (records >= LOOKED || taken.length >= MOST_SLOTS) break;
  }
  return taken;
}
function pieces(slots: readonly { slot: number; count: number }[], { from, to }: Stretch): Pick<ShapeDetail, 'slotMs' | 'pieces'> {
  const [first, last] = [slotOf(from), slotOf(to)];
  const each = Math.max(1, Math.ceil((last - first) / PIECES));
  const course = Array.from({ length: Math.ceil((last - first) / each) }, (_, i) => ({ at: isoMicros((first + i * each) * SLOT_LENGTH), count: 0 }));
  for (const { slot, count } of slots) course[Math.floor((slot - first) / each)]!.count += count;
  return { slotMs: (each * SLOT_LENGTH) / 1000, pieces: course };
}

function parametersIn(text: string, records: readonly ShapeRecord[], named: readonly NamedParameter[]): ShapeParameter[] {
  const [read, written] = [parameterReader(text), writtenParts(text)];
  const rows = records.flatMap(({ message }) => {
    const values = read(message);
    return values === null ? [] : [{ values, parts: written(message)! }];
  });
  return proposedNames(text).map((proposed, place) => {
    const counts = new Map<string, number>();
    for (const { values } of rows) counts.set(values[place]!, (counts.get(values[place]!) ?? 0) + 1);
    const numbers = rows.flatMap(({ values }) => (values[place] !== '' && Number.isFinite(Number(values[place])) ? Number(values[place]) : []));
    const sorted = [...counts].sort(([one, a], [other, b]) => b - a || (one < other ? -1 : 1));
    return {
      place,
      kind: parameterKind(rows.map(({ parts }) => parts[place]!)),
      name: named.find((one) => one.place === place)?.name ?? '',
      proposed,
      values: sorted.slice(0, VALUES).map(([value, count]) => ({ value, count })),
      distinct: counts.size,
      numbers: numbers.length > 0 && numbers.length >= NUMERIC * rows.length && counts.size > 1 ? distribution(numbers) : null,
    };
  });
}
