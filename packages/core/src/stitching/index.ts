export { HomeChooser } from './home.ts';
export { Graph, type GraphKind } from './graph.ts';
export { overJoining, type OverJoining } from './guard.ts';
export { LeaseList, Leases, NO_LEASES } from './leases.ts';
export { ownership, type Edges, type Nodes, type Ownership } from './ownership.ts';
export { LaneFinder } from './lane.ts';
export { carriedRecords } from './carried-records.ts';
export { ownerAtOf, strandOf, type OwnerAt } from './owner-at.ts';
export { chains, type ChainLink } from './chain.ts';
