export { againstAll } from './against.ts';
export { insteadOf } from './instead.ts';
export { MEASURES, type AgainstAll, type StrandFacts, type Compared, type Judged, type Measure, type Piece, type PieceSide } from './types.ts';
