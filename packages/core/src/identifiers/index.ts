export * from './types.ts';
export { hash53, identifierKey } from './hash.ts';
export { normalPhone, normalValue } from './normal.ts';
export { Finder } from './finder.ts';
export { suggestKinds, type SuggestRecord, type Suggestion } from './suggest.ts';
export { STANDARD_KINDS } from './supplied.ts';
export { bestSet, type BestSet } from './best-set.ts';
export type { Discovered } from './discover.ts';
export { discoverIn, knownIn, sampledStretches, type SampledRecord } from './discovering.ts';
