export { headsOf, partedOrigin, partOf, type Parted, type Together } from './hands.ts';
export { faultOrigin, type Origin } from './origin.ts';
export { faultTitle } from './title.ts';
export { FAULT_STATES, faultState, type FaultSaid, type FaultState } from './state.ts';
