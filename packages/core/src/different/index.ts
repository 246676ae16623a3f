export { differentShapes, type Different, type DifferenceKind, type SaidCounts } from './different.ts';
