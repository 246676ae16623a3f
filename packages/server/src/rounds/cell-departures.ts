import type { Departure } from '@fadenweg/api';
import { A_RUN, BY_CLOCK, type Cell, type CellKind, type FlowCloth } from '@fadenweg/core/rounds';
import { isoMicros } from '@fadenweg/core/units';
import type { FoundIn } from './found-departures.ts';

const WHAT = { none: 'gone', fewer: 'fading', more: 'surging', late: 'slow', 'not-done': 'failing' } as const;
/** How grave one strand is that came too much, or is missing; a run of a clock stands for more. */
const GRAVITY: Record<CellKind, number> = { none: 1, fewer: 0.5, more: 0.1, late: 0.5, 'not-done': 1 };

interface Run {
  kind: CellKind;
  first: number;
  last: number;
}

/** What departs in how many came and in what no finding tells: cells of one kind that follow upon each other. */
export function cellDepartures({ window, cloth, labels }: FoundIn, found: readonly Departure[]): Departure[] {
  return cloth.flows.flatMap((flow) =>
    runsOf(
      flow,
      window.slots.map((one) => one.seen),
    ).flatMap((run) => {
      // prettier-ignore
      const [from, to] = [isoMicros(window.bounds[run.first]!), isoMicros(window.bounds[run.last + 1]!)];
      const told = found.some(
        (one) =>
          one.flows.some((own) => own.flow === flow.flow) &&
          one.from < to &&
          one.to >= from &&
          (run.kind === 'not-done' || (run.kind === 'late' && one.what === 'slow')),
      );
      return told && (run.kind === 'late' || run.kind === 'not-done')
        ? []
        : [departureOf(flow, run, from, to, labels(flow.flow), run.last === window.slots.length - 1)];
    }),
  );
}

/** Marked cells of one kind, with no more than one unmarked, or any number of unseen ones, between two. */
function runsOf({ cells }: FlowCloth, seen: readonly boolean[]): Run[] {
  const runs: Run[] = [];
  for (const [i, { departs }] of cells.entries()) {
    if (!departs) continue;
    const kind = departs.kind === 'none' ? 'fewer' : departs.kind;
    const last = runs.findLast((one) => (one.kind === 'none' ? 'fewer' : one.kind) === kind);
    if (last && seen.slice(last.last + 1, i).filter(Boolean).length <= 1) {
      last.last = i;
      if (departs.kind === 'fewer') last.kind = 'fewer';
    } else runs.push({ kind: departs.kind, first: i, last: i });
  }
  return runs;
}

const sum = (cells: readonly Cell[], of: (cell: Cell) => number): number => cells.reduce((whole, one) => whole + of(one), 0);

function departureOf(flow: FlowCloth, { kind, first, last }: Run, from: string, to: string, label: string, ongoing: boolean): Departure {
  const cells = flow.cells.slice(first, last + 1);
  const all = sum(cells, (one) => one.all);
  const share = kind === 'late' || kind === 'not-done';
  const count = kind === 'late' ? sum(cells, (one) => one.late) : kind === 'not-done' ? sum(cells, (one) => one.amiss) : all;
  const usual = cells.find((one) => one.departs)!.departs!.usual;
  const expected = share ? usual * all : sum(cells, (one) => one.expected ?? 0);
  const excess = Math.max(1, Math.abs(count - expected));
  return {
    key: `${kind} ${flow.flow}`,
    what: WHAT[kind],
    outcome: null,
    title: titleOf(kind, label),
    flows: [{ flow: flow.flow, label }],
    component: '',
    host: '',
    from,
    to,
    ongoing,
    count,
    of: share ? all : null,
    expected,
    weight: GRAVITY[kind] * excess * (flow.spread !== null && flow.spread < BY_CLOCK && kind !== 'more' ? A_RUN : 1),
    parties: [],
    change: null,
    finding: null,
    noted: null,
  };
}

function titleOf(kind: CellKind, label: string): string {
  if (kind === 'none') return `Nothing of ${label} came`;
  if (kind === 'fewer') return `Fewer of ${label} came than usual`;
  if (kind === 'more') return `More of ${label} came than usual`;
  return kind === 'late' ? `${label} takes longer than nineteen of twenty usually do` : `${label} ends amiss more often than usual`;
}
