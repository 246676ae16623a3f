import type { Outcome, RoundsCell, RoundsFlow } from '@fadenweg/api';
import { cellWords } from './cells.ts';

/** A column of the cloth: a flow, or the flows of a group that is folded. */
export interface ClothColumn extends Omit<RoundsFlow, 'cells'> {
  cells: ClothCell[];
  /** As strands are narrowed to it. */
  leads: string;
  folded: boolean;
}
export type ClothCell = RoundsCell & { /** Of a folded group: what departs in it, flow by flow. */ told?: string };
const GRAVEST = ['not-done', 'none', 'late', 'fewer', 'more'];

/**
 * Flows of one group stand beside each other, where the gravest of them stands; those of a folded one are one column.
 *
 * @param flows the gravest first
 * @param seen by slot: whether anything was collected in it
 */
export function columnsOf(flows: readonly RoundsFlow[], folded: ReadonlySet<string>, seen: readonly boolean[]): ClothColumn[] {
  const done = new Set<string>();
  return flows.flatMap((flow): ClothColumn[] => {
    const { group } = flow;
    if (group === '') return [single(flow)];
    if (done.has(group)) return [];
    done.add(group);
    const own = flows.filter((one) => one.group === group);
    return folded.has(group) ? [together(group, own, seen)] : own.map(single);
  });
}

const leadsOf = ({ flow }: RoundsFlow): string => flow || 'none';
const single = (flow: RoundsFlow): ClothColumn => ({ ...flow, leads: leadsOf(flow), folded: false });
const sum = (values: readonly (number | null)[]): number | null =>
  values.every((one) => one === null) ? null : values.reduce<number>((whole, one) => whole + (one ?? 0), 0);

function together(group: string, own: readonly RoundsFlow[], seen: readonly boolean[]): ClothColumn {
  return {
    flow: group,
    label: `${group} (${own.length})`,
    group,
    leads: own.map(leadsOf).join(','),
    folded: true,
    cells: seen.map((collected, i) =>
      cellOf(
        own.map((one) => ({ label: one.label, cell: one.cells[i]! })),
        collected,
      ),
    ),
    shift: null,
    known: own.reduce((most, one) => Math.max(most, one.known), 0),
    usual: sum(own.map((one) => one.usual)),
    usualAmiss: null,
    fenceMs: null,
  };
}

function cellOf(own: readonly { label: string; cell: RoundsCell }[], seen: boolean): ClothCell {
  const outcomes: Partial<Record<Outcome, number>> = {};
  for (const { cell } of own)
    for (const [outcome, count] of Object.entries(cell.outcomes)) outcomes[outcome as Outcome] = (outcomes[outcome as Outcome] ?? 0) + count;
  const marked = own.filter((one) => one.cell.departs);
  const rank = (cell: RoundsCell): number => GRAVEST.indexOf(cell.departs!.kind);
  const gravest = marked.reduce<RoundsCell | null>((most, { cell }) => (most === null || rank(cell) < rank(most) ? cell : most), null);
  const cell: ClothCell = {
    all: own.reduce((whole, one) => whole + one.cell.all, 0),
    outcomes,
    amiss: own.reduce((whole, one) => whole + one.cell.amiss, 0),
    late: own.reduce((whole, one) => whole + one.cell.late, 0),
    expected: sum(own.map((one) => one.cell.expected)),
    departs: gravest?.departs ?? null,
  };
  return marked.length === 0 ? cell : { ...cell, told: marked.map((one) => `${one.label}: ${cellWords(one.cell, seen)}`).join(' · ') };
}
