import type { Job, JobRun, JobRuns, Jobs, JobState, Outcome } from '@fadenweg/api';
import {
  lateBetween,
  missedBetween,
  nextDue,
  odditiesOf,
  rowsOf,
  scheduleFrom,
  scheduleOf,
  scheduleWords,
  usuallyFor,
  type RunFacts,
  type Schedule,
} from '@fadenweg/core/jobs';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import { labelIn, type DeclarationRepository, type FlowWithUsual } from '../declared/declarations.ts';
import { strandId, type IdentifierRepository, type Named } from '../evidence/identifiers.ts';
import type { AskedWindow } from '../platform/http/windows.ts';
import type { JobRepository, RunRow } from './job-rows.ts';

/** Of each flow so many runs are looked at: as many as tell its schedule and what is usual. */
const LOOKED = 400;
/** So many begins tell whether there is a schedule; so many jobs are looked at. */
const TELLING = 60;
const MOST_JOBS = 200;
/** So many are told of a window. */
const TOLD = 300;
const GOOD = new Set(['done', 'slow']);
const ENDED_BADLY = new Set(['failed', 'stalled']);
const OPEN = new Set(['running', 'out-of-sight']);
const GRAVITY: Record<JobState, number> = { missed: 4, failed: 3, odd: 2, running: 1, good: 0 };

export type JobSort = 'gravest' | 'last' | 'name';
/** A job whose runs do not keep to its schedule, each list in order of time. */
export interface OffSchedule extends Pick<JobRuns, 'flow' | 'label' | 'missed' | 'silentSince'> {
  environment: string;
  late: { name: string; startedAt: string; dueAt: string }[];
  lastBegun: string;
}
interface Known {
  flow: string;
  environment: string;
  label: string;
  schedule: Schedule | null;
  /** In words, what its begins follow where something else is declared; '' where they follow none, or nothing is. */
  learned: string;
  /** The latest first. */
  rows: RunRow[];
  /** Of each. */
  facts: RunFacts[];
}

/** Runs of jobs: their schedule, the last one and the last good one, and what is amiss. */
export class JobService {
  constructor(
    private readonly rows: JobRepository,
    private readonly declarations: DeclarationRepository,
    private readonly identifiers: IdentifierRepository,
  ) {}

  async list(asked: AskedWindow, sort: JobSort): Promise<Jobs> {
    const { from, environment, zone } = asked;
    const until = await this.rows.until(environment);
    if (until === null) return { items: [], until: null };
    const to = Math.min(asked.to, until.all + 1);
    const known = await this.known(environment, to, zone, null);
    const named = await this.identifiers.named(known.flatMap((one) => [one.rows[0], one.rows.find(isGood)].flatMap((row) => row?.founder ?? [])));
    const items = known.map((job): Job => {
      const { flow, environment: own, label, schedule, rows } = job;
      const within = rows.filter((row) => row.started_at >= from);
      const begins = rows.map((row) => row.started_at).reverse();
      const missed = schedule === null ? [] : missedBetween(schedule, begins, from, to, zone);
      const late = lateOf(schedule, begins, from, to, zone);
      const told = (place: number): JobRun | null => (rows[place] ? runOf(job, place, named, late) : null);
      const last = told(0);
      const { state, why } = stateOf(last, missed);
      const due = schedule === null ? null : nextDue(schedule, to - 1, zone);
      return {
        flow,
        label,
        environment: own,
        schedule: schedule === null ? '' : scheduleWords(schedule),
        declared: schedule?.kind === 'declared',
        learned: job.learned,
        nextDue: due === null ? null : isoMicros(due),
        state,
        why,
        last,
        lastGood: told(rows.findIndex(isGood)),
        runs: within.length,
        amiss: within.filter((row) => !GOOD.has(row.outcome) && !OPEN.has(row.outcome)).length,
        missed: missed.slice(-TOLD).map(isoMicros),
        silentSince: silentSince(rows, missed, until.of),
        late: [...late.keys()].filter((at) => at >= from).length,
      };
    });
    return { items: items.sort(order(sort)), until: isoMicros(until.all) };
  }

  /** Runs of some jobs in a window, each job's in order of time. @param flows null for all */
  async runs(asked: AskedWindow, flows: readonly string[] | null): Promise<JobRuns[]> {
    const { from, environment, zone } = asked;
    const until = await this.rows.until(environment);
    if (until === null) return [];
    const to = Math.min(asked.to, until.all + 1);
    const known = await this.known(environment, to, zone, flows);
    const named = await this.identifiers.named(known.flatMap((one) => one.rows.filter((row) => row.ended_at >= from).map((row) => row.founder)));
    return known.map((job) => {
      const { flow, label, schedule, rows } = job;
      const within = rows.flatMap((row, place) => (row.ended_at >= from ? [place] : []));
      const begins = rows.map((row) => row.started_at).reverse();
      const late = lateOf(schedule, begins, from, to, zone);
      const missed = schedule === null ? [] : missedBetween(schedule, begins, from, to, zone);
      return {
        flow,
        label,
        runs: within.slice(0, TOLD).reverse().map((place) => runOf(job, place, named, late)), // prettier-ignore
        missed: missed.map(isoMicros),
        silentSince: silentSince(rows, missed, until.of),
        cut: within.length > TOLD || (within.length === rows.length && rows.length === LOOKED),
      };
    });
  }

  /** What did not begin when it was due in a window, and what began late, of each job of which there is any. */
  async offSchedule(asked: AskedWindow): Promise<OffSchedule[]> {
    const { from, environment, zone } = asked;
    const until = await this.rows.until(environment);
    if (until === null) return [];
    const to = Math.min(asked.to, until.all + 1);
    const known = await this.known(environment, to, zone, null);
    return known.flatMap(({ flow, environment: own, label, schedule, rows }): OffSchedule[] => {
      if (schedule === null) return [];
      const begins = rows.map((row) => row.started_at).reverse();
      const missed = missedBetween(schedule, begins, from, to, zone);
      const dues = lateOf(schedule, begins, from, to, zone);
      const late = rows.flatMap((row) => (row.started_at >= from && dues.has(row.started_at) ? [{ name: row.value, startedAt: isoMicros(row.started_at), dueAt: isoMicros(dues.get(row.started_at)!) }] : [])).reverse(); // prettier-ignore
      if (missed.length === 0 && late.length === 0) return [];
      return [{ flow, environment: own, label, missed: missed.map(isoMicros), late, lastBegun: isoMicros(rows[0]!.started_at), silentSince: silentSince(rows, missed, until.of) }]; // prettier-ignore
    });
  }

  /** Flows that are jobs: they are declared to be runs or to begin by a schedule, or begin by one. */
  private async known(environment: readonly string[], to: Microseconds, zone: string, only: readonly string[] | null): Promise<Known[]> {
    const [all, declared] = await Promise.all([this.rows.flows(environment), this.declarations.flows()]);
    const rulesOf = new Map(declared.map((one) => [one.name, one]));
    const asked = only === null ? all : all.filter((one) => only.includes(one.flow));
    // which flows are jobs is told by few begins; rows are read of jobs alone
    const begins = await this.rows.begins(asked, to, TELLING);
    const flows = asked.filter(({ flow }, i) => isJob(rulesOf.get(flow)) || scheduleOf(begins[i]!, zone) !== null).slice(0, MOST_JOBS);
    const byJob = flows.map((): RunRow[] => []);
    for (const { place, ...row } of await this.rows.latest(flows, to, LOOKED)) byJob[place]!.push(row);
    const label = labelIn(declared);
    return flows.flatMap(({ flow, environment: own }, place): Known[] => {
      const runs = byJob[place]!;
      const learned = scheduleOf(runs.map((row) => row.started_at).reverse(), zone); // prettier-ignore
      const stated = rulesOf.get(flow)?.schedule ?? null;
      const schedule = stated === null ? learned : scheduleFrom(stated);
      if (runs.length === 0) return [];
      return [{ flow, environment: own, label: label(flow), schedule, learned: stated === null || learned === null ? '' : scheduleWords(learned), rows: runs, facts: runs.map(factsOf) }]; // prettier-ignore
    });
  }
}

const isJob = (flow: FlowWithUsual | undefined): boolean => flow?.kind === 'run' || (flow?.schedule ?? null) !== null;
const isGood = (row: RunRow): boolean => GOOD.has(row.outcome);
/** Its volume: what it wrote, else what it read. */
const factsOf = ({ started_at, duration, outcome, told_rows }: RunRow): RunFacts => {
  const { read, written } = rowsOf(told_rows);
  return { startedAt: started_at, duration, outcome, volume: read ?? written };
};

/** When runs that began late in a window, or within a day before it, were due, by their begins. */
const lateOf = (
  schedule: Schedule | null,
  begins: readonly Microseconds[],
  from: Microseconds,
  to: Microseconds,
  zone: string,
): ReadonlyMap<Microseconds, Microseconds> =>
  schedule === null || begins.length === 0 ? new Map() : lateBetween(schedule, begins, Math.max(begins[0]!, from - 86_400_000_000), to, zone);

/** Since when nothing is there of the component in which runs begin, where the last that is missed was due behind it: then nobody knows whether it began. */
function silentSince(rows: readonly RunRow[], missed: readonly Microseconds[], until: ReadonlyMap<number, Microseconds>): string | null {
  const last = until.get(rows[0]?.components[0] ?? NaN);
  return last !== undefined && missed.length > 0 && missed.at(-1)! > last ? isoMicros(last) : null;
}

/**
 * A run of a job, by its place among those that are looked at.
 *
 * @param late when those that began late were due
 */
function runOf({ rows, facts: all }: Known, place: number, named: ReadonlyMap<number, Named>, late: ReadonlyMap<Microseconds, Microseconds>): JobRun {
  const [row, facts] = [rows[place]!, all[place]!];
  const usual = usuallyFor(facts, all.slice(place + 1));
  const own = named.get(row.founder);
  return {
    strand: strandId(own?.kind ?? '', own?.scope ?? '', row.value),
    name: row.value,
    startedAt: isoMicros(row.started_at),
    endedAt: isoMicros(row.ended_at),
    durationMs: row.duration / 1000,
    outcome: row.outcome as Outcome,
    headline: row.headline,
    ...rowsOf(row.told_rows),
    odd: odditiesOf(facts, usual, all[place + 1], late.has(row.started_at)),
    dueAt: late.has(row.started_at) ? isoMicros(late.get(row.started_at)!) : null,
    usual: usual && { durationMs: usual.duration / 1000, volume: usual.volume },
  };
}

function stateOf(last: JobRun | null, missed: readonly Microseconds[]): { state: JobState; why: string } {
  const latest = missed.at(-1);
  if (latest !== undefined && (last === null || latest > Date.parse(last.startedAt) * 1000)) return { state: 'missed', why: 'did not start' };
  if (last === null) return { state: 'good', why: '' };
  if (OPEN.has(last.outcome)) {
    const long = last.usual !== null && last.durationMs > 3 * last.usual.durationMs;
    return long ? { state: 'odd', why: 'still running, far longer than usual' } : { state: 'running', why: '' };
  }
  if (!GOOD.has(last.outcome)) return { state: ENDED_BADLY.has(last.outcome) ? 'failed' : 'odd', why: last.headline };
  if (last.odd.length > 0) return { state: 'odd', why: last.odd.map((one) => ODD_WORDS[one]).join(', ') };
  return { state: 'good', why: '' };
}
const ODD_WORDS: Record<JobRun['odd'][number], string> = {
  thin: 'far fewer rows than usual',
  many: 'far more rows than usual',
  long: 'far longer than usual',
  overlapped: 'began before the last had ended',
  late: 'began late',
};

function order(sort: JobSort): (a: Job, b: Job) => number {
  const byName = (a: Job, b: Job): number => a.label.localeCompare(b.label) || a.environment.localeCompare(b.environment);
  if (sort === 'name') return byName;
  if (sort === 'last') return (a, b) => ((b.last?.startedAt ?? '') < (a.last?.startedAt ?? '') ? -1 : 1);
  return (a, b) => GRAVITY[b.state] - GRAVITY[a.state] || b.missed.length + b.amiss - (a.missed.length + a.amiss) || byName(a, b);
}
