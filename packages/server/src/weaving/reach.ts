import { reachOf, type Reach } from '@fadenweg/core/coverage';
import type { FlowRules } from '@fadenweg/core/findings';
import { UNLEARNED } from '@fadenweg/core/usual';
import type { ComponentSpan } from '../evidence/component-spans.ts';

/** How far the evidence of components reaches, for a flow: what is shorter than its patience is no hole. Worked out once for each flow. */
export function reachByFlow(spans: readonly ComponentSpan[]): (flow: FlowRules) => Reach {
  const known = new Map<string, Reach>();
  return (flow) => {
    const reach = known.get(flow.name) ?? reachOf(spans, flow.patienceMs === null ? UNLEARNED : flow.patienceMs * 1000);
    known.set(flow.name, reach);
    return reach;
  };
}
