export { CLOSE, estimateClocks } from './estimate.ts';
export { alike, renewed, renewedReadings } from './account.ts';
export { isAmiss, shiftAt } from './shift.ts';
export type { ClockEstimate, ClockReading, ClockRecord, ClockSpan } from './types.ts';
