import type { PlanNode } from '@fadenweg/core/structure';

export interface PlanRow {
  node: PlanNode;
  /** Of the whole time, what the node took by itself; of the whole cost where nothing was measured. Null for none. */
  share: number | null;
  /** It took most by itself. */
  most: boolean;
  /** How many times more or fewer rows came than were estimated, above 1; null where that is near or not known. */
  off: { factor: number; more: boolean } | null;
}
/** From this factor on an estimate is said to be off: a database server chooses other ways then. */
const OFF = 10;

/** The nodes of a plan with what tells where its time went, and where its estimates were wrong. */
export function planRows(nodes: readonly PlanNode[]): PlanRow[] {
  const whole = nodes[0]?.totalMs ?? null;
  const top = Math.max(...nodes.map((node) => node.ownMs ?? 0));
  return nodes.map((node) => {
    const estimated = node.rows * (node.loops ?? 1);
    const factor = node.actualRows === null ? 1 : Math.max(estimated, 1) / Math.max(node.actualRows, 1);
    const off = Math.max(factor, 1 / factor);
    return {
      node,
      share: whole === null || whole === 0 || node.ownMs === null ? null : node.ownMs / whole,
      most: node.ownMs !== null && node.ownMs > 0 && node.ownMs === top,
      off: off >= OFF ? { factor: Math.round(off), more: factor < 1 } : null,
    };
  });
}
