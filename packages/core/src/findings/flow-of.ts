import type { FlowRules } from './types.ts';

/** The flow that a founding identifier stands for: of several that fit, the one that asks for the longest beginning. */
export const flowOf = <Flow extends FlowRules>(flows: readonly Flow[], kind: string, value: string): Flow | null =>
  flows.reduce<Flow | null>(
    (best, flow) => (flow.kind === kind && value.startsWith(flow.prefix) && (best === null || flow.prefix.length > best.prefix.length) ? flow : best),
    null,
  );
