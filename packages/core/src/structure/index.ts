export { isOwnFrame, originOf, ownByName, tracesIn } from './traces/traces.ts';
export type { Thrown, Trace, TraceFrame } from './traces/types.ts';
export { encodedIn, type Encoded } from './encoded.ts';
export { partsOfMessage } from './parts.ts';
export { rootOf, type FlatTree } from './flat.ts';
export { parametersOf, sqlIn } from './sql.ts';
export type { Broken, Listed, Part, PlanNode, TreeNode, TreePart } from './types.ts';
