import type { Truth } from '../writing/sink.ts';

/** What is scored of a strand as it is exported. */
export interface Told {
  businessId: string;
  kind: string;
  outcome: string;
  identifiers: readonly { kind: string; value: string; role: string }[];
  findings: readonly {
    failedIn: string;
    component: string;
    record: { source: string; line: number };
    confidence: number;
    missingNext?: string | null;
    excessMs?: number | null;
  }[];
  steps?: readonly { component: string; startedAt: string; endedAt: string; attempt: number; parallel: number | null }[];
  legs?: readonly unknown[];
  recordsAt?: readonly { source: string; line: number; carried?: boolean }[];
}
/** Right ones, wrong ones, missing ones. */
export interface Hits {
  right: number;
  wrong: number;
  missing: number;
}
export interface Score {
  strands: number;
  /** Strands of the truth that were found at all. */
  found: number;
  records: Hits;
  /** Of those that are carried over because of who wrote them; what is missing is not counted here. */
  carried: Hits;
  identifiers: Hits;
  /** Pairs of components: those told in the order in which they really began. */
  order: Hits;
  /** Begins and ends of components' work within 20 ms or 2 % of its length, or as closely as its log tells times. */
  times: Hits;
  /** Legs, attempts of a component, components side by side, where the truth tells of them: each one counts. */
  course: Hits;
  outcomes: number;
  /** By the real outcome: strands, how many are told to have it, and of how many with a cause the first finding names its component. */
  byOutcome: Map<string, { all: number; right: number; causes: number; component: number }>;
  /** Of the strands with a cause: how many name the component that gave up, the component of the cause, the record. */
  causes: { all: number; failedIn: number; component: number; record: number; /** The component among the first three. */ amongThree: number };
  /** Of what never came, where the truth tells who should have spoken next: how many first findings say so. Of what was slow: how many tell within 15 % how much. */
  next: { all: number; right: number };
  lost: { all: number; right: number };
  /** Strands that went well, and how many of them are told to be faulty. */
  good: { all: number; blamed: number };
  /** First findings of strands with a cause, by how sure they are said to be in tenths: how many, the sum of what is said, how many name the right component. */
  sure: Map<number, { findings: number; said: number; right: number }>;
}
export interface Worst {
  businessId: string;
  why: string;
  f1: number;
}

/** What was lost is told closely enough. */
const LOST_WITHIN = 0.15;
const fresh = (): Score => ({
  strands: 0,
  found: 0,
  records: { right: 0, wrong: 0, missing: 0 },
  carried: { right: 0, wrong: 0, missing: 0 },
  identifiers: { right: 0, wrong: 0, missing: 0 },
  order: { right: 0, wrong: 0, missing: 0 },
  times: { right: 0, wrong: 0, missing: 0 },
  course: { right: 0, wrong: 0, missing: 0 },
  outcomes: 0,
  byOutcome: new Map(),
  causes: { all: 0, failedIn: 0, component: 0, record: 0, amongThree: 0 },
  next: { all: 0, right: 0 },
  lost: { all: 0, right: 0 },
  good: { all: 0, blamed: 0 },
  sure: new Map(),
});

/** The harmonic mean of precision and recall, 1 where there was nothing to find and nothing was found. */
export const f1 = ({ right, wrong, missing }: Hits): number => (right + wrong + missing === 0 ? 1 : (2 * right) / (2 * right + wrong + missing));

/** Compares strands with what really happened, strand by strand as they come; sums by flow and by story. */
export class Scoring {
  readonly byFlow = new Map<string, Score>();
  /** By story, or by the kind of fault where none tells it. */
  readonly byKind = new Map<string, Score>();
  private readonly open: Map<string, Truth>;
  private readonly bad: Worst[] = [];
  /** Strands of a kind that the truth knows, which never were. */
  readonly invented: string[] = [];
  private readonly kinds: ReadonlySet<string>;

  constructor(truth: readonly Truth[]) {
    this.open = new Map(truth.map((one) => [one.businessId, one]));
    this.kinds = new Set(truth.map((one) => one.identifiers[0]?.kind ?? ''));
  }

  add(told: Told): void {
    const truth = this.open.get(told.businessId);
    if (!truth) {
      if (this.kinds.has(told.kind)) this.invented.push(told.businessId);
      return;
    }
    this.open.delete(told.businessId);
    this.score(truth, told);
  }
  /** To be called when all were told: what is left was not found. */
  end(): void {
    for (const truth of this.open.values()) this.score(truth, null);
    this.open.clear();
  }
  worst(most: number): Worst[] {
    return this.bad.sort((a, b) => a.f1 - b.f1 || a.businessId.localeCompare(b.businessId)).slice(0, most);
  }

  private score(truth: Truth, told: Told | null): void {
    const records = compared(truth.records.map(placeOf), (told?.recordsAt ?? []).map(placeOf));
    const real = new Set(truth.records.map(placeOf));
    const inferred = (told?.recordsAt ?? []).filter((one) => one.carried === true);
    const carriedRight = inferred.filter((one) => real.has(placeOf(one))).length;
    const carried: Hits = { right: carriedRight, wrong: inferred.length - carriedRight, missing: 0 };
    const kinds = new Set(truth.identifiers.map((one) => one.kind));
    const named = (list: readonly { kind: string; value: string }[]): string[] => list.filter((one) => kinds.has(one.kind)).map((one) => `${one.kind} ${one.value}`); // prettier-ignore
    // of those that many share, only the ones that the truth tells of count: it does not list every party
    const known = new Set(named(truth.identifiers));
    const own = (told?.identifiers ?? []).filter((one) => one.role !== 'shared' || known.has(`${one.kind} ${one.value}`));
    const identifiers = compared([...known], named(own));
    const { order, times } = timing(truth, told);
    const course = courseOf(truth, told);
    const first = told?.findings[0];
    const right = told !== null && (told.outcome === truth.outcome || truth.alsoRight?.includes(told.outcome) === true);
    const { cause } = truth;
    const isRight = (finding: Told['findings'][number]): boolean =>
      cause !== null && (finding.component === cause.component || cause.accepted.includes(finding.component));
    const cell = {
      amongThree: told?.findings.slice(0, 3).some(isRight) === true,
      failedIn: first !== undefined && cause !== null && first.failedIn === cause.failedIn,
      component: first !== undefined && isRight(first),
      record:
        first !== undefined &&
        cause !== null &&
        cause.record !== null &&
        (placeOf(first.record) === placeOf(cause.record) || isOfAccepted(first, truth)),
    };
    const nextRight = !truth.next || (first?.missingNext && truth.next.includes(first.missingNext));
    const kind = truth.story === null ? truth.kind : `story ${truth.story}`;
    for (const score of [this.of(this.byFlow, truth.flow), ...(kind === undefined ? [] : [this.of(this.byKind, kind)])]) {
      score.strands++;
      if (told) score.found++;
      add(score.records, records);
      add(score.carried, carried);
      add(score.identifiers, identifiers);
      add(score.order, order);
      add(score.times, times);
      add(score.course, course);
      if (right) score.outcomes++;
      const same = score.byOutcome.get(truth.outcome) ?? { all: 0, right: 0, causes: 0, component: 0 };
      score.byOutcome.set(truth.outcome, same);
      same.all++;
      if (right) same.right++;
      if (cause) same.causes++;
      if (cell.component) same.component++;
      if (told && truth.outcome === 'done') {
        score.good.all++;
        if (!right) score.good.blamed++;
      }
      if (truth.next) {
        score.next.all++;
        if (nextRight) score.next.right++;
      }
      if (truth.lostMs !== undefined) {
        score.lost.all++;
        if (first?.excessMs && Math.abs(first.excessMs - truth.lostMs) <= truth.lostMs * LOST_WITHIN) score.lost.right++;
      }
      if (cause) {
        score.causes.all++;
        for (const name of ['failedIn', 'component', 'record', 'amongThree'] as const) if (cell[name]) score.causes[name]++;
        if (first) {
          const tenth = Math.floor(first.confidence * 10 + 1e-9);
          const bin = score.sure.get(tenth) ?? { findings: 0, said: 0, right: 0 };
          score.sure.set(tenth, bin);
          bin.findings++;
          bin.said += first.confidence;
          if (cell.component) bin.right++;
        }
      }
    }
    const why = [
      told ? '' : 'not found',
      f1(records) < 1 ? `records ${records.right} right, ${records.wrong} wrong, ${records.missing} missing` : '',
      order.wrong > 0 ? `${order.wrong} pairs of components in the wrong order` : '',
      times.wrong > 0 ? `${times.wrong} begins or ends at the wrong time` : '',
      course.wrong > 0 ? `${course.wrong} legs, attempts or branches otherwise` : '',
      right ? '' : `${told?.outcome ?? 'nothing'} instead of ${truth.outcome}`,
      cause && told && !cell.component ? `cause in ${first?.component ?? 'nothing'} instead of ${cause.component}` : '',
      nextRight ? '' : `${first?.missingNext ?? 'nobody'} should have spoken next instead of ${truth.next?.join(' or ')}`,
    ].filter((one) => one !== '');
    if (why.length > 0) this.bad.push({ businessId: truth.businessId, why: why.join('; '), f1: f1(records) });
  }
  private of<Key>(scores: Map<Key, Score>, key: Key): Score {
    let score = scores.get(key);
    if (!score) scores.set(key, (score = fresh()));
    return score;
  }
}

/** Where another component is as right an answer, so is what it says itself about this strand. */
function isOfAccepted({ component, record }: Told['findings'][number], { cause, records }: Truth): boolean {
  const place = placeOf(record);
  return cause!.accepted.includes(component) && place.startsWith(`${component}/`) && records.some((one) => placeOf(one) === place);
}

/** Begins that lie closer together than this, or than what their logs tell apart, are in no order; in microseconds. */
const TOGETHER = 2000;
const NEAR = { time: 20_000, share: 0.02 };

/** Compares when each component began and ended, of those that both tell of. */
function timing(truth: Truth, told: Told | null): { order: Hits; times: Hits } {
  const order: Hits = { right: 0, wrong: 0, missing: 0 };
  const times: Hits = { right: 0, wrong: 0, missing: 0 };
  const own = new Map<string, { from: number; to: number }>();
  for (const { component, startedAt, endedAt } of told?.steps ?? []) {
    const [from, to] = [microsOf(startedAt), microsOf(endedAt)];
    const known = own.get(component);
    own.set(component, { from: Math.min(from, known?.from ?? Infinity), to: Math.max(to, known?.to ?? -Infinity) });
  }
  const both = Object.entries(truth.spans).flatMap(([component, real]) => {
    const as = own.get(component);
    return as ? [{ real, as }] : [];
  });
  for (const { real, as } of both) {
    const near = Math.max(NEAR.time, (real.to - real.from) * NEAR.share, real.grain ?? 0);
    for (const name of ['from', 'to'] as const) times[Math.abs(real[name] - as[name]) <= near ? 'right' : 'wrong']++;
  }
  for (const [i, a] of both.entries()) {
    for (const b of both.slice(i + 1)) {
      const apart = b.real.from - a.real.from;
      if (Math.abs(apart) >= Math.max(TOGETHER, a.real.grain ?? 0, b.real.grain ?? 0))
        order[apart > 0 === b.as.from > a.as.from ? 'right' : 'wrong']++;
    }
  }
  return { order, times };
}
/** Whether legs, attempts and what went on side by side are told as they were. */
function courseOf({ course }: Truth, told: Told | null): Hits {
  const hits: Hits = { right: 0, wrong: 0, missing: 0 };
  if (!course || !told) return hits;
  const steps = told.steps ?? [];
  const say = (right: boolean): void => void hits[right ? 'right' : 'wrong']++;
  say(told.legs?.length === course.legs);
  for (const [component, attempts] of Object.entries(course.attempts)) {
    const own = steps.filter((step) => step.component === component).map((step) => step.attempt);
    if (own.length > 0) say(Math.max(...own) === attempts);
  }
  const groups = (component: string): number[] =>
    steps.flatMap((step) => (step.component === component && step.parallel !== null ? [step.parallel] : []));
  const [one, other] = course.parallel;
  if (one !== undefined && other !== undefined) say(groups(one).some((group) => groups(other).includes(group)));
  return hits;
}
function microsOf(iso: string): number {
  const fraction = (/\.(\d+)/.exec(iso)?.[1] ?? '').padEnd(6, '0').slice(0, 6);
  return Math.floor(Date.parse(iso) / 1000) * 1_000_000 + Number(fraction);
}

/** Below the folder that was brought in, however that was called. */
const placeOf = ({ source, line }: { source: string; line: number }): string => `${source.replace(/^logs\//, '')}:${line}`;

function compared(wanted: readonly string[], got: readonly string[]): Hits {
  const all = new Set(wanted);
  const own = new Set(got);
  const right = [...own].filter((one) => all.has(one)).length;
  return { right, wrong: own.size - right, missing: all.size - right };
}
function add(sum: Hits, more: Hits): void {
  sum.right += more.right;
  sum.wrong += more.wrong;
  sum.missing += more.missing;
}
