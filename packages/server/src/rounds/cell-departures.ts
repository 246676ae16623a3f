import type { Departure } from '@fadenweg/api';
import { cellRuns, type CellKind, type CellRun } from '@fadenweg/core/rounds';
import { isoMicros } from '@fadenweg/core/units';
import type { FoundIn } from './found-departures.ts';

const WHAT = { none: 'gone', fewer: 'fading', more: 'surging', late: 'slow', 'not-done': 'failing' } as const;

/** What departs in how many came and in what no finding tells. */
export function cellDepartures({ window, cloth, labels }: FoundIn, found: readonly Departure[]): Departure[] {
  return cellRuns(cloth.flows, window.slots).flatMap((run) => {
    const { flow, kind, last } = run;
    const [from, to] = [isoMicros(window.bounds[run.first]!), isoMicros(window.bounds[last + 1]!)];
    const told = found.some(
      (one) =>
        one.flows.some((own) => own.flow === flow) &&
        one.from < to &&
        one.to >= from &&
        (one.isOfSchedule === true
          ? one.what === 'gone' && (kind === 'none' || kind === 'fewer')
          : kind === 'not-done' || (kind === 'late' && one.what === 'slow')),
    );
    return told ? [] : [departureOf(run, from, to, labels(flow), last === window.slots.length - 1)];
  });
}

function departureOf({ flow, kind, count, of, expected, weight }: CellRun, from: string, to: string, label: string, ongoing: boolean): Departure {
  return {
    key: `${kind} ${flow}`,
    what: WHAT[kind],
    outcome: null,
    title: titleOf(kind, label),
    flows: [{ flow, label }],
    component: '',
    host: '',
    from,
    to,
    ongoing,
    count,
    of,
    expected,
    weight,
    parties: [],
    hosts: [],
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
