import { A_RUN, BY_CLOCK } from './by-clock.ts';
import type { Cell, CellKind, FlowCloth, SlotSeen } from './types.ts';

/** How grave one strand is that came too much, or is missing; a run of a clock stands for more. */
const GRAVITY: Record<CellKind, number> = { none: 1, fewer: 0.5, more: 0.1, late: 0.5, 'not-done': 1 };

/** Cells of a flow that depart in one way and follow upon each other. */
export interface CellRun {
  flow: string;
  kind: CellKind;
  /** Slots, both within. */
  first: number;
  last: number;
  /** How many are late, not done, or came; of so many, where it is a share; how many usually. */
  count: number;
  of: number | null;
  expected: number;
  weight: number;
}
type Span = Pick<CellRun, 'kind' | 'first' | 'last'>;

/** What departs in how many came, how many were late and not done, as stretches of time. */
export function cellRuns(flows: readonly FlowCloth[], slots: readonly SlotSeen[]): CellRun[] {
  const seen = slots.map((one) => one.seen);
  return flows.flatMap((flow) => spansOf(flow, seen).map((span) => runOf(flow, span)));
}

/** Marked cells of one kind, with no more than one unmarked, or any number of unseen ones, between two. */
function spansOf({ cells }: FlowCloth, seen: readonly boolean[]): Span[] {
  const spans: Span[] = [];
  for (const [i, { departs }] of cells.entries()) {
    if (!departs) continue;
    const kind = departs.kind === 'none' ? 'fewer' : departs.kind;
    const last = spans.findLast((one) => (one.kind === 'none' ? 'fewer' : one.kind) === kind);
    if (last && seen.slice(last.last + 1, i).filter(Boolean).length <= 1) {
      last.last = i;
      if (departs.kind === 'fewer') last.kind = 'fewer';
    } else spans.push({ kind: departs.kind, first: i, last: i });
  }
  return spans;
}

const sum = (cells: readonly Cell[], of: (cell: Cell) => number): number => cells.reduce((whole, one) => whole + of(one), 0);

function runOf({ flow, cells: all, spread }: FlowCloth, { kind, first, last }: Span): CellRun {
  const cells = all.slice(first, last + 1);
  const came = sum(cells, (one) => one.all);
  const share = kind === 'late' || kind === 'not-done';
  const count = kind === 'late' ? sum(cells, (one) => one.late) : kind === 'not-done' ? sum(cells, (one) => one.amiss) : came;
  const { usual } = cells.find((one) => one.departs)!.departs!;
  const expected = share ? usual * came : sum(cells, (one) => one.expected ?? 0);
  const excess = Math.max(1, Math.abs(count - expected));
  const byClock = spread !== null && spread < BY_CLOCK && kind !== 'more';
  return { flow, kind, first, last, count, of: share ? came : null, expected, weight: GRAVITY[kind] * excess * (byClock ? A_RUN : 1) };
}
