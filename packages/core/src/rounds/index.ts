export { A_RUN, BY_CLOCK } from './by-clock.ts';
export { clothOf, isAmissOutcome } from './cloth.ts';
export { departing, type Alike, type Departing } from './departing.ts';
export { difference, type Difference, type Side } from './difference.ts';
export { bucketAt, bucketOf, durationOf } from './lasted.ts';
export { stretchOf, type Counted, type Stretch } from './onset.ts';
export { chanceOfCount, chanceOfShare, discoveries } from './rare.ts';
export { daysBefore, slotsOf, type Slots } from './slots.ts';
export type { Cell, CellDeparture, CellKind, Cloth, FlowCloth, FlowSums, Sample, SlotSeen, Sum } from './types.ts';
