/** What `explain (format json)` tells of a query or a part of it. */
export interface PlanNode {
  'Node Type': string;
  'Total Cost': number;
  'Plan Rows': number;
  'Index Name'?: string;
  Plans?: PlanNode[];
}

/** A record of a stretch of time that is looked at: its share of a page, about twenty of them on each, and what the processor does. */
const COST_OF_RECORD = 0.07;

/**
 * What a query is expected to cost, in the planner's units. Of a stretch of time the planner believes that its records lie on pages all over the table, though most
 * lie together: from a seventh of a table on it expects all pages, however long the stretch is. So that part is taken from how many records there are.
 */
export function foreseenCost(plan: PlanNode): number {
  let cost = plan['Total Cost'];
  const visit = (node: PlanNode): void => {
    const [bitmap] = node.Plans ?? [];
    if (node['Node Type'] === 'Bitmap Heap Scan' && bitmap && /_pkey$/.test(bitmap['Index Name'] ?? ''))
      cost += Math.min(0, bitmap['Total Cost'] + bitmap['Plan Rows'] * COST_OF_RECORD - node['Total Cost']);
    node.Plans?.forEach(visit);
  };
  visit(plan);
  return Math.max(0, cost);
}
