export { NamedTogether, type NamedPair, type Sighting } from './named-together.ts';
export { RecordMaker, type Made } from './record-maker.ts';
export { LONGEST_NAME, MOST_NAMES, type AmissClock, type Known, type LastingRecord, type RecordsState, type ToRead } from './types.ts';
