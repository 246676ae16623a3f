import type { DifferentShape, DifferentShapes, LevelName, ShapeBaseline } from '@fadenweg/api';
import { differentShapes, type SaidCounts } from '@fadenweg/core/different';
import { daysBefore } from '@fadenweg/core/rounds';
import { groupTwins, type SaidShape } from '@fadenweg/core/shapes';
import { isoMicros, LEVELS, type Microseconds } from '@fadenweg/core/units';
import { weightName, weightOf, weightOfShape, weightOfWords } from '@fadenweg/core/weights';
import type { Names } from '../evidence/names.ts';
import type { ShapeHands } from './shape-hands.ts';
import { SLOT_LENGTH, slotOf, type ShapeRepository, type ShapeRow, type Stretch, type Where } from './shape-rows.ts';

/** So many stretches before are compared with; so many are told. */
const STRETCHES = 7;
const DAYS = 14;
const SHOWN = 200;
const DAY = 86_400_000_000;
/** Of more shapes than these of a component the rarest are left as they are. */
const MOST_GROUPED = 3000;

export interface ShapesAsked extends Stretch {
  environment: string[];
  zone: string;
  baseline: ShapeBaseline;
  /** Of the baseline `window`. */
  other: Stretch | null;
  /** Of the baseline `environment`. */
  otherEnvironment: string;
  /** Of the baseline `host`: the one that is set against all others. */
  host: string;
  /** Also those that are tolerated. */
  all: boolean;
}
interface Said extends SaidCounts {
  component: number;
  text: string;
  level: number;
  shapes: Set<number>;
  counts: Map<number, number>;
}

/** What is said otherwise in a window than before it, or than somewhere else. */
export class ShapeService {
  constructor(
    private readonly rows: ShapeRepository,
    private readonly hands: ShapeHands,
    private readonly names: Names,
  ) {}

  async different(asked: ShapesAsked): Promise<DifferentShapes> {
    const { from, environment } = asked;
    const evidence = await this.rows.evidence(environment);
    // what lies behind the end of the evidence is not gone
    const to = Math.min(asked.to, evidence === null ? asked.to : (Math.floor(evidence.to / SLOT_LENGTH) + 1) * SLOT_LENGTH);
    const { rows, earlier } = await this.counted({ ...asked, to }, evidence);
    const said = await this.grouped(rows);
    const any = this.comparable(said, rows);
    // where it is set against something else beside it, what was said earlier does not matter
    const fresh = earlier ? said.filter((one) => one.counts.size === 0) : [];
    const known = await this.firstOf(fresh, environment);
    for (const one of fresh) one.known = (known.get(one) ?? from) < slotOf(from) * SLOT_LENGTH;
    const { told, shift } = differentShapes(said);
    const tolerated = new Map((await this.hands.tolerated()).map((one) => [`${one.component}\0${one.text}\0${one.kind}`, one.note]));
    const noteOf = ({ one, kind }: (typeof told)[number]): string | null =>
      tolerated.get(`${this.names.component(one.component)}\0${one.text}\0${kind}`) ?? null;
    const wanted = asked.all ? told : told.filter((one) => noteOf(one) === null);
    const shown = wanted.slice(0, SHOWN);
    const since = await this.firstOf(shown.map(({ one }) => one), environment); // prettier-ignore
    const now = said.filter((one) => one.now > 0);
    const compared = (earlier ?? [asked]).filter((_, i) => any.has(i + 1));
    return {
      items: shown.map((each): DifferentShape => {
        const { one, kind, expected, chance, few } = each;
        const first = since.get(one);
        return {
          component: this.names.component(one.component),
          text: one.text,
          twins: one.shapes.size,
          level: LEVELS[one.level] as LevelName,
          weight: weightName(weightOfShape(weightOf(one.level, weightOfWords(one.text)), { isNew: kind === 'new' })),
          kind,
          count: one.now,
          expected,
          chance,
          few,
          firstAt: first === undefined ? null : isoMicros(first),
          tolerated: noteOf(each),
        };
      }),
      more: wanted.length - shown.length,
      tolerated: told.length - wanted.length,
      shapes: now.length,
      records: now.reduce((sum, one) => sum + one.now, 0),
      shift,
      stretches: compared.length,
      since: compared.length === 0 ? null : isoMicros(Math.min(...compared.map((one) => one.from))),
      from: isoMicros(slotOf(from) * SLOT_LENGTH),
      to: isoMicros(slotOf(to) * SLOT_LENGTH),
    };
  }

  /** Counts of the window (place 0) and of what it is compared with (1 and on); `earlier`: stretches of time, null where it is compared with something else of the same time. */
  private async counted(asked: ShapesAsked, evidence: Stretch | null): Promise<{ rows: ShapeRow[]; earlier: Stretch[] | null }> {
    const { from, to, environment, baseline } = asked;
    if (evidence === null || to <= from) return { rows: [], earlier: [] };
    if (baseline === 'environment' || baseline === 'host') {
      const id = baseline === 'host' ? (this.names.knownHost(asked.host) ?? 0) : 0;
      const [own, other]: [Where, Where] =
        baseline === 'host'
          ? [{ environment, host: { id, out: false } }, { environment, host: { id, out: true } }] // prettier-ignore
          : [{ environment }, { environment: [asked.otherEnvironment] }];
      const [now, then] = await Promise.all([this.rows.within([{ from, to }], own), this.rows.within([{ from, to }], other)]);
      return { rows: [...now, ...then.map((row) => ({ ...row, place: 1 }))], earlier: null };
    }
    // of a stretch in which the evidence begins only a part was collected
    const earlier = stretchesOf(asked).filter((one) => slotOf(one.from) >= Math.floor(evidence.from / SLOT_LENGTH));
    return { rows: await this.rows.within([{ from, to }, ...earlier], { environment }), earlier };
  }

  /** By component and text, near twins as one. */
  private async grouped(rows: readonly ShapeRow[]): Promise<Said[]> {
    const [texts, corrected] = await Promise.all([this.rows.texts(rows.map((one) => one.shape)), this.hands.corrected()]);
    const byComponent = new Map<number, Map<number, SaidShape>>();
    for (const { component, shape, count } of rows) {
      const own = byComponent.get(component) ?? new Map<number, SaidShape>();
      byComponent.set(component, own);
      const known = own.get(shape);
      if (known) known.count += count;
      else own.set(shape, { id: shape, text: texts.get(shape) ?? '', count });
    }
    const groups = new Map(
      [...byComponent].map(([component, shapes]): [number, Map<number, string>] => {
        const most = [...shapes.values()].sort((a, b) => b.count - a.count || a.id - b.id).slice(0, MOST_GROUPED);
        return [component, groupTwins(most, corrected.get(this.names.component(component)))];
      }),
    );
    const said = new Map<string, Said>();
    for (const { component, shape, place, count, level } of rows) {
      const text = groups.get(component)!.get(shape) ?? texts.get(shape) ?? '';
      const key = `${component} ${text}`;
      const known = said.get(key) ?? {
        component,
        text,
        level,
        shapes: new Set<number>(),
        now: 0,
        before: [],
        known: false,
        silent: false,
        counts: new Map<number, number>(),
      };
      said.set(key, known);
      known.level = Math.max(known.level, level);
      known.shapes.add(shape);
      if (place === 0) known.now += count;
      else known.counts.set(place, (known.counts.get(place) ?? 0) + count);
    }
    return [...said.values()];
  }

  /** Fills in what each is compared with. @returns places in which anything was said */
  private comparable(said: readonly Said[], rows: readonly ShapeRow[]): Set<number> {
    // of a component counts what is before where it said anything at all
    const spoke = new Map<number, Set<number>>();
    for (const { component, place } of rows) spoke.set(component, (spoke.get(component) ?? new Set()).add(place));
    const any = new Set(rows.map((one) => one.place));
    any.delete(0);
    for (const one of said) {
      // a component that never spoke before has nothing to be compared with but that others spoke
      const own = [...(spoke.get(one.component) ?? [])].filter((place) => place !== 0);
      one.before = (own.length > 0 ? own : [...any]).map((place) => one.counts.get(place) ?? 0);
      one.silent = !spoke.get(one.component)!.has(0);
    }
    return any;
  }

  private async firstOf(said: readonly Said[], environment: string[]): Promise<Map<Said, Microseconds>> {
    const first = await this.rows.first(said.flatMap((one) => [...one.shapes]), environment); // prettier-ignore
    return new Map(
      said.flatMap((one): [Said, Microseconds][] => {
        const own = [...one.shapes].flatMap((shape) => first.get(shape) ?? []);
        return own.length === 0 ? [] : [[one, Math.min(...own)]];
      }),
    );
  }
}

/** What a window is compared with: stretches as long that end where it begins, the same hours of earlier days, or as many as another window holds. */
function stretchesOf({ from, to, zone, baseline, other }: ShapesAsked): Stretch[] {
  const length = to - from;
  if (baseline === 'window') {
    if (other === null) return [];
    const many = Math.max(1, Math.min(DAYS, Math.floor((other.to - other.from) / length)));
    return Array.from({ length: many }, (_, i) => ({ from: other.to - (i + 1) * length, to: other.to - i * length }));
  }
  if (baseline === 'before') return Array.from({ length: STRETCHES }, (_, i) => ({ from: from - (i + 1) * length, to: from - i * length }));
  const first = Math.max(1, Math.ceil(length / DAY));
  return Array.from({ length: DAYS }, (_, i) => {
    const [begin, end] = daysBefore([from, to], first + i, zone) as [Microseconds, Microseconds];
    return { from: begin, to: end };
  });
}
